"""Which notion of the studio serves each thing that a figure takes."""

from __future__ import annotations

from collections.abc import Container, Sequence
from dataclasses import asdict, dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.craft.notions import Needed, in_unit, nearest
from wembit.core.stock.serving import alike, called
from wembit.web.decimals import to_cent, to_step
from wembit.web.figures.to_core.things import things_of
from wembit.web.stash.models import NOTION, ZERO, Item, Lot, unit_of
from wembit.web.stash.queries import on_shelf, with_stock

if TYPE_CHECKING:
    from decimal import Decimal

    from wembit.web.figures.models import Part, Version
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class ThingOf:
    """One thing of a figure, and the studio's notion that serves it."""

    needed: Needed
    item: Item

    def amount(self, times: int) -> Decimal:
        """What so many figures take together, in the item's unit."""
        return to_step(in_unit(self.needed, self.item.unit, times))

    def amount_of(self, number: int) -> Decimal:
        """What the figure of that number takes of it: what is counted whole goes to the one that begins it."""
        return self.amount(number) - self.amount(number - 1)


def things_for(version: Version, parts: Sequence[Part], kept: Container[UUID] = ()) -> list[ThingOf]:
    """What stays on or in one figure, each with the nearest notion that the studio knows, one of `kept` before others; a
    notion that nobody has is written down as wanted, so that it can be planned and ordered.
    """
    studio = version.studio
    needed = [thing.needed for thing in things_of(version, parts) if not thing.needed.back]
    if not needed:
        return []
    known = {str(item.pk): item for item in with_stock(Item.objects.of(studio).filter(kind=NOTION))}
    laid_in = set(Lot.objects.of(studio).filter(item__kind=NOTION).values_list("item", flat=True))
    prefer = {pk for pk, item in known.items() if item.pk in kept and item.pk in laid_in}
    things = []
    for need in needed:
        house = alike(need, [on_shelf(item, item.on_hand) for item in known.values()])
        match = nearest(need, house, prefer)
        item = known[match.id] if match else _wanted(studio, need)
        known[str(item.pk)] = item
        things.append(ThingOf(need, item))
    return things


def _wanted(studio: Studio, need: Needed) -> Item:
    item, _ = Item.objects.get_or_create(
        studio=studio, kind=NOTION, notion=need.notion, name=called(need)[:80],
        size_mm=None if need.size_mm is None else to_cent(need.size_mm),
        defaults={"unit": unit_of(need.notion), "told": {key: word for key, word in asdict(need.make).items() if word}},
    )  # fmt: skip
    item.on_hand, item.unweighed, item.srgb = ZERO, 0, need.srgb
    return item
