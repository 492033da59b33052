"""The outlines that a flat piece can be cut to, drawn to choose from."""

from __future__ import annotations

from wembit.core.craft.cutter_shapes import CUTTERS

BOX_PX = 36.0  # that an outline fills


def outlines() -> list[tuple[str, list[tuple[float, float]]]]:
    """Name and points of each, round the middle of its box, the root below."""
    return [(name, _in_the_box(points)) for name, points in CUTTERS.items()]


def _in_the_box(points: tuple[tuple[float, float], ...]) -> list[tuple[float, float]]:
    times = BOX_PX / 2 / max(max(abs(x), abs(y)) for x, y in points)
    return [(x * times, y * times) for x, y in points]
