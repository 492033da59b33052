"""What another fibre takes in the last makings of a project where it stands in for one of its own, before anybody has
said so.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.core.grams.estimate import Range
from wembit.web import clock
from wembit.web.figures.queries import colourways_of, palettes, parts_of_many

from .figure_needs import NONE_BEGUN, InSizes, of_a_making
from .laid_layers import laid, ranges, standing_by_number
from .models import RANGE, StandIn
from .queries import stand_ins_by_project, stand_ins_of

if TYPE_CHECKING:
    from decimal import Decimal

    from wembit.web.figures.to_core.estimating import FigurePlan
    from wembit.web.plan.models import Need
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Studio

NONE = Range(0.0, 0.0, 0.0)


@dataclass(frozen=True)
class Instead:
    """A need of which the last `count` makings take something else; the figure is reckoned once for all that is tried."""

    need: Need
    count: int
    figure: InSizes
    standing: Sequence[StandIn]

    @classmethod
    def of(cls, need: Need, count: int) -> Instead:
        """For one need."""
        return cls(need, count, InSizes.of(need.project.colourway), stand_ins_of(need.project))

    @classmethod
    def of_many(cls, studio: Studio, needs: Sequence[Need], count: Callable[[Need, InSizes], int]) -> list[Instead]:
        """For each of them, with the makings that `count` gives. A bounded number of queries."""
        ways = colourways_of(studio, [need.project.colourway_id for need in needs])
        dyed, parts = palettes(studio, ways), parts_of_many([way.version for way in ways])
        figures = {way.pk: InSizes(way.version, parts[way.version_id], dyed[way.pk]) for way in ways}
        standing = stand_ins_by_project(studio, [need.project_id for need in needs])
        found = []
        for need in needs:
            figure = figures[need.project.colourway_id]
            found.append(cls(need, count(need, figure), figure, standing.get(need.project_id, [])))
        return found

    @property
    def grams(self) -> Decimal:
        """What these makings take of the old fibre, the middle, no more than is left to take."""
        return min(self.need.left, of_a_making(self.need, self.figure) * self.count)

    def ratio(self, new: Item, srgb: str) -> float:
        """Grams of a fibre of that colour for one of the old, by the figure's own rules: covers weigh by what they hide. 1 for
        a figure that cannot be computed.
        """
        before, after = self.figure.plan_or_fault(1.0), self.figure.with_other(self.need.item_id, new, srgb)
        if before.fault or after.fault:
            return 1.0
        pairs = [
            (one.grams.middle, two.grams.middle)
            for one, two in zip(before.layers(), after.layers(), strict=True)
            if one.item and one.item.pk == self.need.item_id and one.seen == self.need.seen
        ]
        whole = sum(one for one, _ in pairs)
        return sum(two for _, two in pairs) / whole if whole else 1.0

    def taken(self, new: Item, srgb: str) -> Range:
        """What the makings take of it in all, in g: as their need of it will be. Where the figure does not name the old one,
        an equal share of the need.
        """
        project, ratio = self.need.project, self.ratio(new, srgb)
        made = StandIn(
            project=project, old=self.need.item, new=new, seen=self.need.seen, count=self.count, ratio=ratio,
            made_at=clock.now(),
        )  # fmt: skip
        whole = NONE
        for number, those in standing_by_number(project.count, NONE_BEGUN, [*self.standing, made]).items():
            if made in those:
                plan = self.figure.plan_or_fault(project.size_of(number))
                whole = whole.plus(_of_one(plan, those, made))
        return whole if whole.p50 else self._equal_share(ratio)

    def _equal_share(self, ratio: float) -> Range:
        times = (
            float(of_a_making(self.need, self.figure) / self.need.p50) * self.count * ratio if self.need.p50 else 0.0
        )
        return Range(*(float(getattr(self.need, name)) * times for name in RANGE))


def _of_one(plan: FigurePlan, those: Sequence[StandIn], made: StandIn) -> Range:
    layers = [layer for layer in laid(plan.layers(), those) if layer.item == made.new and layer.instead_of == made.old]
    return ranges(layers).get((made.new, made.seen), NONE)
