"""A face from the front: the line through a pair of eyes or ears, how level it lies and how far down the head."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .mesh import UP, surface
from .placing import Placed


@dataclass(frozen=True)
class PairLine:
    """Heights over the ground and places across (y) of the two in mm: of beads their middles, of ears their roots.

    `apart_mm` between them; `level_mm`: how much one is higher; `down`: the share of the way from the top of what they
    sit on to its bottom.
    """

    heights: tuple[float, float]
    across: tuple[float, float]
    apart_mm: float
    level_mm: float
    down: float


def pair_line(pieces: Sequence[Placed], name: str) -> PairLine | None:
    """The line of a mirrored pair; None where the part is no pair that sits on something."""
    pair = [piece for piece in pieces if piece.name == name and piece.host is not None]
    if len(pair) != 2 or pair[0].mirror == pair[1].mirror:
        return None
    host = pair[0].host
    assert host is not None
    lowest = min(float((surface(piece).reshape(-1, 3) @ UP).min()) for piece in pieces if len(surface(piece)) > 2)
    middles = [piece.axis_at(0.5)[0] if piece.seat.bead.mm else piece.joints[0] for piece in pair]
    heights = (float(middles[0] @ UP) - lowest, float(middles[1] @ UP) - lowest)
    across = (float(middles[0][1]), float(middles[1][1]))
    skin = surface(host).reshape(-1, 3) @ UP - lowest
    tall = float(skin.max() - skin.min()) or 1.0
    down = (float(skin.max()) - sum(heights) / 2) / tall
    return PairLine(heights, across, abs(across[0] - across[1]), abs(heights[0] - heights[1]), down)
