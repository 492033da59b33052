"""Which answer to a short wool the maker has pressed."""

from __future__ import annotations

from typing import Any

from django import forms

from wembit.web.fields import IdField, NumberField, TextField, WholeField, tick_field
from wembit.web.forms import StudioForm

STALE = "Choose an answer of the list. Load the page anew, it may have changed."


class AcceptForm(StudioForm):
    """Another wool, laid thinly `under` or not, or the `recipe` of a blend with its grams; `count` figures of it."""

    count = WholeField(1, 100_000, STALE)
    grams = NumberField(0, 1e6, words=STALE, required=False)
    new = IdField(STALE, required=False)
    recipe = TextField(2000)
    name = TextField(80)
    seen = tick_field()
    under = tick_field()
    everywhere = tick_field()
    anyway = tick_field()
    short = NumberField(0, 1e7, required=False)  # what was short when the page was drawn, in g

    def clean(self) -> dict[str, Any]:
        if not self.cleaned_data.get("recipe") and not self.cleaned_data.get("new"):
            raise forms.ValidationError(STALE)
        return self.cleaned_data
