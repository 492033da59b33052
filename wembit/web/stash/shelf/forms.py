"""What the forms of a bag say."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.core.craft.materials import FORMS
from wembit.web.fields import ChosenField, IdField, PatternField, TextField, amount_field, tick_field, weight_field
from wembit.web.forms import StudioForm
from wembit.web.stash import queries
from wembit.web.stash.models import FIBRE, Item, Lot

if TYPE_CHECKING:
    from wembit.web.request import Request

FORM_CHOICES = [(key, form.name) for key, form in FORMS.items()]


class ColourField(PatternField):
    """A colour as the browser's own field gives it."""

    def __init__(self) -> None:
        super().__init__("^#[0-9a-fA-F]{6}$", "A colour like #6f7d43.")


class AmountForm(StudioForm):
    """How much is taken, put back, weighed, split off or thrown away; `anyway` breaks a promise."""

    doing = TextField(20)
    why = TextField(120)
    anyway = tick_field()

    def __init__(self, request: Request, lot: Lot) -> None:
        super().__init__(request)
        self.fields["amount"] = amount_field(request.member, lot.item.unit, lot.item, lot)


class MergeForm(StudioForm):
    into = IdField("Choose the bag it goes into.")


class UndoForm(StudioForm):
    lot = IdField("Choose a bag.")


class DescribeForm(StudioForm):
    """What the bag is, and its item: of a fibre also breed, form and what a metre weighs."""

    srgb = ColourField()
    has_colour = tick_field()
    dye_lot = TextField(40)
    drawer = TextField(40)
    name = TextField(80)
    form = ChosenField(FORM_CHOICES, "Choose what it is: tops, batt, locks…")

    def __init__(self, request: Request, item: Item) -> None:
        super().__init__(request)
        self.item = item
        self.fields["breed"] = ChosenField(queries.breed_choices(request.studio), "Choose a breed of the list.")
        self.fields["minimum"] = amount_field(request.member, item.unit, required=False)
        if item.kind == FIBRE:
            self.fields["linear_g_m"] = weight_field(request.member, required=False)

    def bag(self) -> dict[str, Any]:
        """Colour, dye lot and drawer of the bag."""
        given = self.cleaned_data
        srgb = given["srgb"] if given["has_colour"] else ""
        return {"srgb": srgb, "dye_lot": given["dye_lot"], "drawer": given["drawer"]}

    def told(self) -> dict[str, Any]:
        """What is told of the item: its name where the page sent one, breed and form where they are chosen."""
        given = self.cleaned_data
        told = {"minimum": given["minimum"] or 0, **({"name": given["name"]} if self.has("name") else {})}
        if self.item.kind == FIBRE:
            told["linear_g_m"] = given["linear_g_m"]
            told |= queries.breed_fields(given["breed"]) if given["breed"] else {}
            told |= {"form": given["form"]} if given["form"] else {}
        return told
