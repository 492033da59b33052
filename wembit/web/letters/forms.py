"""What a member says of her letter."""

from __future__ import annotations

from django import forms

from wembit.web.fields import ChosenField
from wembit.web.forms import StudioForm

from .models import WEEKDAYS

WRONG = "Write an address like mira@saltgrass.example."


class LetterForm(StudioForm):
    address = forms.EmailField(
        max_length=254, error_messages={"required": WRONG, "invalid": WRONG, "max_length": WRONG}
    )
    weekday = ChosenField([(str(n), name) for n, name in enumerate(WEEKDAYS)], "Choose a day.", required=True)
