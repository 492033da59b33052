"""What a studio asks for its work."""

from __future__ import annotations

from wembit.web.fields import NumberField, PriceField
from wembit.web.forms import StudioForm

MOST_PERCENT = 1000


class RatesForm(StudioForm):
    rate = PriceField()
    mark_up = NumberField(0, MOST_PERCENT, words=f"Write percent, 0 to {MOST_PERCENT}.", required=False)
