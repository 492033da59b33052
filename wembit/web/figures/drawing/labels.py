"""The names and grams of the parts beside their drawing, each with a line to its part."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from .layout import Picture

ACROSS, DOWN = 58.0, 24.0  # the frame is at most so many letters' sizes wide and high, so that they can be read
LETTER, ROW = 0.56, 1.6  # a letter's width and a row's height, in letters' size
GAP = 1.0  # between figure and label, in letters' size


@dataclass(frozen=True)
class Label:
    """`x`, `y`: where its words begin (or, `from_right`, end); `line`: the way to its part, as path data;
    `left`, `top`, `width`, `height`: the row its words fill, all of it to be pressed.
    """

    key: str
    words: str
    x: float
    y: float
    from_right: bool
    line: str
    left: float
    top: float
    width: float
    height: float


@dataclass(frozen=True)
class Labelled:
    """A frame wide enough for the labels, the ground between them, their size in mm, and the labels from above to below."""

    picture: Picture
    ground: str
    size: float
    labels: list[Label]


def labelled(side: Picture, words: Mapping[str, str]) -> Labelled:
    """The side view with a label for every part that it shows; `words` by the key of a part, in their order."""
    spots = {key: _spot(side, key) for key in words}
    shown = {key: spot for key, spot in spots.items() if spot is not None}
    letters = max((len(words[key]) for key in shown), default=0)
    beside = 2 * (letters * LETTER + GAP)
    size = max(side.width / max(0.3 * ACROSS, ACROSS - beside), side.height / DOWN)
    width = side.width + beside * size
    left = side.left - (width - side.width) / 2
    columns: tuple[list[str], list[str]] = ([], [])
    for n, key in enumerate(sorted(shown, key=lambda key: shown[key][0])):
        columns[n >= len(shown) / 2].append(key)
    row, tall = size * ROW, max(len(column) for column in columns) * size * ROW if shown else 0.0
    top = side.top - max(0.0, tall - side.height)
    found = []
    for from_right, column in enumerate(columns):
        edge = left + width if from_right else left
        inner = side.left + side.width if from_right else side.left
        y = top
        for n, key in enumerate(sorted(column, key=lambda key: shown[key][1])):
            x_at, y_at = shown[key]
            below = (len(column) - n - 1) * row
            y = min(max(y + row, y_at), side.top + side.height - below - size * 0.4)
            wide = (len(words[key]) * LETTER + GAP / 2) * size
            end = edge - wide if from_right else edge + wide
            line = f"M{x_at:.1f} {y_at:.1f}L{inner:.1f} {y - size * 0.3:.1f}H{end:.1f}"
            found.append(
                Label(key, words[key], edge, y, bool(from_right), line, min(edge, end), y - row * 0.7, wide, row)
            )
    frame = replace(side, left=left, top=top, width=width, height=side.top + side.height - top)
    ground = f"M{side.left:.1f} 0h{side.width:.1f}"
    return Labelled(frame, ground, size, sorted(found, key=lambda label: label.y))


def _spot(side: Picture, key: str) -> tuple[float, float] | None:
    """The middle of the piece of a part that lies nearest."""
    shapes = [shape for shape in side.shapes if shape.key == key and (shape.path or shape.line)]
    return shapes[-1].middle if shapes else None  # the last one lies nearest
