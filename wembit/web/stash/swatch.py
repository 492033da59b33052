"""The colour seen of a lot, in all the ways it is kept."""

from __future__ import annotations

from wembit.core.colour.spaces import lab, sector


def swatch(srgb: str) -> dict:
    """The lot's fields of a colour `#rrggbb`; all empty for ''."""
    if not srgb:
        return {"srgb": "", "lab_l": None, "lab_a": None, "lab_b": None, "hue": ""}
    light, a, b = lab(srgb)
    return {"srgb": srgb.lower(), "lab_l": light, "lab_a": a, "lab_b": b, "hue": sector(a, b)}
