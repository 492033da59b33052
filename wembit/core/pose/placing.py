"""Where the parts of a figure are: each sits on another, so that what moves or grows takes along what sits on it.

x to the front, y to the first one's own side of a pair, z up, all in mm. A part has an axis from its root (t 0) to its
tip (t 1), given by pitch (up from level) and yaw (0 forward, 90 to its own side, 180 backward) in the standing pose.
Round the axis, 0° is its top (of a standing part its back), 90° its own side, 180° its underside.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from wembit.core.errors import RING, BadInput
from wembit.core.shape import solids

from .rows import Row

Vector = np.ndarray
Shape = solids.Solid
LARGEST_MM = 10_000.0  # of a part at its figure's scale
DEEPEST = 40  # seats upon seats
MOST_PIECES = 1_000
PAIR = 2


@dataclass(frozen=True)
class Bead:
    """A bought eye: its diameter and its shank in mm, the share that a lid covers, where it looks, in degrees, and its colour
    as it is drawn; empty: black.
    """

    mm: float = 0.0
    shank_mm: float = 0.0
    lid: float = 0.0
    gaze: float | None = None
    srgb: str = ""


@dataclass(frozen=True)
class Line:
    """A part without a shape of its own: which kind of line it is, how long, how often wound, how wide."""

    kind: str = ""
    length_mm: float = 0.0
    turns: float = 0.0
    width_mm: float = 0.0


BEAD_KEYS = {
    "bead_mm": "mm",
    "shank_mm": "shank_mm",
    "lid": "lid",
    "gaze": "gaze",
    "bead_srgb": "srgb",
}  # of stored seats
LINE_KEYS = {"line": "kind", "length_mm": "length_mm", "turns": "turns", "width_mm": "width_mm"}
SEAT_KEYS = {"sink": "sink_mm"}
LENGTHS = ("sink", "centre_mm", "bead_mm", "length_mm", "width_mm")  # of stored seats, that grow with the figure


@dataclass(frozen=True)
class Seat:
    """How a part sits: `on` which part (None: the root, its centre over the ground), at `t` of that part's axis,
    `angle` degrees round (None: on the axis), its own `pitch` and `yaw` in that part's frame (bends: length and turn
    from its own pitch); `by`: it touches with its skin at that share of its own axis instead of with its root; `sink_mm`:
    how deep it goes in; `face`: how a slab is turned; `copies`: stored seats of its further pieces, as far as they
    differ; `row`: its pieces in a row instead.
    """

    on: str | None = None
    t: float = 0.5
    angle: float | None = None
    pitch: float = 0.0
    yaw: float = 0.0
    by: float | None = None
    sink_mm: float = 0.0
    face: str = "side"
    centre_mm: float = 0.0
    bends: tuple[tuple[float, float], ...] = ()
    copies: tuple[Mapping, ...] = ()
    row: Row | None = None
    pair: bool | None = None
    bead: Bead = Bead()
    line: Line = Line()

    @classmethod
    def of(cls, given: Mapping) -> Seat:
        """A seat from JSON-like data, in which the bead's and the line's keys stand beside the others."""
        return cls().changed(given)

    def changed(self, given: Mapping) -> Seat:
        """The seat with other values, as `of` reads them."""
        bead = {BEAD_KEYS[key]: value for key, value in given.items() if key in BEAD_KEYS}
        line = {LINE_KEYS[key]: value for key, value in given.items() if key in LINE_KEYS}
        own = {
            SEAT_KEYS.get(key, key): value
            for key, value in given.items()
            if key not in BEAD_KEYS and key not in LINE_KEYS
        }
        if "bends" in own:
            own["bends"] = tuple((length, pitch) for length, pitch in own["bends"])
        if "copies" in own:
            own["copies"] = tuple(own["copies"])
        if own.get("row") is not None:
            own["row"] = Row.of(own["row"])
        return replace(self, **own, bead=replace(self.bead, **bead), line=replace(self.line, **line))


@dataclass(frozen=True)
class PlacedPart:
    """What placing needs of a part."""

    name: str
    count: int
    shape: Shape
    seat: Seat


@dataclass
class Frame:
    """Axis, top and side of a part: three unit vectors."""

    axis: Vector
    top: Vector
    side: Vector


@dataclass
class Placed:
    """One piece in space: a polyline as its axis with a frame for each stretch; the piece it sits on and the direction
    outward there. `skin`: its mesh; `box`: the least and the most of that on each axis, with what touches; `outside`: points
    of it that its host does not hide, and whether it hides any. Each once it was asked for, set in one step and never written
    to, since threads share placed pieces.
    """

    part: PlacedPart
    mirror: int
    joints: list[Vector]
    frames: list[Frame]
    seat: Seat
    host: Placed | None = None
    out: Vector | None = None
    skin: np.ndarray | None = None
    box: tuple[np.ndarray, np.ndarray] | None = None
    outside: tuple[np.ndarray, bool] | None = None

    @property
    def name(self) -> str:
        return self.part.name

    def axis_at(self, t: float) -> tuple[Vector, Frame]:
        """Point and frame at the share t of the axis."""
        spans = [float(np.linalg.norm(q - p)) for p, q in zip(self.joints, self.joints[1:], strict=False)]
        rest = t * sum(spans)
        for index, span in enumerate(spans):
            if rest <= span or index == len(spans) - 1:
                way = rest / span if span else 0.0
                return self.joints[index] + (self.joints[index + 1] - self.joints[index]) * way, self.frames[index]
            rest -= span
        return self.joints[0], self.frames[0]

    def skin_at(self, t: float, angle: float | None) -> tuple[Vector, Vector]:
        """Point on the skin and the direction outward there; on the axis itself, along it."""
        point, frame = self.axis_at(t)
        if angle is None:
            return point, frame.axis if t >= 0.5 else -frame.axis
        turn = math.radians(angle)
        out = frame.top * math.cos(turn) + frame.side * math.sin(turn)
        return point + out * reach(self.part.shape, self.seat, t, angle), out


def cross(one: Vector, two: Vector) -> Vector:
    """The vector product of two vectors of three."""
    (a, b, c), (d, e, f) = one, two
    return np.array([b * f - c * e, c * d - a * f, a * e - b * d])


def frame_of(pitch: float, yaw: float, mirror: int = 1) -> Frame:
    """The frame of an axis. A mirrored piece has its yaw and its side turned."""
    p, y = math.radians(pitch), math.radians(yaw * mirror)
    axis = np.array([math.cos(p) * math.cos(y), math.cos(p) * math.sin(y), math.sin(p)])
    top = np.array([-math.sin(p) * math.cos(y), -math.sin(p) * math.sin(y), math.cos(p)])
    return Frame(axis, top, cross(top, axis) * mirror)


def axis_length(shape: Shape, seat: Seat) -> float:
    """Length of a part's axis in mm; a bead and a line have theirs from the seat."""
    return seat.bead.mm or shape.axis_mm or seat.line.length_mm


