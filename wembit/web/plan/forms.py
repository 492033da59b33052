"""What the forms of a project say."""

from __future__ import annotations

import datetime as dt

from wembit.web import clock
from wembit.web.fields import DayField, IdField, TextField, WholeField, not_past
from wembit.web.forms import StudioForm

MOST = 500


class ProjectForm(StudioForm):
    name = TextField(80)
    count = WholeField(1, MOST, f"Write how many: a whole number from 1 to {MOST}.")
    due = DayField()
    start = DayField(required=False)


class NewForm(ProjectForm):
    colourway = IdField("Choose what you make.")

    def clean_due(self) -> dt.date:
        """A day that is still to come."""
        due: dt.date = self.cleaned_data["due"]
        not_past(due, clock.today(self.studio), "The due date")
        return due
