"""Change the studio's settings, and what a member keeps for herself."""

from __future__ import annotations

from decimal import Decimal

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.studio.models import OWNER, Member, Studio

SETTINGS = ("name", "timezone", "currency", "decimal_mark", "weight_unit", "length_unit")


@transaction.atomic
def set_up(member: Member, *, anyway: bool = False, **settings: str) -> Studio:
    """Keep name, time zone, currency, decimal mark and units. Raises `Refusal` for another currency, unless `anyway`: prices
    stay as numbers.
    """
    member.must_be(OWNER)
    studio, currency = member.studio, settings["currency"]
    if currency != studio.currency and not anyway:
        words = f"what costs 4.90 {studio.currency} would be called 4.90 {currency}"
        raise Refusal(f"Prices stay as numbers: {words}. Press again for that.", "anyway")
    for name in SETTINGS:
        setattr(studio, name, settings[name])
    studio.save(update_fields=list(SETTINGS))
    return studio


@transaction.atomic
def show_pinch(member: Member, ten_g: Decimal | None, *, keys_on: bool) -> Member:
    """Keep what a pinch of this member weighs, from ten of them together, and whether keys act."""
    member.pinch_g = ten_g / 10 if ten_g else None
    member.keys_on = keys_on
    member.save(update_fields=["pinch_g", "keys_on"])
    return member