def section(shape: Shape, seat: Seat, t: float) -> tuple[float, float]:
    """Half widths in mm at the share t of the axis: towards the top, towards the side."""
    t = min(1.0, max(0.0, t))
    if seat.bead.mm:
        half = seat.bead.mm / 2 * math.sqrt(max(0.0, 1 - (2 * t - 1) ** 2))
        return half, half
    top, side = shape.half_widths(t)
    flat = isinstance(shape, solids.Slab) and seat.face != "side"
    return (side, top) if flat else (top, side)


def reach(shape: Shape, seat: Seat, t: float, angle: float) -> float:
    """Distance from the axis to the skin at t, `angle` degrees round from the top."""
    top, side = section(shape, seat, t)
    turn = math.radians(angle)
    c, s = abs(math.cos(turn)), abs(math.sin(turn))
    if isinstance(shape, solids.Box):
        return min(top / c if c > 1e-9 else math.inf, side / s if s > 1e-9 else math.inf)
    if not top or not side:
        return 0.0
    return 1 / math.hypot(c / top, s / side)


def place(parts: Sequence[PlacedPart]) -> list[Placed]:
    """Every piece of a figure in space, the root first.

    Raises `BadInput` for a seat on no part or in a ring, a part larger than 10 m, seats more than 40 deep, and more than
    1,000 pieces.
    """
    by_name = {part.name: part for part in parts}
    roots = [part for part in parts if part.seat.on is None]
    for index, part in enumerate(parts):
        if part.seat.on is not None and part.seat.on not in by_name:
            raise BadInput(f"parts[{index}].seat.on", "sits on a part that is not there", part.seat.on)
        if part.shape.longest_mm > LARGEST_MM:
            raise BadInput(f"parts[{index}].shape", "is larger than 10 m", part.shape.longest_mm)
    if sum(part.count if part.seat.row else 2 * max(1, len(part.seat.copies)) for part in parts) > 2 * MOST_PIECES:
        raise BadInput("parts", f"has more than {MOST_PIECES} pieces", len(parts))
    depth = 0
    placed: dict[str, list[Placed]] = {}
    for part in roots:
        placed[part.name] = [_standing(part)]
    waiting = [part for part in parts if part.seat.on is not None]
    while waiting:
        ready = [part for part in waiting if all(on in placed for on in _hosts(part))]
        if not ready:
            names = tuple(part.name for part in waiting)
            words = f"these parts sit on each other in a ring: {', '.join(names)}"
            raise BadInput("parts", words, code=RING, names=names)
        depth += 1
        if depth > DEEPEST:
            raise BadInput("parts", f"sit on each other more than {DEEPEST} deep", ready[0].name)
        for part in ready:
            placed[part.name] = _pieces(part, placed)
        waiting = [part for part in waiting if part not in ready]
    return [piece for part in parts for piece in placed[part.name]]


