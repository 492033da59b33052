"""Templates at true size: outlines and wire plans of parts laid out on sheets of paper, each with a line of 100 mm.

All in mm, x to the right and y down from the sheet's upper left corner. What is larger than a sheet is turned, else split
over several that overlap.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

import numpy as np
from shapely import affinity
from shapely.geometry import LineString, box
from shapely.geometry.base import BaseGeometry

PAPERS = {"A4": (210.0, 297.0), "letter": (215.9, 279.4)}  # ISO 216; ANSI Y14.1
MARGIN, FOOT, GAP, OVERLAP, LABEL = 10.0, 16.0, 6.0, 10.0, 9.0
CHECK_MM = 100.0
ROUND_STEPS = 64


@dataclass(frozen=True)
class Template:
    """A part to be cut or held against: filled outlines, lines that are bent (wire), and up to two lines of words."""

    name: str
    words: str
    outline: BaseGeometry
    wires: tuple[LineString, ...] = ()

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        shapes = [self.outline, *self.wires]
        found = np.array([shape.bounds for shape in shapes if not shape.is_empty])
        return (*found[:, :2].min(axis=0), *found[:, 2:].max(axis=0))


@dataclass
class Piece:
    """Something on a sheet: rings and open lines as points, and where its words stand."""

    rings: list[list[tuple[float, float]]]
    lines: list[list[tuple[float, float]]]
    name: str
    words: str
    at: tuple[float, float]


@dataclass
class Sheet:
    """One side of paper; `check`: the two ends of the line of 100 mm; `tile`: its place where a part is split."""

    width: float
    height: float
    pieces: list[Piece] = field(default_factory=list)
    tile: str = ""

    @property
    def check(self) -> tuple[tuple[float, float], tuple[float, float]]:
        y = self.height - MARGIN - 4
        return (MARGIN, y), (MARGIN + CHECK_MM, y)


def bent(bends: Sequence[tuple[float, float]], length_mm: float) -> LineString:
    """A wire along its bends (length, turn in degrees from the first), y down, begun at 0, 0."""
    here, points = (0.0, 0.0), [(0.0, 0.0)]
    for span, turn in bends or [(length_mm, 0.0)]:
        angle = math.radians(turn)
        here = (here[0] + span * math.cos(angle), here[1] - span * math.sin(angle))
        points.append(here)
    return LineString(points)


def lay_out(templates: Sequence[Template], paper: str = "A4") -> list[Sheet]:
    """The templates on as few sheets as rows of them fill, the tallest first. Raises KeyError for unknown paper."""
    width, height = PAPERS[paper]
    room = (width - 2 * MARGIN, height - 2 * MARGIN - FOOT)
    sheets: list[Sheet] = []
    fitting = []
    for template in templates:
        turned = _turned_to_fit(template, room)
        if turned is None:
            sheets += _split(template, width, height, room)
        else:
            fitting.append(turned)
    fitting.sort(key=lambda each: -(each.bounds[3] - each.bounds[1]))
    open_sheets: list[tuple[Sheet, list[float]]] = []
    for template in fitting:
        _place(template, open_sheets, width, height, room)
    return [sheet for sheet, _ in open_sheets] + sheets


def _place(
    template: Template, sheets: list[tuple[Sheet, list[float]]], width: float, height: float, room: tuple[float, float]
) -> None:
    """Put a template into the first row with room for it, else into a new row, else on a new sheet.

    A sheet is kept with [top of the row, left of what is free in it, height of the row].
    """
    left, low, right, high = template.bounds
    wide, tall = right - left, high - low + LABEL
    wide = max(wide, _words_width(template))
    for opened in sheets:
        row = opened[1]
        if row[1] + wide <= room[0] and row[0] + max(tall, row[2]) <= room[1]:
            break
        if row[0] + row[2] + GAP + tall <= room[1]:
            row[:] = [row[0] + row[2] + GAP, 0.0, 0.0]
            break
    else:
        opened = (Sheet(width, height), [0.0, 0.0, 0.0])
        sheets.append(opened)
    sheet, row = opened
    x, y = MARGIN + row[1], MARGIN + row[0]
    sheet.pieces.append(_piece(template, x - left, y - low, (x, y + high - low + 4)))
    row[1] += wide + GAP
    row[2] = max(row[2], tall)


def _words_width(template: Template) -> float:
    """How much room the words take, about, in mm at 3 mm type."""
    return min(170.0, 1.9 * max(len(template.name), len(template.words)))


def _turned_to_fit(template: Template, room: tuple[float, float]) -> Template | None:
    """The template as it is or turned by 90°, whichever fits on a sheet; None where neither does."""
    for angle in (0, 90):
        turned = Template(
            template.name,
            template.words,
            affinity.rotate(template.outline, angle, origin=(0, 0)),
            tuple(affinity.rotate(wire, angle, origin=(0, 0)) for wire in template.wires),
        )
        left, low, right, high = turned.bounds
        if right - left <= room[0] and high - low + LABEL <= room[1]:
            return turned
    return None


def _split(template: Template, width: float, height: float, room: tuple[float, float]) -> list[Sheet]:
    """The template over sheets that overlap by 10 mm, named by row and column."""
    left, low, right, high = template.bounds
    step = (room[0] - OVERLAP, room[1] - LABEL - OVERLAP)
    across = max(1, math.ceil((right - left - OVERLAP) / step[0]))
    down = max(1, math.ceil((high - low - OVERLAP) / step[1]))
    sheets = []
    for i in range(down):
        for j in range(across):
            x, y = left + j * step[0], low + i * step[1]
            window = box(x, y, x + room[0], y + room[1] - LABEL)
            part = Template(
                template.name,
                template.words,
                template.outline.boundary.intersection(window),
                tuple(LineString(w) for wire in template.wires for w in _lines(wire.intersection(window))),
            )
            sheet = Sheet(width, height, tile=f"row {i + 1} of {down}, sheet {j + 1} of {across}; lay over by 10 mm")
            sheet.pieces.append(_piece(part, MARGIN - x, MARGIN - y, (MARGIN, MARGIN + room[1] - LABEL + 4)))
            sheets.append(sheet)
    return sheets


def _lines(shape: BaseGeometry) -> list[list[tuple[float, float]]]:
    """The open lines of a geometry as points."""
    parts = getattr(shape, "geoms", [shape])
    return [list(part.coords) for part in parts if part.geom_type in ("LineString", "LinearRing") and not part.is_empty]


def _piece(template: Template, dx: float, dy: float, at: tuple[float, float]) -> Piece:
    def moved(points: Iterable[tuple[float, ...]]) -> list[tuple[float, float]]:
        return [(x + dx, y + dy) for x, y, *_ in points]

    rings, lines = [], []
    for part in getattr(template.outline, "geoms", [template.outline]):
        if part.geom_type == "Polygon" and not part.is_empty:
            rings += [moved(ring.coords) for ring in (part.exterior, *part.interiors)]
        elif not part.is_empty:
            lines += [moved(line) for line in _lines(part)]
    lines += [moved(wire.coords) for wire in template.wires if not wire.is_empty]
    return Piece(rings, lines, template.name, template.words, at)
