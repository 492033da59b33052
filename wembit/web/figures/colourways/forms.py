"""What the forms of the colourways and of the faces say."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django import forms

from wembit.web.fields import IdField, TextField
from wembit.web.forms import StudioForm

SWAP = "Choose the fibre that goes and the one that comes."


class NamesField(forms.MultipleChoiceField):
    """Names that the page repeats; which of them hold, the action knows."""

    def __init__(self) -> None:
        super().__init__(required=False, error_messages={"invalid_choice": SWAP, "invalid_list": SWAP})

    def valid_value(self, value: Any) -> bool:
        return len(str(value)) <= 80


class WayForm(StudioForm):
    """A colourway and the button that was pressed: add, drop, first, touched; else a fibre for one of its slots."""

    do = TextField(10)
    way_name = TextField(40)
    like = TextField(40)
    way = TextField(40)


class _FibreForm(StudioForm):
    """A fibre for a place of a colourway; what is wrong is said above the colourways."""

    way = TextField(40)

    @property
    def faults(self) -> dict[str, str]:
        return {("way" if name == "item" else name): words for name, words in super().faults.items()}


class SlotForm(_FibreForm):
    """A fibre for a slot by its name."""

    slot = TextField(40)
    item = IdField("Choose a fibre of the shelf.")


class TouchForm(_FibreForm):
    """A fibre laid on a part where it is seen in that colour."""

    part = TextField(80)
    srgb = TextField(9)
    item = IdField("Touch a wool first, then the animal.")


class SwapForm(StudioForm):
    """One fibre for another: `old` is the colourway's name, a slash, and the fibre; `slot` only where it is taken back."""

    old = TextField(120, words=SWAP, required=True)
    new = IdField(SWAP)
    slot = NamesField()

    def clean_old(self) -> tuple[str, UUID]:
        """The colourway's name and the fibre that goes."""
        name, _, old = self.cleaned_data["old"].rpartition("/")
        try:
            return name, UUID(old)
        except ValueError:
            raise forms.ValidationError(SWAP) from None

    @property
    def faults(self) -> dict[str, str]:
        return {"old": SWAP} if self.errors else {}


class FaceForm(StudioForm):
    """A face and the button that was pressed: wear, drop; else it is kept under a name."""

    do = TextField(10)
    face = TextField(40)
    face_name = TextField(40)
