"""The faces that a figure has been given."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from wembit.web.figures.drawing.layout import Picture, pictures
from wembit.web.figures.models import Part, Version
from wembit.web.figures.to_core.estimating import Palette


@dataclass(frozen=True)
class Face:
    """A kept face and how it looks from the front."""

    name: str
    front: Picture


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
