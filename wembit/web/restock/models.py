"""Suppliers, what they offer, and orders."""

from __future__ import annotations

import datetime as dt
from decimal import Decimal
from typing import Any

from django.db import models
from django.db.models import Q
from django.db.models.functions import Lower

from wembit.core.stock.packs import Priced, price_each
from wembit.web.stash.models import Entry, Item
from wembit.web.studio.models import Member
from wembit.web.tenancy import Owned

DRAFT, SENT, ARRIVED, DROPPED = "draft", "sent", "arrived", "dropped"


class Supplier(Owned):
    """Who sells wool: how long a parcel takes, what postage costs."""

    name = models.CharField(max_length=80)
    lead_days = models.PositiveSmallIntegerField(default=7)
    postage = models.DecimalField(max_digits=8, decimal_places=2, default=0)
    minimum = models.DecimalField("least that an order comes to", max_digits=8, decimal_places=2, default=0)
    takes_files = models.BooleanField(default=False)  # orders go there by themselves

    rows: list[Any]  # its offers by item, set by what draws them

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint("studio", Lower("name"), name="one_supplier_a_name")]

    def __str__(self) -> str:
        return self.name


class Offer(Owned):
    """A supplier's item in a pack size at a price."""

    supplier = models.ForeignKey(Supplier, on_delete=models.CASCADE, related_name="offers")
    item = models.ForeignKey(Item, on_delete=models.CASCADE, related_name="offers")
    pack = models.DecimalField(max_digits=10, decimal_places=2)
    price = models.DecimalField(max_digits=8, decimal_places=2)
    lower = models.JSONField(default=list, blank=True)  # from so many packs on each costs so much: [[4, "2.40"], …]

    class Meta:
        ordering = ["pack"]
        constraints = [
            models.UniqueConstraint(fields=["supplier", "item", "pack"], name="one_offer_a_pack"),
            models.CheckConstraint(condition=Q(pack__gt=0, price__gte=0), name="a_pack_holds_something"),
        ]

    @property
    def breaks(self) -> list[tuple[int, Decimal]]:
        """From how many packs on each costs how much."""
        return [(count, Decimal(price)) for count, price in self.lower]

    @property
    def priced(self) -> Priced:
        """As the core reckons with it."""
        return Priced(float(self.pack), float(self.price), tuple((count, float(each)) for count, each in self.breaks))

    def price_of(self, count: int) -> Decimal:
        """What each of so many packs costs."""
        return price_each(self.price, self.breaks, count)


class Order(Owned):
    """A list for one supplier, sent, arrived."""

    supplier = models.ForeignKey(Supplier, on_delete=models.PROTECT, related_name="orders")
    state = models.CharField(max_length=8, default=DRAFT, choices=[(s, s) for s in (DRAFT, SENT, ARRIVED, DROPPED)])
    sent_on = models.DateField(null=True)
    expected_on = models.DateField(null=True)
    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, null=True, related_name="+")
    one_dye_lot = models.BooleanField(default=False)  # the wish that all of a colour comes of one
    note = models.JSONField(default=dict, editable=False)  # what the supplier said last, as it was understood
    rest_of = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="rests")  # that came short
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["supplier"], condition=Q(state=DRAFT), name="one_list_a_supplier"),
        ]

    @property
    def follows_on(self) -> dt.date | None:
        """The day that the supplier named for what did not come."""
        day = self.note.get("follows_on")
        return dt.date.fromisoformat(day) if day else None

    @property
    def number(self) -> str:
        """As it stands on paper and in its file."""
        return f"W-{self.pk.hex[:10].upper()}"


class OrderLine(Owned):
    """So many packs of an offer on a list."""

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="lines")
    item = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="+")
    pack = models.DecimalField(max_digits=10, decimal_places=2)
    price = models.DecimalField(max_digits=8, decimal_places=2)
    count = models.PositiveSmallIntegerField(default=1)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["order", "item", "pack"], name="one_line_a_pack")]

    @property
    def amount(self) -> Any:
        return self.pack * self.count

    @property
    def unit_cost(self) -> Decimal:
        """Of a g, piece or mm."""
        return (self.price / self.pack).quantize(Decimal("0.00001"))

    @property
    def cost(self) -> Any:
        return self.price * self.count


class Feed(Owned):
    """The secret address at which a member's calendar looks up the studio's days. Only its hash is kept."""

    member = models.OneToOneField(Member, on_delete=models.CASCADE, related_name="+")
    token_hash = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField()
