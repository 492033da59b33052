"""Moving a part by hand: pushed so far to the right and up in a view, it slides over the skin it sits on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from .gaze import VIEWS
from .mesh import UP
from .placing import Placed, Seat, axis_length

if TYPE_CHECKING:
    from wembit.core.shape.solids import Solid

DEPTH_COUNTS = 0.3  # of two places that look alike from where one looks, the one that lies less far away in depth
FIRST_GRID, FINER = (33, 49), (9, 9)


def nudged(pieces: Sequence[Placed], name: str, which: str, right_mm: float, up_mm: float, mirror: int = 1) -> Seat:
    """The seat of a part after a push in a view (side, front).

    `mirror` says which of a pair was pushed. A part on an axis slides along it; the root rises or sinks over the ground.
    Raises KeyError for a part that is not there.
    """
    piece = next((other for other in pieces if other.name == name and other.mirror == mirror), None)
    piece = piece or next((other for other in pieces if other.name == name), None)
    if piece is None:
        raise KeyError(name)
    seat, host = piece.part.seat, piece.host
    if host is None:
        return replace(seat, centre_mm=round(seat.centre_mm + up_mm, 2))
    right, near = VIEWS[which].right, VIEWS[which].near
    flip = piece.mirror * host.mirror
    paired = sum(other.name == name for other in pieces) > 1
    start = host.skin_at(piece.seat.t, None if piece.seat.angle is None else piece.seat.angle * flip)[0]
    target = start + right * right_mm + UP * up_mm

    def far(t: float, angle: float | None) -> float:
        away = host.skin_at(t, None if angle is None else angle * flip)[0] - target
        flat = float(away @ right) ** 2 + float(away @ UP) ** 2
        return flat + DEPTH_COUNTS * float(away @ near) ** 2

    if piece.seat.angle is None:
        stations = np.linspace(0, 1, 101)
        best = min(stations, key=lambda t: abs(_along(host, t, target)))
        return replace(seat, t=round(float(best), 4))
    low, high = (0.0, 180.0) if paired else (-180.0, 180.0)
    ts = np.linspace(0.01, 0.99, FIRST_GRID[0])
    if which == "side" and not paired and piece.seat.angle in (0, 180):  # in the middle it stays in the middle
        best = min(((t, a) for t in np.linspace(0, 1, 201) for a in (0.0, 180.0)), key=lambda spot: far(*spot))
        return replace(seat, t=round(float(best[0]), 4), angle=best[1])
    angles = np.linspace(low, high, FIRST_GRID[1])
    best = min(((t, a) for t in ts for a in angles), key=lambda spot: far(*spot))
    for step in (1.0, 0.2):
        t_reach, a_reach = step / FIRST_GRID[0], step * (high - low) / FIRST_GRID[1]
        ts = np.clip(np.linspace(best[0] - t_reach, best[0] + t_reach, FINER[0]), 0, 1)
        angles = np.clip(np.linspace(best[1] - a_reach, best[1] + a_reach, FINER[1]), low, high)
        best = min(((t, a) for t in ts for a in angles), key=lambda spot: far(*spot))
    return replace(seat, t=round(float(best[0]), 4), angle=round(float(best[1]), 1))


def _along(host: Placed, t: float, target: np.ndarray) -> float:
    """How far past the target the point at t of the axis lies, along the axis there."""
    point, frame = host.axis_at(t)
    return float((point - target) @ frame.axis)


def sunk(seat: Seat, by_mm: float, shape: Solid) -> Seat:
    """The seat deeper (or, below zero, less deep) in what it sits on, at most its own length."""
    most = axis_length(shape, seat)
    return replace(seat, sink_mm=round(min(max(seat.sink_mm + by_mm, -most), most), 2))
