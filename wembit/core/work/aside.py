"""Whether wool that lies aside will reach."""

from __future__ import annotations

from wembit.core.grams.estimate import Range


def reaches(grams: Range, aside_g: float) -> str:
    """In words, for what takes so many grams."""
    if aside_g >= grams.p90:
        return "It reaches, nine times in ten."
    if aside_g >= grams.p50:
        return "It reaches more often than not."
    if aside_g >= grams.p10:
        return "It may not reach."
    return "It will not reach."
