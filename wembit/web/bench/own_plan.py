"""The figure's plan in a making's own numbers: as its maker's hand takes them, with what stands in."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from wembit.web.figures.to_core.estimating import FigurePlan, LayerPlan, PartPlan

if TYPE_CHECKING:
    from .models import PieceLayer
    from .queries import MakingLine

Key = tuple[str, str, str]


def own_plan(line: MakingLine, plan: FigurePlan) -> FigurePlan:
    """Every layer with the grams that the making was begun with, all pieces of its part together; of what the making has no
    layer the plan stays.
    """
    kept: dict[Key, list[PieceLayer]] = {}
    for piece in line.pieces:
        for layer in piece.layers:
            kept.setdefault((piece.piece.part_key, layer.layer.role, layer.layer.slot_name), []).append(layer.layer)
    return replace(
        plan, parts=[replace(part, layers=[_own(part, each, kept) for each in part.layers]) for part in plan.parts]
    )


def _own(part: PartPlan, each: LayerPlan, kept: dict[Key, list[PieceLayer]]) -> LayerPlan:
    mine = kept.get((part.part.key, each.layer.role, each.layer.slot.name))
    if not mine:
        return each
    rule_g = sum(layer.rule_g for layer in mine)
    trimmed = each.grams.trimmed_g
    if trimmed is not None and each.grams.middle:
        trimmed *= rule_g * mine[0].bias / each.grams.middle
    grams = replace(each.grams, rule_g=rule_g, bias=mine[0].bias, sigma=mine[0].sigma, trimmed_g=trimmed)
    return replace(each, item=mine[0].item, grams=grams)
