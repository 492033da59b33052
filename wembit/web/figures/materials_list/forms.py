"""What is fitted on a figure, and where its design is from."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.core.craft.notions import FITTINGS, MILLIMETRES
from wembit.web.fields import ChosenField, MeasureField, TextField, length_field
from wembit.web.forms import StudioForm

if TYPE_CHECKING:
    from wembit.web.request import Request

MOST_PIECES = 1000


class FittingForm(StudioForm):
    """So many pieces, or such a length, of a notion for the figure or each piece of a part."""

    notion = ChosenField(FITTINGS, "Choose what is fitted.", required=True)
    part = TextField(40)
    words = TextField(60)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        fitting = FITTINGS.get(self.data.get("notion", ""))
        if fitting and fitting.unit == MILLIMETRES:
            self.fields["amount"] = length_field(request.studio, least=1)
        else:
            self.fields["amount"] = MeasureField(measure="count", unit="", least=1, most=MOST_PIECES)
        self.fields["size"] = length_field(request.studio, least=0.1, most=500, required=False)


class DropForm(StudioForm):
    fitting = TextField(40)


class OriginForm(StudioForm):
    """Where a design is from, whether it may be sold, and for whom it is."""

    origin_kind = TextField(20)
    sale = TextField(20)
    whom = TextField(20)
    credit = TextField(160)
    safety = TextField(300)
