"""What the forms of a project say."""

from __future__ import annotations

import datetime as dt
import re
from typing import TYPE_CHECKING, Any

from django import forms

from wembit.core import units
from wembit.core.contract.requests import WEEK
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.fields import (
    ChosenField,
    DayField,
    IdField,
    NumberField,
    TextField,
    WholeField,
    amount_field,
    not_far,
    not_past,
    signed,
    tick_field,
)
from wembit.web.forms import RowForm, StudioForm
from wembit.web.limits import MAKINGS
from wembit.web.numbers import GRAMS
from wembit.web.stash.queries import lot_named

from .actions.keep_hours import MOST_HOURS
from .models import FOR_WHOM, PRIORITIES

if TYPE_CHECKING:
    from wembit.web.request import Request

    from .models import Project


WORDS: dict[str, dict[Any, str]] = {"for_whom": dict(FOR_WHOM), "priority": dict(PRIORITIES)}
LEAST_SIZE, MOST_SIZE = 0.25, 4.0  # times a figure's own
NOTHING = (None, "")  # a field that was left empty, or not sent


class PriorityField(ChosenField):
    """A project's priority as a number; None where it was not sent."""

    def __init__(self) -> None:
        super().__init__([(str(key), words) for key, words in PRIORITIES], "Choose what comes first.")

    def clean(self, value: Any) -> int | None:
        found = super().clean(value)
        return int(found) if found else None


def for_whom_field() -> ChosenField:
    """For whom it is made."""
    return ChosenField(FOR_WHOM, "Choose for whom it is.")


class SizesField(forms.CharField):
    """Sizes of the makings as times the figure's own, like 1.1 / 1 / 1 / 0.9, without the last that are 1; None where it was
    not sent.
    """

    def __init__(self) -> None:
        super().__init__(required=False, max_length=2000)

    def clean(self, value: Any) -> list[float] | None:
        if value is None:
            return None
        found = []
        for words in re.split(r"[/;\s]+", value.replace("\0", "").strip(" /;")):
            size = signed(words) if words else 1.0
            if size is None or not LEAST_SIZE <= size <= MOST_SIZE:
                least, most = units.shown(LEAST_SIZE), units.shown(MOST_SIZE)
                raise forms.ValidationError(f"Write sizes like 1.1 / 1 / 0.9, each from {least} to {most} times.")
            found.append(round(size, 3))
        while found and found[-1] == 1:
            found.pop()
        return found


class ProjectForm(StudioForm):
    name = TextField(80)
    sizes = SizesField()
    for_whom = for_whom_field()
    priority = PriorityField()
    count = WholeField(1, MAKINGS, f"Write how many: a whole number from 1 to {MAKINGS}.")
    due = DayField()
    start = DayField(required=False)


class ChangeForm(ProjectForm):
    """A project's fields, and what each was when the page was drawn: what it did not change it does not bring back."""

    FIELDS: tuple[str, ...] = ("name", "for_whom", "priority", "count", "sizes", "start", "due")

    was_name = TextField(80)
    was_sizes = SizesField()
    was_for_whom = for_whom_field()
    was_priority = PriorityField()
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
            wanted, was = self.cleaned_data[name], self.cleaned_data[f"was_{name}"]
            now = project.own_sizes if name == "sizes" else getattr(project, name)
            mine = wanted not in NOTHING and wanted != was
            if mine and was not in NOTHING and now not in (was, wanted):
                told = WORDS[name][now] if name in WORDS else now
                raise Refusal(f"It was changed meanwhile, to {told}. Press again to keep what stands here.", name)
            fields[name] = wanted if mine or was in NOTHING else now
        told = {name: getattr(project, name) if value in NOTHING else value for name, value in fields.items()}
        return {**told, "sizes": None} if "sizes" in fields and fields["sizes"] == project.own_sizes else told


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


class HoursForm(RowForm):
    """A maker's hours at the bench by weekday; `mon_` and her id is her Monday."""

    def __init__(self, request: Request, row: int | str) -> None:
        super().__init__(request, row)
        for day in WEEK:
            self.fields[day] = NumberField(0, MOST_HOURS, words=f"Write hours, 0 to {MOST_HOURS:.0f}.", required=False)


class AwayForm(StudioForm):
    """Days on which a maker is not at the bench."""

    maker = IdField("Choose who is away.")
    first = DayField()
    last = DayField(required=False)

    def clean_first(self) -> dt.date:
        """A day that somebody may see."""
        first: dt.date = self.cleaned_data["first"]
        not_far(first, clock.today(self.studio), "The first day")
        return first


class WhoForm(StudioForm):
    """Whether a maker makes a figure."""

    maker = IdField("Choose who makes it.")
    makes = tick_field()


class NewForm(ProjectForm):
    colourway = IdField("Choose what you make.")

    @property
    def told(self) -> dict[str, Any]:
        """What it says of the project; what it leaves open is not among it."""
        return {name: given for name in ChangeForm.FIELDS if (given := self.cleaned_data[name]) not in NOTHING} | {
            "name": self.cleaned_data["name"]
        }

    def clean_due(self) -> dt.date:
        """A day that is still to come."""
        due: dt.date = self.cleaned_data["due"]
        not_past(due, clock.today(self.studio), "The due date")
        return due
