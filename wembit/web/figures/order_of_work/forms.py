"""What is said of a step, and which way the studio works."""

from __future__ import annotations

from wembit.web.fields import NumberField, TextField
from wembit.web.forms import StudioForm
from wembit.web.limits import STEP_MINUTES


class StepForm(StudioForm):
    """A step and the button that was pressed: earlier, later, off, on, add; else what is said of it."""

    step = TextField(120)
    do = TextField(10)
    new_title = TextField(80)


class SayForm(StudioForm):
    """Another title, other words and minutes of a step."""

    title = TextField(80)
    words = TextField(600)
    minutes = NumberField(0, STEP_MINUTES, words=f"Write a number of minutes between 0 and {STEP_MINUTES:g}.")


class ChooseForm(StudioForm):
    """An answer to a question of the order, for the studio, this figure, or one part (`part:<key>`); `step` is the one at
    which it was asked.
    """

    question = TextField(40)
    way = TextField(40)
    holds = TextField(80)
    step = TextField(120)
