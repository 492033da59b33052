"""What a letter says."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.template.loader import render_to_string

from wembit.web import clock
from wembit.web.today.fortnight import BEGIN, DUE, LOOK, ORDER, OUT, PARCEL, Thing, ahead

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

HEADS = (
    (ORDER, "To order"),
    (BEGIN, "To begin"),
    (DUE, "Due"),
    (PARCEL, "On its way"),
    (OUT, "Runs out"),
    (LOOK, "To look into"),
)
SHORT = {ORDER: "to order", BEGIN: "to begin", DUE: "due", PARCEL: "on its way", OUT: "runs out", LOOK: "to look into"}


@dataclass(frozen=True)
class Written:
    """A letter: its subject and its text."""

    subject: str
    text: str


def written(studio: Studio, house: str) -> Written:
    """The next fortnight of a studio in words. A bounded number of queries."""
    today = clock.today(studio)
    found = ahead(studio, today)
    things = [*found.things, *found.unsold]
    groups = [(head, those) for kind, head in HEADS if (those := _of(things, kind))]
    counted = [f"{len(those)} {SHORT[kind]}" for kind, _ in HEADS if (those := _of(things, kind))]
    told = {
        "studio": studio,
        "today": today,
        "groups": groups,
        "then": found.then,
        "more": found.things.more,
        "house": house,
    }
    subject = f"{studio.name}: {', '.join(counted) or 'nothing asks for anything'}"
    return Written(subject, render_to_string("letters/letter.txt", told).strip() + "\n")


def _of(things: Sequence[Thing], kind: str) -> list[Thing]:
    return [thing for thing in things if thing.kind == kind]
