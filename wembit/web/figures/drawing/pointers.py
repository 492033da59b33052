"""What a drawing points at: where colours would not be told apart, where a base shows, where shanks meet, how it stands."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import told_apart
from wembit.core.colour.show_through import grins_through
from wembit.core.craft.notions import shanks_meet
from wembit.core.errors import BadInput
from wembit.core.pose.balance import Standing, standing
from wembit.core.pose.placing import Placed
from wembit.web.figures.models import Part, Version
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, PartPlan
from wembit.web.figures.to_core.seating import placed
from wembit.web.numbers import length

from .layout import Picture

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class Pointer:
    """`key`: the part at which it points; x and y in the side view, in mm, y down."""

    number: int
    key: str
    words: str
    x: float
    y: float


def pointers(
    plan: FigurePlan, palette: Palette, side: Picture, pieces: Sequence[Placed], studio: Studio
) -> list[Pointer]:
    """Everything to look at again, in the order of the parts."""
    found: list[tuple[str, str]] = []
    paints = {part.part.key: _outermost(part) for part in plan.parts}
    names = {part.part.key: part.part.name for part in plan.parts}
    for part in plan.parts:
        found += [(part.part.key, words) for words in _own(part, palette)]
        found += _bare(part.part, plan)
        found += _beside(part.part, paints, names, palette)
        found += _shanks(part.part, pieces, studio)
    middles = {shape.key: shape.middle for shape in side.shapes}
    return [
        Pointer(n, key, words, *middles.get(key, (side.left, side.top)))
        for n, (key, words) in enumerate(dict.fromkeys(found), 1)
    ]


def stance(version: Version, parts: Sequence[Part], plan: FigurePlan) -> tuple[list[Placed], Standing | None]:
    """The placed pieces and how the figure stands; nothing where it cannot be placed."""
    try:
        pieces = placed(parts)
    except BadInput:
        return [], None
    grams = {part.part.key: sum(layer.grams.middle for layer in part.layers) / part.part.count for part in plan.parts}
    return pieces, standing(pieces, grams) if pieces else None


def _outermost(plan: PartPlan) -> object:
    """The slot that is seen of a part: its first cover, else what it is made of."""
    for role in ("cover", "core"):
        for layer in plan.layers:
            if layer.layer.role == role:
                return layer.layer.slot_id
    return None


def _apart(one: object, two: object, palette: Palette) -> bool:
    """Whether two slots in different wools are told apart; slots without a wool and the same wool are."""
    a, b = palette.items.get(one), palette.items.get(two)
    if a is None or b is None or a == b:
        return True
    return told_apart(lab(palette.colour(one)), lab(palette.colour(two)))


def _own(plan: PartPlan, palette: Palette) -> list[str]:
    found = []
    for layer in plan.layers:
        if layer.grams.capped or _pale_over_dark(layer, palette):
            found.append(
                f"{plan.part.name}: the wool under the {layer.layer.slot.name} grins through unless it is laid "
                f"{layer.grams.cover_g_m2:.0f} g a m² thick. Lay a thin layer of a wool between the two in colour first."
            )
    covers = [layer for layer in plan.layers if layer.layer.role == "cover"]
    for one, two in itertools.pairwise(covers):
        if not _apart(one.layer.slot_id, two.layer.slot_id, palette):
            found.append(
                f"{plan.part.name}: {one.layer.slot.name} and {two.layer.slot.name} would not be told apart. "
                "Choose a paler or a darker one."
            )
    return found


def _pale_over_dark(each: Any, palette: Palette) -> bool:
    if each.layer.role != "cover":
        return False
    paints = (lab(palette.colour(slot)) for slot in (each.layer.slot_id, each.over))
    return grins_through(each.grams.cover_g_m2, *paints)


def _beside(part: Part, paints: dict, names: dict, palette: Palette) -> list[tuple[str, str]]:
    on = part.seat.get("on")
    if on not in paints or not paints.get(part.key) or not paints.get(on):
        return []
    if _apart(paints[part.key], paints[on], palette):
        return []
    words = f"{part.name} and {names[on]} are of two wools that would not be told apart. Take one, or choose another."
    return [(part.key, words)]


def _bare(part: Part, plan: FigurePlan) -> list[tuple[str, str]]:
    """A part with a shape and no wool, though others may sit on it."""
    mine = next(row for row in plan.parts if row.part.key == part.key)
    if mine.layers or plan.fault or part.shape["kind"] == "none" or part.seat.get("bead_mm"):
        return []
    carries = [other.part.name for other in plan.parts if other.part.seat.get("on") == part.key]
    held = f" There is nothing to join {' and '.join(carries)} to." if carries else ""
    return [(part.key, f"{part.name}: it has no wool.{held} Give it a core, or take it off.")]


def _shanks(part: Part, pieces: Sequence[Placed], studio: Studio) -> list[tuple[str, str]]:
    """Two eyes on shanks that would meet inside a narrow head: twice the shank against the width between them."""
    shank = part.seat.get("shank_mm", 0)
    pair = [piece for piece in pieces if piece.name == part.key]
    if not shank or len(pair) != 2:
        return []
    wide = abs(float(pair[0].joints[0][1] - pair[1].joints[0][1]))
    if not shanks_meet(shank, wide):
        return []
    long, across = (" ".join(length(mm, studio)) for mm in (shank, wide))
    return [
        (part.key, f"{part.name}: two shanks of {long} meet in a head {across} wide there. Cut them shorter, or glue.")
    ]
