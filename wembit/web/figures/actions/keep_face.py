"""Keep how a face looks under a name, and put a kept face on again."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from django.db import transaction
from django.http import Http404

from wembit.web.errors import Refusal
from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Part, Version
from wembit.web.figures.queries import figure_of, newest_version, parts_of
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed

MOST = 24
ON_A_FACE = ("eye", "ear", "nose", "snout", "head")


@transaction.atomic
def keep_face(member: Member, figure_id: UUID, name: str) -> Version:
    """The seats of what sits on the face now, under a name; a face of that name is replaced. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    name = " ".join(name.split())[:40]
    if not name:
        raise Refusal("Give the face a name, like sleepy.", "face_name")
    seats = {part.key: part.seat for part in on_the_face(parts_of(version))}
    if not seats:
        raise Refusal("Nothing sits on a face yet: add eyes or ears.", "face_name")
    others = [face for face in version.faces if face["name"] != name]
    if len(others) >= MOST:
        raise Refusal(f"At most {MOST} faces.", "face_name")
    version.faces = [*others, {"name": name, "seats": seats}]
    version.save(update_fields=["faces"])
    return version


@transaction.atomic
def wear_face(member: Member, figure_id: UUID, name: str) -> Version:
    """Everything sits as it sat in the kept face; parts that came since stay where they are. Raises `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    face = next((each for each in version.faces if each["name"] == name), None)
    if face is None:
        raise Http404
    keys = {part.key for part in parts_of(version)}
    for part in parts_of(version):
        seat = face["seats"].get(part.key)
        if seat and seat.get("on") in keys:
            part.seat = seat
            part.save(update_fields=["seat"])
    follow(version)
    return version


@transaction.atomic
def drop_face(member: Member, figure_id: UUID, name: str) -> Version:
    """The version without that face. Raises `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    version.faces = [face for face in version.faces if face["name"] != name]
    version.save(update_fields=["faces"])
    return version


def on_the_face(parts: Sequence[Part]) -> list[Part]:
    """The parts whose seats make a face: eyes, ears, nose and muzzle, and the head itself."""
    return [part for part in parts if part.kind in ON_A_FACE and part.seat.get("on")]
