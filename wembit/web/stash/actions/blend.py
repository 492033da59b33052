"""Card wools together into a new bag."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from uuid import UUID

import numpy as np
from django.db import transaction

from wembit.core.colour.mixture import blend as mixture
from wembit.core.craft.materials import FORMS
from wembit.core.portions import rounded
from wembit.web.decimals import CENT, decimal, to_cent, to_step
from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press, Short
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.mixing import mixing_of
from wembit.web.stash.models import BLENDED_IN, BLENDED_OUT, FIBRE, GRAMS, MIXED, ZERO, Entry, Item, Lot
from wembit.web.stash.queries import lot_of, promises_broken_by
from wembit.web.stash.swatch import curve_of, swatch_of_curve
from wembit.web.studio.models import MAKER, Member

from .lay_in import item_like
from .name_drawer import drawer_called

BLEND = "blend"


@dataclass(frozen=True)
class Share:
    """A bag in a recipe, with its whole parts."""

    lot_id: UUID
    parts: int


@dataclass(frozen=True)
class Carded:
    """The entry and the new bag."""

    entry: Entry
    lot: Lot


@transaction.atomic
def blend(
    member: Member,
    shares: Sequence[Share],
    grams: Decimal,
    *,
    name: str,
    form: str,
    press: Press,
    loss: float = 0.0,
    drawer: str = "",
    anyway: bool = False,
) -> Carded:
    """Take wool from the bags by the recipe and make a bag of `grams`; what carding loses, a share, is taken on top.

    The new fibre is of breed mixed and carries its recipe; its bag carries the colour that is predicted. Raises `Short`,
    `Http404`, `Refusal` for a recipe that is none, for bags without a colour, and where promises would be broken, unless
    `anyway`.
    """
    member.must_be(MAKER)
    grams = to_cent(grams)  # what is taken is told to the hundredth, and nothing comes of nothing
    lots = [lot_of(member.studio, share.lot_id) for share in shares]
    _check(lots, shares, grams, form, loss)
    content = (*((share.lot_id, share.parts) for share in shares), grams, name, form)
    taken_in_all = grams / decimal(1 - loss)
    parts = [share.parts for share in shares]
    earlier = EntryDraft.start(member, press, BLEND, content, []).repeated
    if earlier:
        return Carded(earlier, _made(earlier))
    item = item_like(member, {"name": name, "kind": FIBRE, "unit": GRAMS, "breed": MIXED, "form": form})
    draft = EntryDraft.start(member, press, BLEND, content, [*(lot.item_id for lot in lots), item.pk])
    held = {lot.pk: lot for lot in Lot.objects.filter(pk__in=[lot.pk for lot in lots]).locked()}
    taken = _taken(taken_in_all, parts, [held[lot.pk].on_hand for lot in lots])
    for lot, amount in zip(lots, taken, strict=True):
        lot.on_hand = held[lot.pk].on_hand
        if amount > lot.on_hand:
            raise Short(lot, amount)
        broken = promises_broken_by(lot, amount)
        if broken and not anyway:
            raise Refusal(
                f"{lot.item.name} is promised: {broken[0].whose} would be short. Press again to take it anyway.",
                "anyway",
            )
    _keep_recipe(item, lots, parts)
    curves = np.array([curve_of(bytes(lot.curve or b"")) for lot in lots])
    seen = swatch_of_curve(mixture(curves, np.array(taken, dtype=float), mixing_of(member.studio).m))
    new = Lot.objects.create(
        studio=member.studio, item=item, drawer=drawer_called(member, drawer), predicted=seen["srgb"], **seen
    )
    tell_looks(member.studio, [item.pk])
    lines = [Line(lot.pk, BLENDED_OUT, -amount) for lot, amount in zip(lots, taken, strict=True)]
    note = f"{(sum(taken) - grams).quantize(CENT, ROUND_HALF_UP):f} g lost in carding" if loss else ""
    entry = draft.commit([*lines, Line(new.pk, BLENDED_IN, grams)], note=note)
    return Carded(entry, new)


def _taken(whole: Decimal, parts: Sequence[int], held: Sequence[Decimal]) -> list[Decimal]:
    """What each bag gives, to 0.01 g; a part of a hundredth that a bag does not hold, though it holds its share, is given by
    the others.
    """
    shares = [Fraction(part, sum(parts)) for part in parts]
    taken = [decimal(each) for each in rounded(float(whole), shares)]
    if all(there >= to_step(whole * part / sum(parts)) for part, there in zip(parts, held, strict=True)):
        over = sum((max(ZERO, amount - there) for amount, there in zip(taken, held, strict=True)), ZERO)
        taken = [min(amount, there) for amount, there in zip(taken, held, strict=True)]
        for place, there in enumerate(held):
            more = min(over, there - taken[place])
            taken[place], over = taken[place] + more, over - more
    return taken


def _check(lots: Sequence[Lot], shares: Sequence[Share], grams: Decimal, form: str, loss: float) -> None:
    if len(lots) < 2 or len({lot.pk for lot in lots}) < len(lots):
        raise Refusal("A blend takes two bags or more, each named once.")
    if any(share.parts < 1 for share in shares):
        raise Refusal("Every bag of a blend gives at least one part.")
    if grams <= 0:
        raise Refusal("Card more than nothing.", "grams")
    if not 0 <= loss < 1:
        raise Refusal("What carding loses is a share below the whole.", "loss")
    if form not in FORMS or not FORMS[form].blends:
        raise Refusal("Choose what it becomes: a batt, sliver, tops or core wool.", "form")
    for lot in lots:
        if lot.curve is None:
            raise Refusal(f"{lot.item.name} has no colour yet. Pick one at its bag first.")


def _keep_recipe(item: Item, lots: Sequence[Lot], parts: Sequence[int]) -> None:
    """Name the fibres, their parts and breeds with the fibre that came out."""
    rows = zip(lots, parts, strict=True)
    item.recipe = [
        {"item": str(lot.item_id), "name": lot.item.name, "breed": lot.item.source.name, "parts": part}
        for lot, part in rows
    ]
    item.save(update_fields=["recipe"])


def _made(entry: Entry) -> Lot:
    return Lot.objects.select_related("item").get(movements__entry=entry, movements__kind=BLENDED_IN)
