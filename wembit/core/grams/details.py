"""Spots, lines and borders as the areas that the estimate wants, and the coat's grams per cm from one weighed row."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from wembit.core.pose.placing import Seat
from wembit.core.pose.skin import border_mm
from wembit.core.pose.skin_marks import Drawn, area_of
from wembit.core.shape.solids import Solid

WEIGHED_ROW_MM = 50.0  # nobody knows grams per cm: one row of 5 cm is planted and weighed; common practice
SPOTS, LINE, BORDER, PATCH, DRAWN = "spots", "line", "border", "patch", "drawn"
ROW, RING = "row", "ring"
ALONG, ROUND = "along", "round"  # how a line runs


def area_mm2(given: Mapping, shape: Solid, seat: Seat, edge: float) -> float:
    """Area in mm² of a detail on one piece: `area_mm2` as it is, what was `drawn`, `spots` of `across_mm` each, a `line_mm` ×
    `width_mm`, or a soft `border_mm` wide along the zone line that lies at the share `edge` from the top, × `part` of its
    wool.
    """
    if "drawn" in given:
        return area_of(shape, seat, drawn_mark(given))
    if "spots" in given:
        return given["spots"] * math.pi / 4 * given["across_mm"] ** 2
    if "line_mm" in given:
        return given["line_mm"] * given["width_mm"]
    if "border_mm" in given:
        return border_mm(shape, seat, edge) * given["border_mm"] * given.get("part", 1.0)
    return given["area_mm2"]


def border_line(covers: Sequence[tuple[object, float]], over: object = None) -> float:
    """Where a border runs, as a share of the way round from the top: the line of the further cover of the slot `over`, else
    of the first cover. Covers are (slot, share) in the order in which they are laid.
    """
    for slot, share in covers[1:]:
        if slot == over:
            return 1 - share
    return covers[0][1] if covers else 1.0


def ground(part: str, layers: Mapping[str, Sequence[tuple[str, object]]], hosts: Mapping[str, str | None]) -> object:
    """The slot that a detail on the part lies on: the part's cover, else its core, else that of the part it sits on; None
    where none is. Layers are (role, slot) by part; `hosts` names what each part sits on.
    """
    here: str | None = part
    seen: set[str] = set()
    while here is not None and here in layers and here not in seen:
        seen.add(here)
        for role in ("cover", "core"):
            for told, slot in layers[here]:
                if told == role:
                    return slot
        here = hosts.get(here)
    return None


def cover_ground(told: object, beneath: Sequence[tuple[str, object]], under: object) -> object:
    """The slot that a cover lies on. `told`: what the maker said, which holds while it lies beneath; `beneath`: role and slot
    of the part's layers under it, from the core out; `under`: what a part without any of its own sits on.
    """
    mine = [slot for role, slot in beneath if role in ("core", "padding", "cover")]
    if told is not None and (told in mine or not mine):
        return told
    soft = [slot for role, slot in beneath if role == "padding"]
    hard = [slot for role, slot in beneath if role == "core"]
    return next(iter([*soft[-1:], *hard, *mine]), under)


def evenly(count: int, laid: str, t: float = 0.5, angle: float = 0.0) -> tuple[tuple[float, float], ...]:
    """Where dots, stitches or seeds lie, evenly: on a RING round the axis at `t`, or on a ROW along the skin at `angle`
    degrees from the top. Pairs of a share of the axis and an angle.
    """
    if laid == RING:
        return tuple((t, angle + 360 * k / count) for k in range(count))
    return tuple(((k + 1) / (count + 1), angle) for k in range(count))


def grams_per_cm(row_g: float, row_mm: float = WEIGHED_ROW_MM) -> float:
    """Grams a cm of row, from the weight of one row of `row_mm`."""
    return row_g / (row_mm / 10)


def drawn_mark(given: Mapping, paint: str = "") -> Drawn:
    """The marking that a rule tells as pairs of a share of the axis and an angle."""
    points = tuple((min(1.0, max(0.0, float(t))), float(angle)) for t, angle in given["drawn"])
    return Drawn(paint, points, float(given.get("width_mm", 0.0)), bool(given.get("both", False)))


def kind_of(given: Mapping) -> str:
    """Which way a detail is measured."""
    for key, kind in (("drawn", DRAWN), ("spots", SPOTS), ("line_mm", LINE), ("border_mm", BORDER)):
        if key in given:
            return kind
    return PATCH
