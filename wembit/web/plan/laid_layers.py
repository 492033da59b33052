"""The layers of a making as its stand-ins have them, and which makings those are for."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from uuid import UUID

from wembit.core.grams.estimate import LayerGrams, Range, total
from wembit.web.figures.to_core.estimating import LayerPlan
from wembit.web.stash.models import Item

from .begun import Begun
from .models import StandIn


@dataclass(frozen=True)
class LaidLayer:
    """What one layer takes, for all pieces of its part, of which item: the rule's grams at bias 1, and no less than
    `floor_g`.
    """

    item: Item
    seen: bool
    role: str
    slot_name: str
    rule_g: float
    bias: float
    sigma: float
    floor_g: float
    counts_for: str
    instead_of: Item | None = None

    @property
    def grams(self) -> LayerGrams:
        return LayerGrams(self.role, "", self.rule_g, self.bias, self.sigma)


def laid(plans: Iterable[LayerPlan], standing: Sequence[StandIn] = ()) -> list[LaidLayer]:
    """The layers from the core out, each stand-in laid over what those before it left; slots without a fibre are left out."""
    layers = [
        LaidLayer(
            plan.item, plan.seen, plan.layer.role, plan.layer.slot.name, plan.grams.rule_g, plan.grams.bias,
            plan.grams.sigma, plan.floor_g, plan.counts_for,
        )
        for plan in plans
        if plan.item
    ]  # fmt: skip
    for made in standing:
        layers = [after for layer in layers for after in (_under if made.under else _instead)(layer, made)]
    return layers


def _instead(layer: LaidLayer, made: StandIn) -> list[LaidLayer]:
    if (layer.item.pk, layer.seen) != (made.old_id, made.seen):
        return [layer]
    return [replace(layer, item=made.new, instead_of=made.old, rule_g=layer.rule_g * made.ratio)]


def _under(layer: LaidLayer, made: StandIn) -> list[LaidLayer]:
    """A thin layer before the cover that it lies under, and the cover, which gets thinner."""
    if layer.item.pk != made.old_id or not layer.seen or layer.role != "cover":
        return [layer]
    thin = replace(
        layer, item=made.new, instead_of=made.old, seen=False, slot_name=f"under {layer.slot_name}"[:40],
        rule_g=layer.rule_g * (1 - made.remains) * made.ratio,
    )  # fmt: skip
    return [thin, replace(layer, rule_g=layer.rule_g * made.remains)]


def ranges(layers: Iterable[LaidLayer]) -> dict[tuple[Item, bool], Range]:
    """What the layers of a figure come to by item, seen and hidden apart, as its estimate has it."""
    groups: dict[tuple[Item, bool], list[LaidLayer]] = {}
    for layer in layers:
        groups.setdefault((layer.item, layer.seen), []).append(layer)
    return {
        key: total([layer.grams for layer in alike]).at_least(sum(layer.floor_g for layer in alike))
        for key, alike in groups.items()
    }


def standing_by_number(count: int, begun: Begun, stand_ins: Iterable[StandIn]) -> dict[int, list[StandIn]]:
    """For each number of a making that is not begun, of `count`, the stand-ins that it is made with, the first accepted first.

    Each is for the last makings that no other one for the same wool is for; what begun ones have of it counts.
    """
    numbers = range(count, begun.count, -1)
    standing: dict[int, list[StandIn]] = {number: [] for number in numbers}
    taken: dict[tuple[UUID, bool, bool], set[int]] = {}
    had = Counter(begun.had)
    for made in sorted(stand_ins, key=lambda made: made.made_at):
        used = min(had[made.old_id, made.new_id], made.count)
        had[made.old_id, made.new_id] -= used
        others = taken.setdefault((made.old_id, made.seen, made.under), set())
        mine = [number for number in numbers if number not in others][: made.count - used]
        others |= set(mine)
        for number in mine:
            standing[number].append(made)
    return standing
