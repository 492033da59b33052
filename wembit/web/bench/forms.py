"""What the forms of the bench say."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.web.fields import (
    ChosenField,
    IdField,
    NumberField,
    TextField,
    WholeField,
    amount_field,
    length_field,
    tick_field,
    weight_field,
)
from wembit.web.forms import StudioForm
from wembit.web.stash.queries import lot_named

from .actions.correct_minutes import MOST_MINUTES
from .actions.count_needles import MOST_NEEDLES
from .actions.finish_making import UNWEIGHED
from .actions.scrap_bag import NEW, WASTE
from .models import GONE, KINDS, REASONS, STATES
from .piece_photo import BESIDE

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.stash.models import Item


class MoveForm(StudioForm):
    """How much of which bag is taken for a layer or comes back from it; `anyway` breaks a promise. `bag`: that bag, None where
    this studio has none of that id.
    """

    lot = IdField("Choose the bag.")
    anyway = tick_field()
    shown = NumberField(0, 1e6, required=False)  # what the page says was taken, in g
    all = tick_field()  # for every piece of the part at once
    reading = TextField(200, required=False)  # of the scale, where the amount is from there

    def __init__(self, request: Request, item: Item) -> None:
        super().__init__(request)
        self.bag = lot_named(request.studio, self.data.get("lot", ""))
        self.fields["amount"] = amount_field(request.member, item.unit, item, self.bag)

    def clean(self) -> dict[str, Any]:
        return {**self.cleaned_data, "bag": self.bag}


class FinishForm(StudioForm):
    """What became of the pieces that were not weighed; the figure's weight, of its wool alone."""

    unweighed = ChosenField(UNWEIGHED, "Say what became of what was not weighed.")
    needles_back = tick_field()
    missing = TextField(120, required=False)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["figure_g"] = weight_field(request.member, required=False)


class WhereField(IdField):
    """Where felted wool goes: a bag by its id, "new" or "waste"."""

    def __init__(self) -> None:
        super().__init__("Choose where it goes.")

    def to_python(self, value: Any) -> Any:
        return value if value in (NEW, WASTE) else super().to_python(value)


class TryForm(StudioForm):
    """Why a piece is started again, and where it goes."""

    reason = ChosenField(REASONS, "Choose a reason, or none.")
    where = WhereField()


class AsideForm(StudioForm):
    """How much of which bag is kept for which later layer."""

    lot = IdField("Choose the bag.")
    later = IdField("Choose what it is for.")

    def __init__(self, request: Request, item: Item) -> None:
        super().__init__(request)
        lot = lot_named(request.studio, self.data.get("lot", ""))
        self.fields["aside"] = amount_field(request.member, item.unit, item, lot)


class TrimForm(StudioForm):
    """What was cut off, and where it goes."""

    where = WhereField()

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["trimmed"] = weight_field(request.member)


class NeedlesForm(StudioForm):
    out = WholeField(0, MOST_NEEDLES, f"Count between none and {MOST_NEEDLES}.")


class BreakForm(StudioForm):
    """Which needle broke, where it is one of the shelf, and whether its tip is found."""

    needle = IdField("Choose the needle.", required=False)
    found = tick_field()


class SizeForm(StudioForm):
    """How long and how thick a piece came out."""

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["long"] = length_field(request.studio, required=False, most=5_000)
        self.fields["thick"] = length_field(request.studio, required=False, most=5_000)


class DryingForm(StudioForm):
    """Which step dries from now on."""

    step = TextField(80)


class SeenForm(StudioForm):
    """What lies beside a piece in its picture, and how large a coin is."""

    beside = ChosenField(BESIDE, "Say what lies beside it.", required=True)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["coin"] = length_field(request.studio, required=False, least=5, most=60)


class MinutesForm(StudioForm):
    minutes = NumberField(0, MOST_MINUTES, words=f"Write minutes, at most {MOST_MINUTES:.0f}.", required=False)


class GoneForm(StudioForm):
    how = ChosenField(GONE, "Choose what became of it.")
    whom = TextField(80)


class StillForm(StudioForm):
    still = tick_field()


class HandForm(StudioForm):
    """What was laid on the scale, what it was guessed to weigh, what it weighs."""

    kind = ChosenField(KINDS, "Say what it is.", required=True)
    reading = TextField(200, required=False)  # of the scale, where the weight is from there

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["guessed"] = weight_field(request.member, required=False)
        self.fields["amount"] = weight_field(request.member)


class MarkForm(StudioForm):
    state = ChosenField(STATES, "Choose how far it is.", required=True)
