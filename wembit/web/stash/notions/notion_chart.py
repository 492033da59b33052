"""Notions drawn to size: in millimetres, as many as there are up to a handful."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

from wembit.core.craft.cutter_shapes import NEEDLE_MM, blade, blade_mm, scaled
from wembit.core.craft.materials import NOTIONS
from wembit.web.stash.models import Item
from wembit.web.stash.shelf.wool_forms import Drawing, drawings

MOST = 10  # pieces drawn
LONG_MM, GAP_MM, LINE_MM = 90.0, 3.0, 1.5
TIMES = 20  # a blade across is drawn so many times as large
USUAL_MM = {"cutter": 40.0, "stencil": 40.0, "thread": 0.4, "wire": 1.0, "eyes": 4.0, "pipe_cleaner": 6.0}


@dataclass(frozen=True)
class DrawnNotion:
    """An item in a box of so many mm. Of round things `discs` (x, y, radius), of long ones `lines` (y, length, thickness), of
    outlines `paths`; a blade across beside it, enlarged; else `drawing`, which is not to size.
    """

    item: Item
    wide: float
    high: float
    discs: list[tuple[float, float, float]]
    lines: list[tuple[float, float, float]]
    paths: list[tuple]
    across: tuple | None
    drawing: Drawing | None
    fill: str


def draw_notion(item: Item) -> DrawnNotion:
    """The item (with `on_hand` and `srgb`) to size."""
    size = float(item.size_mm) if item.size_mm else USUAL_MM.get(item.notion, 4.0)
    count = min(MOST, max(1, int(item.on_hand)))
    discs, lines, paths, across, drawing = [], [], [], None, None
    wide, high = 30.0, 24.0
    if item.notion == "eyes":
        discs = [(LINE_MM + size / 2 + n * (size + GAP_MM / 2), LINE_MM + size / 2, size / 2) for n in range(count)]
        wide, high = count * (size + GAP_MM / 2) + 2 * LINE_MM, size + 2 * LINE_MM
    elif item.notion in ("wire", "thread", "pipe_cleaner"):
        known = item.unit == "mm" and not item.unweighed
        long = min(LONG_MM, float(item.on_hand) if known else LONG_MM)
        lines = [(LINE_MM + size / 2, max(long, 1.0), size)]
        wide, high = LONG_MM, size + 2 * LINE_MM
    elif item.notion in ("needle", "pin"):
        thick = blade_mm(item.told["gauge"]) if item.told.get("gauge") else 0.6
        long = NEEDLE_MM if item.notion == "needle" else 30.0
        lines = [(LINE_MM + n * GAP_MM, long, thick) for n in range(count)]
        wide, high = NEEDLE_MM + 22, max(count * GAP_MM + LINE_MM, 16.0)
        if item.told.get("section"):
            across = tuple((x + NEEDLE_MM + 12, y + 8) for x, y in blade(item.told["section"], thick * TIMES))
    elif item.notion in ("cutter", "stencil") and item.told.get("outline"):
        points = scaled(item.told["outline"], size)
        left, top = min(x for x, _ in points), min(y for _, y in points)
        paths = [tuple((x - left + LINE_MM, y - top + LINE_MM) for x, y in points)]
        wide = max(x for x, _ in points) - left + 2 * LINE_MM
        high = max(y for _, y in points) - top + 2 * LINE_MM
    else:
        drawing = drawings()[item.notion]
    return DrawnNotion(
        item, round(wide, 1), round(high, 1), discs, lines, paths, across, drawing, item.srgb or "#9b9b9b"
    )


def kinds(items: Sequence[Item]) -> list[tuple[str, list[DrawnNotion]]]:
    """The notions by what they are."""
    rows = sorted(items, key=lambda item: list(NOTIONS).index(item.notion))
    return [
        (NOTIONS[key], [draw_notion(each) for each in some]) for key, some in groupby(rows, lambda item: item.notion)
    ]
