"""The size that a maker keeps."""

from __future__ import annotations

from wembit.core.grams.largest_scale import LARGEST, SMALLEST
from wembit.web.fields import NumberField
from wembit.web.forms import StudioForm


class SizeForm(StudioForm):
    scale = NumberField(SMALLEST, LARGEST, words=f"Choose a size between {SMALLEST:g} and {LARGEST:g} times.")
