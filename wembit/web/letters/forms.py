"""What a member says of her letter."""

from __future__ import annotations

from typing import Any

from django import forms
from django.core.validators import EmailValidator, MaxLengthValidator

from wembit.web.fields import ChosenField
from wembit.web.forms import StudioForm

from .models import WEEKDAYS

WRONG = "Write an address like mira@saltgrass.example."


class AddressField(forms.EmailField):
    """Where mail goes; its only fault is `WRONG`."""

    def __init__(self) -> None:
        super().__init__(max_length=254, error_messages=dict.fromkeys(("required", "invalid", "max_length"), WRONG))
        self.validators = [EmailValidator(WRONG), MaxLengthValidator(254, WRONG)]

    def to_python(self, value: Any) -> str:
        return super().to_python(value.replace("\0", " ") if isinstance(value, str) else value) or ""


class LetterForm(StudioForm):
    address = AddressField()
    weekday = ChosenField([(str(n), name) for n, name in enumerate(WEEKDAYS)], "Choose a day.", required=True)