def settle(parts: Sequence[PlacedPart]) -> list[PlacedPart]:
    """Parts whose seats are given in the standing pose, with the seats turned relative to what they sit on."""
    settled: list[PlacedPart] = []
    waiting = list(parts)
    while waiting:
        names = {part.name for part in settled}
        ready = [part for part in waiting if part.seat.on is None or _hosts(part) <= names]
        if not ready:
            raise BadInput("parts", f"nothing to sit on: {', '.join(part.name for part in waiting)}", None)
        pieces = {piece.name: piece for piece in reversed(place(settled))}
        settled += [replace(part, seat=_turned(part.seat, pieces)) for part in ready]
        waiting = [part for part in waiting if part not in ready]
    return [next(settled_part for settled_part in settled if settled_part.name == part.name) for part in parts]


def _turned(seat: Seat, pieces: dict[str, Placed]) -> Seat:
    if seat.on is None:
        return seat
    turned = angles_on(pieces[seat.on], seat.t, seat.pitch, seat.yaw)
    copies = []
    for copy in seat.copies:
        here = seat.changed(copy)
        copies.append({**copy, **angles_on(pieces[here.on or seat.on], here.t, here.pitch, here.yaw)})
    bends = tuple((length, pitch - seat.pitch) for length, pitch in seat.bends)
    return replace(seat, pitch=turned["pitch"], yaw=turned["yaw"], copies=tuple(copies), bends=bends)


def angles_on(host: Placed, t: float, pitch: float, yaw: float) -> dict[str, float]:
    """Pitch and yaw of a standing direction as seen from the host's frame at t."""
    way, frame = frame_of(pitch, yaw).axis, host.axis_at(t)[1]
    along, across, up = (float(way @ each) for each in (frame.axis, frame.side, frame.top))
    turned = {"pitch": math.degrees(math.asin(max(-1.0, min(1.0, up)))), "yaw": math.degrees(math.atan2(across, along))}
    return {key: round(value, 4) for key, value in turned.items()}


def angles_from_standing(part: PlacedPart, others: Sequence[PlacedPart]) -> dict[str, float]:
    """Pitch and yaw of a part's seat, given in the standing pose, as seen from the part it sits on.

    Of the others only those that carry it are placed, so what sits on the part itself does not matter. Raises `BadInput`
    where it sits on no part, or on one that it carries.
    """
    carriers = _carriers(part, others)
    host = next(piece for piece in place(carriers) if piece.name == part.seat.on)
    return angles_on(host, part.seat.t, part.seat.pitch, part.seat.yaw)


def _carriers(part: PlacedPart, others: Sequence[PlacedPart]) -> list[PlacedPart]:
    """What a part sits on, and what that sits on, down to the root."""
    by_name = {other.name: other for other in others}
    carriers: dict[str, PlacedPart] = {}
    waiting = _hosts(part)
    while waiting:
        name = waiting.pop()
        if name == part.name:
            raise BadInput("seat.on", "sits on a part that it carries itself", part.seat.on)
        if name not in by_name:
            raise BadInput("seat.on", "sits on a part that is not there", name)
        if name not in carriers:
            carriers[name] = by_name[name]
            waiting |= _hosts(by_name[name])
    return list(carriers.values())


def standing_angles(piece: Placed) -> tuple[float, float]:
    """Pitch and yaw in the standing pose of a placed piece's first stretch."""
    axis = piece.frames[0].axis
    yaw = math.degrees(math.atan2(axis[1], axis[0])) if math.hypot(axis[0], axis[1]) > 1e-9 else 0.0
    return math.degrees(math.asin(max(-1.0, min(1.0, axis[2])))), yaw


def _hosts(part: PlacedPart) -> set[str]:
    """The names of the parts that a part sits on; none for the root."""
    if part.seat.on is None:
        return set()
    return {part.seat.on, *(copy["on"] for copy in part.seat.copies if "on" in copy)}


def _standing(part: PlacedPart) -> Placed:
    seat = part.seat
    frame = frame_of(seat.pitch, seat.yaw)
    half = axis_length(part.shape, seat) / 2
    centre = np.array([0.0, 0.0, seat.centre_mm])
    return Placed(part, 1, [centre - frame.axis * half, centre + frame.axis * half], [frame], seat)


