"""What sits on a face, and the faces that a figure has been given."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .estimating import Palette
from .laying_out import Picture, pictures
from .models import Part, Version

ON_A_FACE = ("eye", "ear", "nose", "snout")
HEADS = ("head", "body", "snout")


@dataclass(frozen=True)
class Face:
    name: str
    front: Picture


def on_the_face(parts: Sequence[Part]) -> list[Part]:
    """The parts whose seats make a face: eyes, ears, nose and muzzle, and the head itself."""
    return [part for part in parts if part.kind in (*ON_A_FACE, "head") and part.seat.get("on")]


def faces_of(version: Version, parts: Sequence[Part], palette: Palette) -> list[Face]:
    """Each kept face as a picture from the front."""
    found = []
    for face in version.faces:
        seats = {part.key: part.seat for part in parts}
        for part in parts:
            part.seat = face["seats"].get(part.key, part.seat)
        try:
            found.append(Face(face["name"], pictures(version, parts, palette)["front"]))
        finally:
            for part in parts:
                part.seat = seats[part.key]
    return found
