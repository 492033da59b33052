"""What the begun makings of a project take of each need, for the plan."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from decimal import Decimal
from uuid import UUID

from wembit.core.craft.materials import SMALLEST_PIECE_G
from wembit.core.grams.estimate import LayerGrams, Range, total
from wembit.web.decimals import to_step
from wembit.web.plan.begun import Amounts, Begun
from wembit.web.plan.models import PLANNED, RANGE, Project
from wembit.web.stash.models import ZERO, Item
from wembit.web.studio.models import Studio

from .models import Making, PieceLayer
from .queries import LayerLine, MakingLine, given_up_by_layer, kept_takes, makings_of

Key = tuple[Item, bool]


def begun_of(project: Project) -> Begun:
    """Finished makings with what they took, to the thousandth; those in hand with what is planned for them, less what was
    freed; both with what went with tries that were given up. What was planned before needs were kept for it is left out.
    """
    if not project.makings.exists():
        return Begun()
    lines = makings_of(project)
    given_up = given_up_by_layer([line.making.pk for line in lines])
    amounts: Amounts = {}
    had: Counter[tuple[UUID, UUID]] = Counter()
    for line in lines:
        had.update(
            {(layer.layer.instead_of_id, layer.layer.item_id) for layer in _layers(line) if layer.layer.instead_of_id}
        )
        for key, values in (_took(line) if line.making.finished_at else _planned(line)).items():
            before = amounts.get(key, dict.fromkeys(RANGE, ZERO))
            amounts[key] = {name: before[name] + values[name] for name in RANGE}
        for layer in _layers(line):
            if lost := given_up.get(layer.layer.pk, ZERO):
                key = (layer.layer.item, layer.layer.seen)
                before = amounts.get(key, dict.fromkeys(RANGE, ZERO))
                amounts[key] = {name: before[name] + lost for name in RANGE}
    return Begun(len(lines), amounts, had)


def _layers(line: MakingLine) -> list[LayerLine]:
    return [layer for piece in line.pieces for layer in piece.layers if layer.layer.need]


def _took(line: MakingLine) -> Amounts:
    taken: dict[Key, Decimal] = {}
    for layer in _layers(line):
        key = (layer.layer.item, layer.layer.seen)
        taken[key] = taken.get(key, ZERO) + layer.taken
    for thing in line.things:
        if thing.thing.need:
            taken[thing.thing.item, True] = taken.get((thing.thing.item, True), ZERO) + thing.taken
    return {key: dict.fromkeys(RANGE, amount) for key, amount in taken.items()}


def _planned(line: MakingLine) -> Amounts:
    groups: dict[Key, list[LayerLine]] = {}
    for layer in _layers(line):
        groups.setdefault((layer.layer.item, layer.layer.seen), []).append(layer)
    amounts: Amounts = {}
    for key, layers in groups.items():
        grams = _range(layers).less(float(sum(layer.layer.freed for layer in layers)))
        amounts[key] = {name: to_step(getattr(grams, name)) for name in RANGE}
    for thing in line.things:
        if thing.thing.need:
            before = amounts.get((thing.thing.item, True), dict.fromkeys(RANGE, ZERO))
            amounts[thing.thing.item, True] = {name: before[name] + thing.thing.amount for name in RANGE}
    return amounts


def _range(layers: Iterable[LayerLine]) -> Range:
    """The range of their sum as the figure's estimate has it: the pieces of one part vary together."""
    parts: dict[tuple, float] = {}
    least = 0.0
    for line in layers:
        layer = line.layer
        key = (layer.piece.part_key, layer.position, layer.role, layer.bias, layer.sigma)
        parts[key] = parts.get(key, 0.0) + layer.rule_g
        least += SMALLEST_PIECE_G if layer.rule_g * layer.bias else 0.0
    return total(
        [LayerGrams(role, "", rule_g, bias, sigma) for (_, _, role, bias, sigma), rule_g in parts.items()]
    ).at_least(least)


def worked(studio: Studio) -> dict[UUID, float]:
    """How many makings of each project are worked: finished ones whole, those in hand by the layers for which something was
    taken. Three queries.
    """
    makings = Making.objects.of(studio).filter(project__state=PLANNED)
    found: dict[UUID, float] = {}
    for project, finished in makings.values_list("project", "finished_at"):
        found[project] = found.get(project, 0.0) + (finished is not None)
    in_hand = makings.filter(finished_at=None)
    layers = PieceLayer.objects.filter(piece__making__in=in_hand).values_list(
        "pk", "piece__making", "piece__making__project"
    )
    taken = set(kept_takes().filter(layer__piece__making__in=in_hand, aside=False).values_list("layer", flat=True))
    shares: dict[tuple[UUID, UUID], list[bool]] = {}
    for layer, making, project in layers:
        shares.setdefault((making, project), []).append(layer in taken)
    for (_, project), done in shares.items():
        found[project] = found.get(project, 0.0) + sum(done) / len(done)
    return found