def _pieces(part: PlacedPart, placed: dict[str, list[Placed]]) -> list[Placed]:
    if part.seat.row is not None and part.seat.on in placed:
        return _in_a_row(part, part.seat.row, placed[part.seat.on])
    on = placed[part.seat.on or ""]
    if part.count == len(on) > PAIR and not part.seat.copies:
        return [_seated(part, part.seat, host, host.mirror) for host in on]  # one on each of a row
    seats = [replace(part.seat.changed(copy), copies=()) for copy in part.seat.copies] or [part.seat]
    paired = part.seat.pair if part.seat.pair is not None else part.count == 2 * len(seats)
    found = []
    for seat in seats:
        hosts = placed[seat.on or ""]
        for mirror in (1, -1) if paired else (1,):
            host = next((other for other in hosts if other.mirror == mirror), hosts[0])
            found.append(_seated(part, seat, host, mirror))
    return found


def _in_a_row(part: PlacedPart, row: Row, hosts: list[Placed]) -> list[Placed]:
    """The pieces of a row, each in its size; of a row on both flanks the other of a pair after the one."""
    seat = part.seat
    first = {"t": seat.t, "angle": seat.angle, "pitch": seat.pitch, "yaw": seat.yaw}
    places = row.seats(first, part.count, _aspect(hosts[0], seat.t))
    flanks = (1, -1) if row.both else (1,)
    turns = [(place, mirror) for place in places for mirror in flanks][: max(1, part.count)]
    found = []
    for (place, mirror), size in zip(turns, row.sizes(len(turns)), strict=True):
        host = next((other for other in hosts if other.mirror == mirror), hosts[0])
        own = replace(
            seat,
            t=place["t"],
            angle=place.get("angle"),
            pitch=place["pitch"],
            yaw=place["yaw"],
            sink_mm=seat.sink_mm * size,
            bends=tuple((length * size, bend) for length, bend in seat.bends),
            row=None,
        )
        scaled = part if size == 1 else replace(part, shape=part.shape.scaled(size))
        found.append(_seated(scaled, own, host, mirror))
    return found


def _aspect(host: Placed, t: float) -> float:
    """How much longer a host is than it is round."""
    around = math.pi * sum(section(host.part.shape, host.seat, min(0.9, max(0.1, t))))
    return axis_length(host.part.shape, host.seat) / around if around else 1.0


def _seated(part: PlacedPart, seat: Seat, host: Placed, mirror: int) -> Placed:
    flip = mirror * host.mirror
    point, out = host.skin_at(seat.t, None if seat.angle is None else seat.angle * flip)
    frame = _on_host(host.axis_at(seat.t)[1], seat, flip, mirror)
    if seat.bead.mm:
        frame = _along(out, mirror)  # a bead looks outward
    length = axis_length(part.shape, seat)
    if seat.by is None:
        start = point - frame.axis * seat.sink_mm
    else:
        start = point + out * (_touch(part.shape, seat, frame, out) - seat.sink_mm) - frame.axis * length * seat.by
    joints, frames = [start], []
    for span, bend in seat.bends or ((length, 0.0),):
        here = _bent(frame, bend, mirror)
        frames.append(here)
        joints.append(joints[-1] + here.axis * span)
    return Placed(part, mirror, joints, frames, seat, host, out)


def _on_host(host: Frame, seat: Seat, flip: int, mirror: int) -> Frame:
    """The frame of a part from its pitch and yaw in the host's frame."""
    p, y = math.radians(seat.pitch), math.radians(seat.yaw)
    axis = host.axis * math.cos(p) * math.cos(y) + host.side * math.cos(p) * math.sin(y) * flip + host.top * math.sin(p)
    return _along(axis, mirror)


def _along(axis: Vector, mirror: int) -> Frame:
    """The frame whose axis is this unit vector, its top turned up as far as it goes."""
    level = math.hypot(axis[0], axis[1])
    yaw = math.degrees(math.atan2(axis[1], axis[0])) if level > 1e-6 else 0.0
    return frame_of(math.degrees(math.atan2(axis[2], level)), yaw * mirror, mirror)


def _bent(frame: Frame, bend: float, mirror: int) -> Frame:
    """The frame turned up by `bend` degrees in its own plane."""
    if not bend:
        return frame
    turn = math.radians(bend)
    axis = frame.axis * math.cos(turn) + frame.top * math.sin(turn)
    top = frame.top * math.cos(turn) - frame.axis * math.sin(turn)
    return Frame(axis, top, cross(top, axis) * mirror)


def _touch(shape: Shape, seat: Seat, frame: Frame, out: Vector) -> float:
    """How far the axis stays off the host's skin when the part touches it with its own skin at `by`."""
    across = out - frame.axis * float(out @ frame.axis)
    size = float(np.linalg.norm(across))
    if size < 1e-6:
        return 0.0
    across = across / size
    angle = math.degrees(math.atan2(float(across @ frame.side), float(across @ frame.top)))
    return reach(shape, seat, seat.by or 0.0, angle) * size
