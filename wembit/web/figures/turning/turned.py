"""A version seen from anywhere in one frame, so that it keeps its size while it turns; and its faces for the browser."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from wembit.core.drawing.ground import Ground, ground_of, seen_from
from wembit.core.drawing.turning_mesh import turned
from wembit.core.drawing.views import Dress, grounded
from wembit.core.errors import BadInput
from wembit.core.pose.gaze import VIEWS, Gaze
from wembit.web.caches import by_content
from wembit.web.figures.drawing.layout import (
    Picture,
    closed_path,
    content_mark,
    dresses_of,
    edge_shade,
    pictures_from,
)
from wembit.web.figures.models import Part, Version
from wembit.web.figures.to_core.estimating import Palette
from wembit.web.figures.to_core.seating import placed

MARGIN_MM, STEP = 6.0, 15
FIRST = Gaze(30, 12)
TENTHS = 10  # points are sent in tenths of a mm
KEYS = {"front": "F", "side": "S", "back": "B", "above": "A", "below": "U"}
FOUR = ("front", "side", "back", "above")


@dataclass(frozen=True)
class Board:
    """What is drawn of a figure from one gaze: the picture in its frame, its shadow and a coin as paths."""

    picture: Picture
    shadow: str
    coin: str
    gaze: Gaze
    ground: Ground


def gaze_in(turn: float | None, tilt: float | None) -> Gaze:
    """The gaze that was asked for, to whole degrees, else the first one."""
    if turn is None and tilt is None:
        return FIRST
    return Gaze(round(turn or 0) % 360, max(-90, min(90, round(tilt or 0))))


def board(version: Version, parts: Sequence[Part], palette: Palette, gaze: Gaze) -> Board:
    """The figure from that gaze. A fault in a part gives a picture without shapes that says so."""
    picture = pictures_from(version, parts, palette, {"turned": gaze})["turned"]
    if picture.fault:
        return Board(picture, "", "", gaze, Ground([], [], 0.0, 0.0, 0.0))
    ground = ground_of(grounded(placed(parts)))
    wide, half, middle = frame_of(ground, gaze)
    framed = replace(picture, left=-wide, top=-middle - half, width=2 * wide, height=2 * half)
    shadow, coin = (closed_path(seen_from(rings, gaze)) for rings in (ground.shadow, [ground.coin]))
    return Board(framed, shadow, coin, gaze, ground)


def frame_of(ground: Ground, gaze: Gaze) -> tuple[float, float, float]:
    """Half the frame's width and height in mm, the same from everywhere, and how high its middle lies in the picture."""
    wide = ground.radius + MARGIN_MM
    half = math.hypot(ground.height / 2, ground.reach) + MARGIN_MM
    return wide, half, float(gaze.up[2]) * ground.height / 2


def faces(parts: Sequence[Part], palette: Palette) -> dict[str, Any]:
    """What the browser turns: points in tenths of a mm, faces and strokes by the number of their colour, the ground."""
    dresses = dresses_of(parts, palette)
    mark = content_mark(parts, dresses)
    kept: dict[str, Any] = by_content.get_or_make(("faces", mark), "", lambda: _faces(parts, dresses))
    return kept


def _faces(parts: Sequence[Part], dresses: dict[str, Dress]) -> dict[str, Any]:
    try:
        pieces = grounded(placed(parts))
    except BadInput as fault:
        return {"fault": fault.what}
    found, ground = turned(pieces, dresses), ground_of(pieces)
    paints: dict[str, int] = {}

    def paint(colour: str) -> int:
        return paints.setdefault(colour, len(paints))

    wide, half, _ = frame_of(ground, VIEWS["side"])
    return {
        "points": [round(float(each) * TENTHS) for points in found.points for each in points.ravel()],
        "faces": [[paint(colour), *ring] for colour, ring in found.faces],
        "pieces": [count for count, _ in found.pieces],
        "bands": found.bands, "lifts": [round(lift, 2) for _, lift in found.pieces],
        "strokes": [[paint(colour), round(width, 2), *ring] for colour, width, ring in found.strokes],
        "paints": list(paints),
        "edges": [edge_shade(colour) for colour in paints],
        "shadow": [[round(each, 1) for point in ring for each in point] for ring in ground.shadow],
        "coin": [round(each, 1) for point in ground.coin for each in point],
        "wide": round(wide, 2), "half": round(half, 2), "high": round(ground.height, 2),
    }  # fmt: skip


@dataclass(frozen=True)
class Way:
    """A way to turn it by one press: its words, its key, the gaze."""

    words: str
    key: str
    turn: int
    tilt: int


def ways(gaze: Gaze) -> tuple[list[Way], list[Way]]:
    """The five views, and a step each way from a gaze."""
    fixed = [Way(name, key, int(VIEWS[name].turn), int(VIEWS[name].tilt)) for name, key in KEYS.items()]
    turn, tilt = int(gaze.turn), int(gaze.tilt)
    steps = [
        Way("turn left", "←", (turn - STEP) % 360, tilt), Way("turn right", "→", (turn + STEP) % 360, tilt),
        Way("look from higher", "↑", turn, min(90, tilt + STEP)), Way("look from lower", "↓", turn, max(-90, tilt - STEP)),
    ]  # fmt: skip
    return fixed, steps


def four_views(version: Version, parts: Sequence[Part], palette: Palette) -> list[Picture]:
    """Front, side, back and above, to one scale: on frames of one width, those from level of one height."""
    seen = pictures_from(version, parts, palette, {name: VIEWS[name] for name in FOUR})
    wide = max(picture.width for picture in seen.values())
    level = [picture for name, picture in seen.items() if not VIEWS[name].tilt]
    top = min(picture.top for picture in level)
    bottom = max(picture.top + picture.height for picture in level)
    found = []
    for name, picture in seen.items():
        framed = replace(picture, left=picture.left - (wide - picture.width) / 2, width=wide)
        found.append(framed if VIEWS[name].tilt else replace(framed, top=top, height=bottom - top))
    return found
