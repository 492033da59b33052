"""What a figure in a colourway takes, as the needs of a project keep it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Container, Hashable, Iterable, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.figures.models import Colourway
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, plan_figure
from wembit.web.figures.to_core.scaling import at_scale
from wembit.web.stash.models import ZERO, Item

from .begun import Amounts, Begun
from .laid_layers import laid, ranges, standing_by_number
from .models import RANGE, Need, Project, StandIn
from .notion_items import things_for

if TYPE_CHECKING:
    from wembit.web.figures.models import Part, Version

NONE_BEGUN = Begun()


def plan_of(colourway: Colourway) -> FigurePlan:
    """The figure of a colourway as the core computes it."""
    version = colourway.version
    return plan_figure(version, parts_of(version), Palette.of(colourway))


@dataclass(frozen=True)
class InSizes:
    """A figure of a colourway in the sizes of a project, each reckoned once."""

    version: Version
    parts: Sequence[Part]
    palette: Palette
    plans: dict[float, FigurePlan] = field(default_factory=dict)
    swapped: dict[Hashable, FigurePlan] = field(default_factory=dict)

    @classmethod
    def of(cls, colourway: Colourway) -> InSizes:
        return cls(colourway.version, parts_of(colourway.version), Palette.of(colourway))

    def parts_at(self, size: float) -> Sequence[Part]:
        return at_scale(self.version, self.parts, size)

    def plan_or_fault(self, size: float) -> FigurePlan:
        """As it is reckoned, or with what is wrong with it."""
        if size not in self.plans:
            self.plans[size] = plan_figure(self.version, self.parts_at(size), self.palette)
        return self.plans[size]

    def with_other(self, old: UUID, new: Item, srgb: str) -> FigurePlan:
        """In its own size with another fibre of that colour in the slots of an item."""
        key = old, new.pk, srgb
        if key not in self.swapped:
            slots = [slot for slot, item in self.palette.items.items() if item.pk == old]
            items = {**self.palette.items, **dict.fromkeys(slots, new)}
            colours = {**self.palette.colours, **(dict.fromkeys(slots, srgb) if srgb else {})}
            self.swapped[key] = plan_figure(
                self.version, self.parts, replace(self.palette, items=items, colours=colours)
            )
        return self.swapped[key]

    def plan(self, size: float) -> FigurePlan:
        """Raises `Refusal` for a figure that cannot be computed."""
        plan = self.plan_or_fault(size)
        if plan.fault:
            raise Refusal(f"{self.version.figure.name} cannot be computed: {plan.fault.what}.", "colourway")
        return plan


def amounts_for(
    project: Project,
    kept: Container[UUID] = (),
    begun: Begun = NONE_BEGUN,
    stand_ins: Iterable[StandIn] = (),
) -> Amounts:
    """What the makings of a project take besides the begun ones, each in its size, to a thousandth of the unit: of wool the
    range, of eyes, wire and what is fitted as much as it is; slots without a fibre are left out. `kept`: the items that are
    needed so far.

    Raises `Refusal` for a figure that cannot be computed.
    """
    figure = InSizes.of(project.colourway)
    standing = standing_by_number(project.count, begun, stand_ins)
    sizes = {number: project.size_of(number) for number in standing}
    times = Counter((sizes[number], tuple(made.pk for made in those)) for number, those in standing.items())
    made_with = {tuple(made.pk for made in those): those for those in standing.values()}
    wool: dict[tuple[Item, bool], dict[str, float]] = {}
    for (size, key), number in times.items():
        for line, grams in ranges(laid(figure.plan(size).layers(), made_with[key])).items():
            before = wool.get(line, dict.fromkeys(RANGE, 0.0))
            wool[line] = {name: before[name] + getattr(grams, name) * number for name in RANGE}
    amounts = {line: {name: to_step(grams[name]) for name in RANGE} for line, grams in wool.items() if grams["p50"] > 0}
    for size in sorted(set(sizes.values())):
        numbers = [number for number in standing if sizes[number] == size]
        for thing in things_for(figure.version, figure.parts_at(size), kept):
            known = amounts.get((thing.item, True), dict.fromkeys(RANGE, ZERO))
            more = sum((thing.amount_of(number) for number in numbers), ZERO)
            amounts[thing.item, True] = {name: known[name] + more for name in RANGE}
    return amounts


def of_a_making(need: Need, figure: InSizes | None = None) -> Decimal:
    """What a making takes of a need in the mean of the project's sizes, in g: by the figure (where it is there already) if it
    names that wool, else an equal share.
    """
    project = need.project
    figure = figure or InSizes.of(project.colourway)
    counts = Counter(project.size_of(number) for number in range(1, project.count + 1))
    whole = 0.0
    for size, count in counts.items():
        plan = figure.plan_or_fault(size)
        grams = {} if plan.fault else ranges(laid(plan.layers()))
        if (need.item, need.seen) not in grams:
            return need.p50 / project.count
        whole += count * grams[need.item, need.seen].p50
    return to_step(whole / project.count)


def bare_slots(colourway: Colourway) -> list[str]:
    """The names of the slots that layers name and that have no fibre yet."""
    return sorted({layer.layer.slot.name for layer in plan_of(colourway).layers() if layer.item is None})


def newer_colourway(project: Project) -> Colourway | None:
    """The colourway of the same name (else the first one) of the figure's newest version, where that is another version
    than the project's.
    """
    newest = newest_version(project.colourway.version.figure)
    if newest.pk == project.colourway.version_id:
        return None
    ways = list(newest.colourways.select_related("studio", "version__figure", "version__studio"))
    return next((way for way in ways if way.name == project.colourway.name), ways[0] if ways else None)


def needed_items(project: Project) -> set[UUID]:
    """The items that the project needs so far."""
    return set(project.needs.values_list("item", flat=True))
