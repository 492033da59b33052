"""Several of a part in a row: round what they sit on, along it, or over it, turned and sized from the first to the last.

Sizes run evenly from 1 to the last one's share of the first. Each piece keeps its direction as seen from the skin on which it
sits, so that gills, petals, legs and scales stand out alike all round.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

ROUND, ALONG, OVER = "round", "along", "over"
HOWS = (ROUND, ALONG, OVER)
CUBE, SQUARE = 3, 2
POWER = {"core": CUBE, "padding": SQUARE, "cover": SQUARE, "coat": SQUARE}  # of the size, by which a layer's grams go


@dataclass(frozen=True)
class Row:
    """`to`: the share of the host's axis where the row ends, which begins at the seat's t; `spread`: the degrees round the
    host that it takes, about the seat's angle (a full round is shared evenly); `turn`: so many degrees the last one points
    further up than the first; `size`: the last one's size as a share of the first one's; `both`: the same on the other flank.
    """

    how: str = ROUND
    to: float = 0.9
    spread: float = 360.0
    turn: float = 0.0
    size: float = 1.0
    both: bool = False

    @classmethod
    def of(cls, given: Mapping[str, Any]) -> Row:
        """A row from JSON-like data."""
        return cls(**given)

    def on_a_side(self, count: int) -> int:
        """How many stand on one flank."""
        return (count + 1) // 2 if self.both else count

    def sizes(self, count: int) -> list[float]:
        """The size of each of `count` pieces as a share of the first; those of a pair are alike."""
        some = self.on_a_side(count)
        found = [1 + (self.size - 1) * _share(n, some) for n in range(some)]
        return [size for size in found for _ in range(2)][:count] if self.both else found

    def mean(self, role: str, count: int) -> float:
        """What a layer takes on all pieces, as a share of as many of the first one's size."""
        power = POWER.get(role, 0)
        return sum(size**power for size in self.sizes(count)) / max(1, count)

    def weight(self, role: str, count: int, index: int) -> float:
        """What a layer takes on one piece, as a share of what it takes on all."""
        power = POWER.get(role, 0)
        return self.sizes(count)[index] ** power / sum(size**power for size in self.sizes(count))

    def seats(self, seat: Mapping[str, float | None], count: int, aspect: float = 1.0) -> list[dict[str, float]]:
        """What differs in the seat of each piece on one flank: t, angle, pitch, yaw. `seat` has those of the first; `aspect`:
        how much longer the host is than it is round, by which a surface is shared out.
        """
        some = self.on_a_side(count)
        t, angle = float(seat.get("t") or 0.0), float(seat.get("angle") or 0.0)
        pitch, yaw = float(seat.get("pitch") or 0.0), float(seat.get("yaw") or 0.0)
        found = []
        for n, (at, round_) in enumerate(self._places(t, some, aspect)):
            up, aside = rolled(pitch, yaw, round_)
            turned = {"t": at, "pitch": up + self.turn * _share(n, some), "yaw": aside}
            found.append(turned if seat.get("angle") is None else {**turned, "angle": angle + round_})
        return found

    def _places(self, t: float, count: int, aspect: float) -> list[tuple[float, float]]:
        """Where each sits: the share of the axis, and the degrees round from the first one's angle."""
        if self.how == ALONG:
            return [(t + (self.to - t) * _share(n, count), 0.0) for n in range(count)]
        if self.how == ROUND:
            return [(t, degrees) for degrees in self._round(count)]
        rings = max(1, min(count, round(math.sqrt(count * aspect * abs(self.to - t) * 360 / max(self.spread, 1.0)))))
        found = []
        for ring in range(rings):
            mine = count // rings + (1 if ring < count % rings else 0)
            stagger = self.spread / max(mine, 1) / 2 * (ring % 2) if self.spread >= 360 else 0.0
            found += [(t + (self.to - t) * _share(ring, rings), degrees + stagger) for degrees in self._round(mine)]
        return found

    def _round(self, count: int) -> list[float]:
        if self.spread >= 360:
            return [360.0 * n / count for n in range(count)]
        return [self.spread * (_share(n, count) - 0.5) if count > 1 else 0.0 for n in range(count)]


def rolled(pitch: float, yaw: float, degrees: float) -> tuple[float, float]:
    """A direction, given up from and aside of an axis, turned so many degrees round that axis from its top to its side."""
    p, y, turn = math.radians(pitch), math.radians(yaw), math.radians(degrees)
    ahead, side, top = math.cos(p) * math.cos(y), math.cos(p) * math.sin(y), math.sin(p)
    top, side = top * math.cos(turn) - side * math.sin(turn), side * math.cos(turn) + top * math.sin(turn)
    return math.degrees(math.asin(max(-1.0, min(1.0, top)))), math.degrees(math.atan2(side, ahead))


def _share(n: int, count: int) -> float:
    """How far along a row of `count` the n-th is, 0 to 1."""
    return n / (count - 1) if count > 1 else 0.0
