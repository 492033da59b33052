"""What the page of a figure to begin says: how large, in which proportions, its name."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.core.body_plans.proportions import MOST, Proportion
from wembit.web.fields import NumberField, TextField, length_field, weight_field
from wembit.web.forms import StudioForm

if TYPE_CHECKING:
    from collections.abc import Sequence

    from django.http import QueryDict

    from wembit.web.request import Request


SMALLEST_MM = 5.0


class BeginForm(StudioForm):
    """`size`: how long or high, in mm; `grams`: instead of that, all the wool there is; each proportion in steps."""

    name = TextField(80)

    def __init__(self, request: Request, given: QueryDict, proportions: Sequence[Proportion]) -> None:
        super().__init__(request, data=given)
        self.proportions = proportions
        self.fields["size"] = length_field(request.studio, least=SMALLEST_MM, most=2000, required=False)
        self.fields["grams"] = weight_field(request.member, least=0.1, required=False)
        for each in proportions:
            self.fields[each.key] = NumberField(-MOST, MOST, required=False, words=f"From −{MOST} to {MOST} steps.")

    def steps(self) -> dict[str, int]:
        """The steps of each proportion that were read."""
        given = getattr(self, "cleaned_data", {})
        return {each.key: round(given[each.key]) for each in self.proportions if given.get(each.key)}
