"""Lay one bag on the shelf that was in the house before: a line of the first stocktake."""

from __future__ import annotations

from decimal import Decimal
from itertools import chain, count
from typing import TYPE_CHECKING

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import OPENING, Entry, Item, Lot
from wembit.web.stash.swatch import swatch
from wembit.web.studio.models import MAKER, Member

from .name_drawer import drawer_called

if TYPE_CHECKING:
    from django.core.files.base import ContentFile

LAY_IN = "opening"


@transaction.atomic
def lay_in(
    member: Member,
    item: dict,
    amount: Decimal | None,
    *,
    press: Press,
    srgb: str = "",
    drawer: str = "",
    dye_lot: str = "",
    photo: ContentFile | None = None,
) -> Entry:
    """Make the bag, and its item where the studio has none like it. No amount: not weighed yet.

    item: the fields that tell items apart. Raises `Refusal`.
    """
    member.must_be(MAKER)
    if amount is not None and amount <= 0:
        raise Refusal("Lay more than nothing on the scale, or leave the weight empty.", "amount")
    content = (*item.values(), amount, srgb, drawer, dye_lot)
    if repeated := EntryDraft.start(member, press, LAY_IN, content, []).repeated:
        return repeated
    fibre = item_like(member, item if item["name"].strip() else {**item, "name": called(member, item, srgb)})
    draft = EntryDraft.start(member, press, LAY_IN, content, [fibre.pk])
    lot = Lot.objects.create(
        studio=member.studio,
        item=fibre,
        drawer=drawer_called(member, drawer),
        dye_lot=dye_lot,
        weighed=amount is not None,
        photo=photo or "",
        **swatch(srgb),
    )
    tell_looks(member.studio, [fibre.pk])
    return draft.commit([Line(lot.pk, OPENING, amount or Decimal(0))])


def called(member: Member, item: dict, srgb: str) -> str:
    """A name for a bag without one: its hue, or what it is; numbered where the studio has that already."""
    word = swatch(srgb)["hue"] or "no name"
    others = {key: value for key, value in item.items() if key != "name"}
    taken = {name.lower() for name in Item.objects.of(member.studio).filter(**others).values_list("name", flat=True)}
    names = chain([word], (f"{word} {number}" for number in count(2)))
    return next(name for name in names if name not in taken)


def item_like(member: Member, item: dict) -> Item:
    """The studio's item with these fields, made where there is none."""
    name = " ".join(item["name"].split())
    if not name:
        raise Refusal("Give it a name, as it stands on the label.", "name")
    apart = ("name", "linear_g_m", "breed") if item.get("own_breed_id") else ("name", "linear_g_m")
    others = {key: value for key, value in item.items() if key not in apart}
    fibre = Item.objects.of(member.studio).filter(name__iexact=name, **others).first()
    if fibre is None:
        fibre = Item.objects.create(studio=member.studio, **{**item, "name": name})
    return fibre
