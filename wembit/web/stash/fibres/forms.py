"""What the scale shows of a fibre, and a breed of the studio's own."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING, Any

from django import forms

from wembit.core.craft.materials import CRIMPS, FELTING, TOUCHES, USES
from wembit.web.fields import ChosenField, IdField, NumberField, TextField, weight_field
from wembit.web.forms import StudioForm
from wembit.web.stash import queries

if TYPE_CHECKING:
    from wembit.web.request import Request

LAID_CM = Decimal(20)  # of a strand on the scale
PINCHES = Decimal(10)
MICRONS = "Write the diameter of its fibres in µm: 5 to 200, as on the label."
LOCKS = "Write the length of its locks in mm, or leave it empty."


class LearnForm(StudioForm):
    """20 cm, a palm and ten pinches on the scale; its breed where it is one of the studio's own; a note."""

    note = TextField(2000)
    own_breed = IdField("Choose a breed of the list.", required=False)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        for name in ("cm20", "palm", "pinches"):
            self.fields[name] = weight_field(request.member, required=False, least=0.001, most=10_000)

    def clean_own_breed(self) -> Any:
        """The breed itself; none for an empty field."""
        chosen = self.cleaned_data["own_breed"]
        breed = next((other for other in queries.own_breeds(self.studio) if other.pk == chosen), None)
        if chosen and breed is None:
            raise forms.ValidationError("Choose a breed of the list.")
        return breed

    def told(self) -> dict[str, Any]:
        """What is told of the item, by the fields that the page sent: g a metre, g a palm, g a pinch."""
        told = {name: value for name, value in self.sent.items() if name in ("note", "own_breed")}
        for name, field, divisor in (
            ("cm20", "linear_g_m", LAID_CM / 100),
            ("palm", "palm_g", 1),
            ("pinches", "pinch_g", PINCHES),
        ):
            if self.has(name):
                weight = self.cleaned_data[name]
                told[field] = weight and weight / divisor
        return told


class BreedForm(StudioForm):
    breed_name = TextField(40, words="Give the breed a name.", required=True)
    micron_um = NumberField(5, 200, words=MICRONS)
    staple_mm = NumberField(1, 1000, words=LOCKS, required=False)
    crimp = ChosenField(CRIMPS, "Choose how its fibres curl.")
    felting = ChosenField(FELTING, "Choose how it felts.")
    touch = ChosenField(TOUCHES, "Choose how it feels.")
    uses = forms.MultipleChoiceField(
        choices=[(use, use) for use in USES],
        required=False,
        error_messages={"invalid_choice": "Choose uses of the list.", "invalid_list": "Choose uses of the list."},
    )
