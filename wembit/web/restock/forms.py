"""What the forms of an order, of its delivery and of a supplier say."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any
from uuid import UUID

from wembit.web.fields import (
    DayField,
    IdField,
    NumberField,
    PriceField,
    TextField,
    WholeField,
    amount_field,
    tick_field,
)
from wembit.web.forms import RowForm, StudioForm
from wembit.web.limits import PACKS
from wembit.web.numbers import GRAMS
from wembit.web.stash import queries as stash
from wembit.web.stash.actions.receive import Parcel

if TYPE_CHECKING:
    from decimal import Decimal

    from wembit.web.request import Request
    from wembit.web.stash.models import Item

LEAD_DAYS = "Write whole days, 0 to 365."
PACK = "pack_"
HOW_MANY = f"Write a whole number of packs, at most {PACKS}."


class PacksForm(StudioForm):
    """So many packs of each offer: `pack_<offer>`; an empty field is none. All faults stand under `count`."""

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["shown"] = NumberField(0, 1e9, required=False)  # what the page says is on the list
        self.offers = {name: offer for name in self.data if (offer := _offer(name))}
        for name in self.offers:
            self.fields[name] = WholeField(0, PACKS, f"Write a whole number of packs, at most {PACKS}.", required=False)

    def text_of(self, offer: UUID) -> str:
        """What was entered for an offer."""
        return self.data.get(f"{PACK}{offer}", "")

    @property
    def faults(self) -> dict[str, str]:
        return {"count": HOW_MANY} if self.errors else {}

    def packs(self) -> dict[UUID, int]:
        """How many packs of which offer."""
        return {offer: self.cleaned_data[name] or 0 for name, offer in self.offers.items()}


def _offer(name: str) -> UUID | None:
    """The offer whose packs a field of this name counts."""
    try:
        return UUID(name.removeprefix(PACK)) if name.startswith(PACK) else None
    except ValueError:
        return None


class SendForm(StudioForm):
    expected = DayField(required=False)


class RestForm(StudioForm):
    """Whether what did not come is still on its way."""

    follows = tick_field()


class WishForm(StudioForm):
    """Whether each colour is wished of one dye lot."""

    wished = tick_field()


class ArrivalForm(RowForm):
    """What came of one line of an order; an empty amount is nothing."""

    dye_lot = TextField(40)
    drawer = TextField(40)

    def __init__(self, request: Request, row: int, item: Item) -> None:
        super().__init__(request, row)
        self.item = item
        self.fields["amount"] = amount_field(request.member, item.unit, required=False)

    def parcel(self, unit_cost: Decimal) -> Parcel | None:
        """What came, as the action takes it, at what one of it cost; None for nothing. The row must be valid."""
        given = self.cleaned_data
        if not given["amount"]:
            return None
        return Parcel(self.item.pk, given["amount"], given["dye_lot"], given["drawer"], unit_cost)


class SupplierForm(StudioForm):
    name = TextField(80)
    lead_days = WholeField(0, 365, LEAD_DAYS)
    postage = PriceField(required=False)
    minimum = PriceField(required=False)
    takes_files = tick_field()


class TogetherForm(StudioForm):
    """Which supplier's, and for how much at the most."""

    supplier = IdField("Load the page anew.")
    most = PriceField(required=False)


BREAKS = (1, 2)  # rows in which a page takes price breaks
FROM = "Write a whole number of packs, 2 or more."


class OfferForm(StudioForm):
    """A pack of an item and its price, and what each costs from so many on; the pack is read in the item's unit."""

    price = PriceField()
    picked = IdField("Load the page anew.", required=False)  # the pack that stands in the form

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        for row in BREAKS:
            self.fields[f"from_{row}"] = WholeField(2, PACKS, FROM, required=False)
            self.fields[f"each_{row}"] = PriceField(request.studio.currency, required=False)
        self.item = stash.item_chosen(request.studio, self.data.get("item", ""))
        self.fields["pack"] = amount_field(request.member, self.item.unit if self.item else GRAMS)

    def clean(self) -> dict[str, Any]:
        if self.item is None:
            self.errors.pop("pack", None)
            self.add_error("pack", "Choose what the pack holds.")
        if not self.errors:
            self._clean_breaks()
        return self.cleaned_data

    def _clean_breaks(self) -> None:
        """Each row is whole, and dearer packs come before cheaper ones."""
        given, before = self.cleaned_data, self.cleaned_data["price"]
        least = 1
        for row in BREAKS:
            count, each = given[f"from_{row}"], self.data.get(f"each_{row}", "").strip()
            if count is None and each:
                self.add_error(f"from_{row}", FROM)
            elif count is not None and not each:
                self.add_error(f"each_{row}", "Write what each costs then.")
            elif count is not None and count <= least:
                self.add_error(f"from_{row}", f"Write more than {least}.")
            elif count is not None and given[f"each_{row}"] >= before:
                self.add_error(f"each_{row}", "It costs less from so many on. Check both prices.")
            if self.errors:
                return
            if count is not None:
                least, before = count, given[f"each_{row}"]

    @property
    def breaks(self) -> dict[int, Decimal] | None:
        """What each costs from so many on; None where nothing is said of a pack that does not stand in the form. The form must
        be valid.
        """
        given = self.cleaned_data
        said = any(given[f"from_{row}"] is not None for row in BREAKS)
        if not said and not given["picked"]:
            return None
        return {given[f"from_{row}"]: given[f"each_{row}"] for row in BREAKS if given[f"from_{row}"] is not None}
