"""Two versions or figures side by side: drawing, grams, minutes, cost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from wembit.core.stock.costing import Costed, total
from wembit.web.decimals import decimal
from wembit.web.figures.drawing.layout import Picture, pictures, together
from wembit.web.figures.models import Figure, Version
from wembit.web.figures.order_of_work.order import order_of
from wembit.web.figures.queries import colourway_of, parts_of
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, plan_figure, sums
from wembit.web.stash.models import Item
from wembit.web.stash.prices import prices


@dataclass(frozen=True)
class Side:
    """`cost`: of the wool, at what a gram of each costs; `unpriced`: wools of which nobody knows."""

    version: Version
    plan: FigurePlan
    picture: Picture
    grams: dict[Item, float]
    minutes: float
    cost: Decimal
    unpriced: list[Item]


@dataclass(frozen=True)
class Difference:
    """What one wool comes to on both sides, in g."""

    item: Item
    one_g: float
    two_g: float


def side_of(version: Version) -> Side:
    """A version as one side of a comparison."""
    parts, palette = parts_of(version), Palette.of(colourway_of(version))
    plan = plan_figure(version, parts, palette)
    grams: dict[Item, float] = {}
    for need in sums(plan):
        if need.item:
            grams[need.item] = grams.get(need.item, 0.0) + need.grams.p50
    each = prices(version.studio, [item.pk for item in grams])
    lines = [Costed(item.name, decimal(round(amount, 3)), each[item.pk]) for item, amount in grams.items()]
    return Side(
        version, plan, pictures(version, parts, palette)["side"], grams,
        sum(line.step.minutes for line in order_of(version, parts, plan)), total(lines),
        [item for item in grams if each[item.pk] is None],
    )  # fmt: skip


def compared(one: Side, two: Side) -> dict:
    """What the page shows beside the two sides: one frame for both drawings, the wools of either."""
    items = dict.fromkeys([*one.grams, *two.grams])
    return {
        "frame": together(one.picture, two.picture),
        "rows": [Difference(item, one.grams.get(item, 0.0), two.grams.get(item, 0.0)) for item in items],
        "unpriced": dict.fromkeys([*one.unpriced, *two.unpriced]),
    }


def beside(one: Version, versions: Sequence[Version], others: Sequence[Figure]) -> Version | None:
    """What a version is laid beside unasked: the newest other one of its figure, else of the other figures the one whose parts
    are most of the same kinds, the newest of these; None where there is no other with parts.
    """
    if own := next((version for version in versions if version.pk != one.pk), None):
        return own
    kinds = {part.kind for part in one.parts.all()}

    def likeness(figure: Figure) -> tuple[float, object]:
        theirs = {part.kind for part in figure.newest.parts.all()} if figure.newest else set()
        return len(kinds & theirs) / max(len(kinds | theirs), 1), figure.made_at

    having = [figure for figure in others if figure.newest and figure.newest.parts.all()]
    return max(having, key=likeness).newest if having else None
