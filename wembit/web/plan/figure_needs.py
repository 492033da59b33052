"""What a figure in a colourway takes, as the needs of a project keep it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Container, Iterable
from decimal import Decimal
from uuid import UUID

from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.figures.models import Colourway
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, plan_figure
from wembit.web.stash.models import ZERO, Item

from .begun import Begun
from .laid_layers import laid, ranges, standing_by_number
from .models import RANGE, Need, Project, StandIn
from .notion_items import things_for

NONE_BEGUN = Begun()
Amounts = dict[tuple[Item, bool], dict[str, Decimal]]  # by item and whether it is seen, the three values of RANGE


def plan_of(colourway: Colourway) -> FigurePlan:
    """The figure of a colourway as the core computes it."""
    version = colourway.version
    return plan_figure(version, parts_of(version), Palette.of(colourway))


def amounts_for(
    colourway: Colourway,
    count: int,
    kept: Container[UUID] = (),
    begun: Begun = NONE_BEGUN,
    stand_ins: Iterable[StandIn] = (),
) -> Amounts:
    """What `count` figures in that colourway take besides the begun ones, to a thousandth of the unit: of wool the range, of
    eyes, wire and what is fitted as much as it is; slots without a fibre are left out. `kept`: the items that are needed so
    far.

    Raises `Refusal` for a figure that cannot be computed.
    """
    plan = plan_of(colourway)
    if plan.fault:
        raise Refusal(f"{colourway.version.figure.name} cannot be computed: {plan.fault.what}.", "colourway")
    layers = list(plan.layers())
    standing = standing_by_number(begun.count + count, begun, stand_ins)
    times = Counter(tuple(made.pk for made in those) for those in standing.values())
    made_with = {tuple(made.pk for made in those): those for those in standing.values()}
    wool: dict[tuple[Item, bool], dict[str, float]] = {}
    for key, number in times.items():
        for line, grams in ranges(laid(layers, made_with[key])).items():
            before = wool.get(line, dict.fromkeys(RANGE, 0.0))
            wool[line] = {name: before[name] + getattr(grams, name) * number for name in RANGE}
    amounts = {line: {name: to_step(grams[name]) for name in RANGE} for line, grams in wool.items() if grams["p50"] > 0}
    for thing in things_for(colourway.version, parts_of(colourway.version), kept):
        known = amounts.get((thing.item, True), dict.fromkeys(RANGE, ZERO))
        more = thing.amount(begun.count + count) - thing.amount(begun.count)
        amounts[thing.item, True] = {name: known[name] + more for name in RANGE}
    return amounts


def of_a_making(need: Need) -> Decimal:
    """What the next making takes of a need, in g: by the figure where it names that wool, else an equal share."""
    plan = plan_of(need.project.colourway)
    one = {} if plan.fault else ranges(laid(plan.layers()))
    grams = one.get((need.item, need.seen))
    return to_step(grams.p50) if grams else need.p50 / need.project.count


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
