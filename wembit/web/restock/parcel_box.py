"""A parcel as a box: its packs as the bags that they become, at the scale of the shelf."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.stash.models import ZERO, Lot
from wembit.web.stash.shelf.shelf_chart import DrawnLot, draw

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence
    from uuid import UUID

    from wembit.web.stash.shelf.wool_forms import Drawing

    from .models import OrderLine


@dataclass(frozen=True)
class Packs:
    """One line of a parcel: a pack of it drawn, and the number of each pack in the box, from 1."""

    line: OrderLine
    drawn: DrawnLot
    numbers: range


def packs(lines: Sequence[OrderLine], colours: Mapping[UUID, str]) -> list[Packs]:
    """The packs of each line, in its newest colour; grey where nobody has told one."""
    return [Packs(line, draw(_as_bag(line, colours)), range(1, line.count + 1)) for line in lines]


def forms_of(found: Sequence[Packs]) -> list[Drawing]:
    """The drawings that the packs are made of, each once."""
    return list({each.drawn.drawing.key: each.drawn.drawing for each in found}.values())


def _as_bag(line: OrderLine, colours: Mapping[UUID, str]) -> Lot:
    """The pack as a bag that is in no book yet."""
    bag = Lot(item=line.item, on_hand=line.pack, weighed=True, srgb=colours.get(line.item_id, ""))
    bag.promised = ZERO
    return bag
