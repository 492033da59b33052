"""How a blend is carded into a bag, and how the studio cards."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django import forms

from wembit.core.craft.materials import FORMS
from wembit.web.fields import NumberField, TextField, WholeField, tick_field, weight_field
from wembit.web.forms import StudioForm
from wembit.web.stash.actions.keep_carding import MOST_FIBRES, MOST_LOSS, MOST_PARTS

if TYPE_CHECKING:
    from wembit.web.request import Request

FORM_KEYS = [(key, form.name) for key, form in FORMS.items()]


class CardForm(StudioForm):
    """So many grams of a recipe become a bag; `anyway` breaks a promise."""

    recipe = TextField(2000)
    name = TextField(80)
    into = TextField(20)
    drawer_name = TextField(40)
    anyway = tick_field()

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["card_grams"] = weight_field(request.member, least=0.01)


class HabitsForm(StudioForm):
    """The forms that go together, the limits of a recipe, the loss in %."""

    fibres = WholeField(2, MOST_FIBRES, f"Write whole numbers of fibres: a recipe has 2 to {MOST_FIBRES} fibres.")
    parts = WholeField(2, MOST_PARTS, f"Write whole numbers: a recipe has at most {MOST_PARTS} parts.")
    loss = NumberField(0, MOST_LOSS, words=f"Write the loss in per cent: 0 to {MOST_LOSS}.")
    blends = forms.MultipleChoiceField(
        choices=FORM_KEYS, required=False, error_messages={"invalid_choice": "Choose one form at least that is carded."}
    )
