"""Change a part: its sizes, firmness, count, seat."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from uuid import UUID

from django.db import transaction

from wembit.core.contract.requests import SHAPE
from wembit.core.errors import BadInput
from wembit.core.pose.placing import angles_from_standing, standing_angles
from wembit.core.pose.reseating import nearest_on, spot_of
from wembit.core.shape.solids import Nothing
from wembit.web.errors import Refusal, refusal_of
from wembit.web.figures.editing.door import Editing, editing
from wembit.web.figures.editing.following import let_go_of_lost_sizes
from wembit.web.figures.models import Part
from wembit.web.figures.to_core.seating import carried, placed, placed_part
from wembit.web.studio.models import Member

from .keep_habit import keep_habit

FIELDS = ("name", "count", "shape", "firmness", "visible", "allowance", "loose_end_mm", "seat")


@transaction.atomic
def change_part(
    member: Member,
    figure_id: UUID,
    key: str,
    changes: dict,
    *,
    habit_mm: float | None = None,
    drawn_at: dt.datetime | None = None,
) -> Part:
    """Keep the changed fields of a part. `standing` in `changes` gives pitch and yaw in the standing pose; `habit_mm` is
    the loose end that the studio keeps as its habit; what another has changed since the page was drawn is asked about.

    Raises `Refusal` beside the field that the core refuses, `Http404`.
    """
    with editing(member, figure_id, f"{key}", drawn_at=drawn_at) as edit:
        part = edit.part(key)
        try:
            _change(edit, part, changes)
        except BadInput as fault:
            raise refusal_of(fault) from None
    if habit_mm is not None:
        keep_habit(member, figure_id, habit_mm)
    return part


def _called(edit: Editing, part: Part, name: str) -> None:
    """Refuse a new name that another part has: nobody could tell them apart."""
    others = {other.name.lower() for other in edit.parts if other is not part}
    if name != part.name and name.lower() in others:
        raise Refusal(f"Another part is called {name}. Say which this one is, “{name} 2” or “left {name}”.", "name")


def _change(edit: Editing, part: Part, changes: dict) -> None:
    _called(edit, part, changes.get("name", part.name))
    kind, before = part.shape["kind"], (part.seat, _standing(edit.parts, part.key))
    changes = {**changes, **_where_it_was(edit.parts, part, changes.get("seat") or {}, before[1])}
    for name in FIELDS:
        if name in changes:
            setattr(part, name, changes[name])
    part.shape = {**SHAPE(part.shape, "shape")}
    if "standing" in changes and part.seat.get("on"):
        part.seat = {**part.seat, **_angles(part, edit.parts, before, changes["standing"])}
    if part.shape["kind"] != kind:
        let_go_of_lost_sizes(edit.parts)


def _where_it_was(parts: list[Part], part: Part, seat: dict, stood: tuple[float, float] | None) -> dict:
    """The seat at which a part stays where it is, and as it stands, when nothing but what it sits on is changed."""
    old = part.seat
    told = any(seat.get(name) != old.get(name) for name in ("t", "angle"))
    if not old.get("on") or seat.get("on", old["on"]) == old["on"] or told or stood is None:
        return {}
    if seat["on"] in carried(parts, part.key):
        return {}  # which is refused
    try:
        pieces = placed(parts)
    except BadInput:
        return {}
    piece = next(each for each in pieces if each.name == part.key)
    host = next((each for each in pieces if each.name == seat["on"]), None)
    if host is None or isinstance(host.part.shape, Nothing):
        return {}
    t, angle = nearest_on(host, spot_of(piece))
    return {"seat": {**seat, "t": round(t, 3), "angle": round(angle, 1)}, "standing": stood}


def _standing(parts: list[Part], key: str) -> tuple[float, float] | None:
    """Pitch and yaw of a part in the standing pose; None where it cannot be placed."""
    try:
        return standing_angles(next(piece for piece in placed(parts) if piece.name == key))
    except BadInput:
        return None


def _angles(part: Part, parts: list[Part], before: tuple, standing: tuple[float, float]) -> dict[str, float]:
    """The pitch and yaw of a seat so that the part stands as asked. What the page only shows rounded is kept as it was."""
    old, stood = before
    if stood and tuple(map(round, stood)) == tuple(standing):
        if all(part.seat.get(name) == old.get(name) for name in ("on", "t")):
            return {}
        standing = stood
    here = placed_part(part)
    here = replace(here, seat=replace(here.seat, pitch=standing[0], yaw=standing[1]))
    return angles_from_standing(here, [placed_part(other) for other in parts if other is not part])
