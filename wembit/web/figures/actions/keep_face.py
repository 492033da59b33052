"""Keep how a face looks under a name, and put a kept face on again."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from django.http import Http404

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Part, Version
from wembit.web.limits import FACES
from wembit.web.studio.models import Member

ON_A_FACE = ("eye", "ear", "nose", "snout", "head")


def keep_face(member: Member, figure_id: UUID, name: str) -> Version:
    """The seats of what sits on the face now, under a name; a face of that name is replaced. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, "a face, kept") as edit:
        version = edit.version
        name = " ".join(name.split())[:40]
        if not name:
            raise Refusal("Give the face a name, like sleepy.", "face_name")
        seats = {part.key: part.seat for part in on_the_face(edit.parts)}
        if not seats:
            raise Refusal("Nothing sits on a face yet: add eyes or ears.", "face_name")
        others = [face for face in version.faces if face["name"] != name]
        if len(others) >= FACES:
            raise Refusal(f"At most {FACES} faces.", "face_name")
        version.faces = [*others, {"name": name, "seats": seats}]
        version.save(update_fields=["faces"])
    return version


def wear_face(member: Member, figure_id: UUID, name: str) -> Version:
    """Everything sits as it sat in the kept face; parts that came since stay where they are. Raises `Http404`."""
    with editing(member, figure_id, "a face, put on") as edit:
        face = next((face for face in edit.version.faces if face["name"] == name), None)
        if face is None:
            raise Http404
        keys = {part.key for part in edit.parts}
        for part in edit.parts:
            seat = face["seats"].get(part.key)
            if seat and seat.get("on") in keys:
                part.seat = seat
    return edit.version


def drop_face(member: Member, figure_id: UUID, name: str) -> Version:
    """The version without that face. Raises `Http404`."""
    with editing(member, figure_id, "a face, dropped") as edit:
        edit.version.faces = [face for face in edit.version.faces if face["name"] != name]
        edit.version.save(update_fields=["faces"])
    return edit.version


def on_the_face(parts: Sequence[Part]) -> list[Part]:
    """The parts whose seats make a face: eyes, ears, nose and muzzle, and the head itself."""
    return [part for part in parts if part.kind in ON_A_FACE and part.seat.get("on")]
