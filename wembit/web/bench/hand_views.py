"""One's own hand: what a pinch of it weighs, and how well it guesses."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from django.shortcuts import redirect
from django.views.decorators.http import require_GET, require_POST

from wembit.core.grams.estimate import Range
from wembit.core.learning.calibration import Calibration, learnt
from wembit.core.learning.handfuls import FEWEST, Handful, shown
from wembit.web.responses import again, page

from .actions.show_hand import show_hand
from .forms import HandForm
from .learnt_chart import MOST_DOTS, WIDE, along
from .models import KINDS, Guess
from .queries import guesses_of
from .scale import bridge_address, understood

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Member

NEWEST = 60  # weighings that are looked at


@dataclass(frozen=True)
class Shown:
    """What one kind of handful weighs, its range, and every weighing as a dot on a line from nothing to twice the mean."""

    kind: str
    handful: Handful
    range: Range
    dots: list[float]

    @property
    def wanting(self) -> int:
        """How many more make it count."""
        return max(0, FEWEST - self.handful.n)


@dataclass(frozen=True)
class Guesses:
    """The guesses as dots from half to double of what the scale said, and what they say of the hand."""

    dots: list[float]
    hand: Calibration
    last: Guess | None

    @property
    def less(self) -> int:
        """Per cent that is missing of what was guessed."""
        return -self.more

    @property
    def more(self) -> int:
        """Per cent that is there beyond what was guessed; below zero less."""
        return round(100 * (self.hand.bias - 1))


def hand_context(member: Member) -> dict[str, Any]:
    """What the page of a hand shows."""
    rows = guesses_of(member, NEWEST)
    kinds = []
    for kind in KINDS[1:]:
        grams = [row.grams for row in rows if row.kind == kind]
        if grams:
            handful = shown(grams)
            dots = [round(min(1.0, each / (2 * handful.mean_g)) * WIDE, 1) for each in grams]
            kinds.append(Shown(kind, handful, handful.times(1), dots))
    guessed = [row for row in rows if row.guessed_g]
    ratios = [row.grams / row.guessed_g for row in guessed if row.guessed_g]
    dots = [along(1 / ratio, WIDE) for ratio in ratios[-MOST_DOTS:]]
    guesses = Guesses(dots, learnt(ratios), guessed[-1] if guessed else None)
    words = [(kind, f"a {kind}") for kind in KINDS]
    return {"kind_words": words, "shown": kinds, "guesses": guesses, "wide": WIDE, "scale": bridge_address()}


@require_GET
def hand(request: Request) -> HttpResponse:
    """The page of one's own hand."""
    return page(request, "bench/hand.html", "bench/_own_hand.html", hand_context(request.member))


@require_POST
def show(request: Request) -> HttpResponse:
    """Something was laid on the scale: what it is, what it was guessed to weigh, what it weighs."""

    def do(given: dict[str, Any]) -> Guess:
        if given["reading"]:
            understood(given["reading"]).weighed()
        return show_hand(request.member, given["kind"], given["amount"], given["guessed"])

    _, faults = HandForm(request).tried(do)
    if faults:
        return again(request, "bench/hand.html", hand_context(request.member), faults)
    return redirect("bench:hand", studio=request.studio.slug)
