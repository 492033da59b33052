"""What the forms of the bench say."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.web.fields import ChosenField, IdField, amount_field, tick_field
from wembit.web.forms import StudioForm

from .models import STATES

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.stash.models import Item


class MoveForm(StudioForm):
    """How much of which bag is taken for a layer or comes back from it; `anyway` breaks a promise."""

    lot = IdField("Choose the bag.")
    anyway = tick_field()

    def __init__(self, request: Request, item: Item) -> None:
        super().__init__(request)
        self.fields["amount"] = amount_field(request.member, item.unit)


class MarkForm(StudioForm):
    state = ChosenField(STATES, "Choose how far it is.", required=True)
