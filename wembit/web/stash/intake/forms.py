"""What the forms of the stocktake and of a parcel say."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.core.craft.materials import NOTIONS
from wembit.web.fields import ChosenField, TextField, amount_field, length_field, tick_field
from wembit.web.forms import RowForm, StudioForm
from wembit.web.stash import queries
from wembit.web.stash.actions.receive import Parcel
from wembit.web.stash.models import FIBRE, GRAMS, NOTION, unit_of
from wembit.web.stash.shelf.forms import FORM_CHOICES, ColourField

if TYPE_CHECKING:
    from wembit.web.request import Request


class BagForm(StudioForm):
    """One line of the stocktake: a fibre, or a notion."""

    kind = ChosenField([FIBRE, NOTION], "Choose wool or a thing.")
    name = TextField(80)
    form = ChosenField(FORM_CHOICES, "Choose what it is: tops, batt, locks…")
    notion = ChosenField(NOTIONS.items(), "Choose what it is: eyes, wire, thread…")
    srgb = ColourField()
    has_colour = tick_field()
    drawer = TextField(40)
    dye_lot = TextField(40)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.is_fibre = (self.data.get("kind") or FIBRE) == FIBRE
        self.unit = GRAMS if self.is_fibre else unit_of(self.data.get("notion", ""))
        self.fields["breed"] = ChosenField(queries.breed_choices(request.studio), "Choose a breed of the list.")
        self.fields["amount"] = amount_field(request.member, self.unit, required=False)
        self.fields["size"] = length_field(request.studio, required=False, most=1000)
        self.fields["form" if self.is_fibre else "notion"].required = True

    def item(self) -> dict[str, Any]:
        """The item that the line tells."""
        given = self.cleaned_data
        item = {"kind": FIBRE if self.is_fibre else NOTION, "name": given["name"], "unit": self.unit}
        if self.is_fibre:
            return item | queries.breed_fields(given["breed"] or queries.UNKNOWN) | {"form": given["form"]}
        return item | {"notion": given["notion"], "size_mm": given["size"]}


class ParcelForm(RowForm):
    """One row of a parcel: what came, how much of it, its dye lot and drawer."""

    dye_lot = TextField(40)
    drawer = TextField(40)

    def __init__(self, request: Request, row: int) -> None:
        super().__init__(request, row)
        self.item = queries.item_chosen(request.studio, self.data.get(self.add_prefix("item"), ""))
        self.fields["amount"] = amount_field(request.member, self.item.unit if self.item else GRAMS)

    def is_empty(self) -> bool:
        """Whether nothing was entered in this row."""
        return not any((self.data.get(self.add_prefix(name)) or "").strip() for name in ("item", "amount"))

    def clean(self) -> dict[str, Any]:
        if self.item is None:
            self.errors.pop("amount", None)
            self.add_error("amount", "Choose what came.")
        return self.cleaned_data

    def parcel(self) -> Parcel:
        """What came, as the action takes it. The row must be valid."""
        given = self.cleaned_data
        assert self.item is not None, "a row without an item is not valid"
        return Parcel(self.item.pk, given["amount"], given["dye_lot"], given["drawer"])
