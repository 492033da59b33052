"""Lay a tuft, a wisp, a pinch or a handful on the scale, with a guess or without."""

from __future__ import annotations

from decimal import Decimal

from django.db import transaction

from wembit.core.learning.handfuls import shown
from wembit.web import clock
from wembit.web.bench.models import KINDS, Guess
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member

MOST_G = Decimal(500)


@transaction.atomic
def show_hand(member: Member, kind: str, grams: Decimal, guessed_g: Decimal | None = None) -> Guess:
    """What it weighs, in g, and what it was guessed to weigh. What was shown often enough is understood as a weight from then
    on. Raises `Refusal`.
    """
    member.must_be(MAKER)
    if kind not in KINDS:
        raise Refusal("Say what it is.", "kind")
    for name, weight in (("amount", grams), ("guessed", guessed_g)):
        if weight is not None and not 0 < weight <= MOST_G:
            raise Refusal("Write a weight above nothing and up to 500 g.", name)
    made = Guess.objects.create(
        studio=member.studio, member=member, kind=kind, grams=float(grams), made_at=clock.now(),
        guessed_g=None if guessed_g is None else float(guessed_g),
    )  # fmt: skip
    _keep_hand(member)
    return made


def _keep_hand(member: Member) -> None:
    """What the member's wisp, pinch and handful weigh, as they were shown."""
    found = {}
    for kind in KINDS[1:]:
        rows = Guess.objects.of(member.studio).filter(member=member, kind=kind).order_by("made_at")
        handful = shown(list(rows.values_list("grams", flat=True)))
        if handful.known:
            found[kind] = round(handful.mean_g, 4)
    member.hand = found
    member.save(update_fields=["hand"])
