"""What the forms of a project say."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING, Any

from wembit.core.contract.requests import WEEK
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.fields import (
    DayField,
    IdField,
    NumberField,
    TextField,
    WholeField,
    amount_field,
    not_far,
    not_past,
    tick_field,
)
from wembit.web.forms import StudioForm
from wembit.web.limits import MAKINGS
from wembit.web.numbers import GRAMS
from wembit.web.stash.queries import lot_named

from .actions.keep_hours import MOST_HOURS

if TYPE_CHECKING:
    from wembit.web.request import Request

    from .models import Project


class ProjectForm(StudioForm):
    name = TextField(80)
    count = WholeField(1, MAKINGS, f"Write how many: a whole number from 1 to {MAKINGS}.")
    due = DayField()
    start = DayField(required=False)


class ChangeForm(ProjectForm):
    """A project's fields, and what each was when the page was drawn: what it did not change it does not bring back."""

    FIELDS: tuple[str, ...] = ("name", "count", "start", "due")

    was_name = TextField(80)
    was_count = WholeField(1, MAKINGS, "Load the page anew.", required=False)
    was_start = DayField(required=False)
    was_due = DayField(required=False)

    def clean_due(self) -> dt.date | None:
        """A day that somebody may see."""
        due: dt.date | None = self.cleaned_data["due"]
        if due:
            not_far(due, clock.today(self.studio), "The due date")
        return due

    def changed(self, project: Project) -> dict[str, Any]:
        """The fields as they are to be. Raises `Refusal` beside one that was changed here and, since, elsewhere."""
        fields = {}
        for name in self.FIELDS:
            now, wanted, was = getattr(project, name), self.cleaned_data[name], self.cleaned_data[f"was_{name}"]
            mine = wanted is not None and wanted not in ("", was)
            if mine and was and now not in (was, wanted):
                raise Refusal(f"It was changed meanwhile, to {now}. Press again to keep what stands here.", name)
            fields[name] = wanted if mine or not was else now
        return {name: value or getattr(project, name) for name, value in fields.items()}


class MoveForm(ChangeForm):
    """Another day or another number, with what each was when the page was drawn."""

    FIELDS = ("count", "due")

    name = TextField(80, required=False)
    count = WholeField(1, MAKINGS, f"Write how many: a whole number from 1 to {MAKINGS}.", required=False)
    due = DayField(required=False)
    was_name = TextField(80, required=False)


class PinForm(StudioForm):
    """So much of a bag, for where the wool is seen or for where it is hidden."""

    lot = IdField("Choose a bag.")
    seen = tick_field()

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        lot = lot_named(request.studio, self.data.get("lot", ""))
        self.fields["amount"] = amount_field(request.member, lot.item.unit if lot else GRAMS)


class HoursForm(StudioForm):
    """Hours at the bench by weekday, all hands together."""

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        for day in WEEK:
            self.fields[day] = NumberField(0, MOST_HOURS, words=f"Write hours, 0 to {MOST_HOURS:.0f}.", required=False)


class NewForm(ProjectForm):
    colourway = IdField("Choose what you make.")

    def clean_due(self) -> dt.date:
        """A day that is still to come."""
        due: dt.date = self.cleaned_data["due"]
        not_past(due, clock.today(self.studio), "The due date")
        return due
