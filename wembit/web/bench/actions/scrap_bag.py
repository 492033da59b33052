"""The bag that felted wool goes to when it is no piece any more."""

from __future__ import annotations

from uuid import UUID

from wembit.web.bench.models import PieceLayer
from wembit.web.errors import Refusal
from wembit.web.stash.actions.lay_in import item_like
from wembit.web.stash.models import Lot
from wembit.web.stash.queries import colours, lot_of
from wembit.web.stash.swatch import swatch
from wembit.web.studio.models import Member

WASTE, NEW = "waste", "new"


def scrap_bag(member: Member, where: str | UUID, layer: PieceLayer) -> Lot | None:
    """The bag `where` leads to: a bag of scrap by its id, a new one in the layer's colour, None for the waste.

    Raises `Refusal` for a bag of anything else, `Http404` for another studio's.
    """
    if where == WASTE:
        return None
    if where == NEW:
        item = item_like(
            member,
            {"kind": "fibre", "name": f"{layer.item.name} scrap", "unit": "g", "breed": "mixed", "form": "scrap"},
        )
        srgb = colours(member.studio, [layer.item_id]).get(layer.item_id, "")
        return Lot.objects.create(studio=member.studio, item=item, **swatch(srgb))
    if not isinstance(where, UUID):
        raise Refusal("Choose where it goes.", "where")
    lot = lot_of(member.studio, where)
    if lot.item.form != "scrap" or lot.item.unit != "g":
        raise Refusal("That is no bag of scrap. Choose one that is, or the waste.", "where")
    return lot
