"""What is weighed on the walk, and when to look at the wool again."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.web.fields import DayField, TextField, WholeField, amount_field
from wembit.web.forms import StudioForm
from wembit.web.stash.actions.keep_reminder import MOST_DAYS

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.stash.models import Item


class WeighForm(StudioForm):
    """What the scale shows; left empty, the walk goes on without weighing."""

    def __init__(self, request: Request, item: Item) -> None:
        super().__init__(request)
        self.fields["amount"] = amount_field(request.member, item.unit, required=False)


class RoomForm(StudioForm):
    """Whether the wool lies in a heated room."""

    room = TextField(20)


class ReminderForm(StudioForm):
    words = TextField(80)
    drawer = TextField(40)
    due = DayField()
    every_days = WholeField(0, MOST_DAYS, f"Write whole days, 0 (once) to {MOST_DAYS}.", required=False)
