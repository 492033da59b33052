"""Whether a piece came out as planned: its size and weight give the density reached, and what to do about it.

Density is weight by volume; the piece is taken to keep its shape, its length and its thickness measured. Borders between two
firmnesses lie at the geometric mean of their densities. What to do is common practice: wool can be added and not taken away,
what is soft shrinks when it is felted on, what is firm stays.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from wembit.core.craft.materials import FIRMNESS

NEAR = 0.07  # of a size: what eye and ruler do not tell apart on felt, common practice
SCALE_G_CM3 = (0.04, 0.32)  # the ends of the drawn scale of firmness


@dataclass(frozen=True)
class Planned:
    """A piece as planned: length and thickness in mm, its volume and what of that is wire, both in mm³, its firmness."""

    long_mm: float
    thick_mm: float
    volume_mm3: float
    wire_mm3: float = 0.0
    firmness: str = "medium"


@dataclass(frozen=True)
class Checked:
    """A piece as it is: density in g/cm³ (None where there is no weight), its firmness, both sizes against the plan, what to
    do in one sentence, and the grams that go with it where wool is to be added.
    """

    density: float | None
    firmness: str
    long: float
    thick: float
    to_do: str
    add_g: float = 0.0
    is_loose: bool = False  # larger and softer: it was rolled loosely, and is to be felted on


def firmness_of(density: float) -> str:
    """The firmness whose density, in g/cm³ (> 0), is nearest by ratio."""
    return min(FIRMNESS, key=lambda name: abs(math.log(density / FIRMNESS[name])))


def along_scale(density: float) -> float:
    """Where a density lies on the drawn scale, 0 to 1."""
    low, high = (math.log(end) for end in SCALE_G_CM3)
    return min(1.0, max(0.0, (math.log(density) - low) / (high - low)))


def checked(planned: Planned, long_mm: float, thick_mm: float | None, grams: float) -> Checked:
    """The piece measured, sizes in mm (> 0), of `grams` g of wool that are in it (0: not weighed).

    Without a thickness it is taken to be as much thicker as it is longer.
    """
    long = long_mm / planned.long_mm
    thick = thick_mm / planned.thick_mm if thick_mm and planned.thick_mm else long
    volume = max((planned.volume_mm3 * long * thick**2 - planned.wire_mm3) / 1000, 1e-6)
    if grams <= 0:
        return Checked(None, "", long, thick, _of_size(long, thick))
    density, wanted = grams / volume, FIRMNESS[planned.firmness]
    soft = density < wanted and firmness_of(density) != planned.firmness
    hard = density > wanted and firmness_of(density) != planned.firmness
    whole = max((planned.volume_mm3 - planned.wire_mm3) / 1000, 1e-6)
    lacks = max(0.0, wanted * whole - grams)
    large, small = max(long, thick) > 1 + NEAR, min(long, thick) < 1 - NEAR
    if large and soft:
        to_do, add = "Larger and softer than planned: felt on, it shrinks to its size.", 0.0
    elif large:
        to_do, add = (
            "Larger than planned and felted through: leave it and make its pair alike, or take a new core.",
            0.0,
        )
    elif small and lacks:
        to_do, add = f"{_of_size(long, thick)} Lay more on, a little at a time.", lacks
    elif small:
        to_do, add = "Smaller than planned, with all its wool: it is felted further than planned.", 0.0
    elif soft:
        to_do, add = "Its size, but softer than planned: lay more on and felt it in, or let it be soft.", lacks
    elif hard:
        to_do, add = "Its size, and firmer than planned: it took more wool.", 0.0
    else:
        to_do, add = "As planned.", 0.0
    return Checked(density, firmness_of(density), long, thick, to_do, round(add, 3), large and soft)


def _of_size(long: float, thick: float) -> str:
    """What the sizes alone say."""
    if abs(long - 1) <= NEAR and abs(thick - 1) <= NEAR:
        return "Its size is as planned."
    if long > 1 + NEAR and thick < 1 - NEAR:
        return "Longer and thinner than planned."
    if long < 1 - NEAR and thick > 1 + NEAR:
        return "Shorter and thicker than planned: roll it longer."
    if thick < 1 - NEAR and abs(long - 1) <= NEAR:
        return "Thinner than planned."
    if long < 1 - NEAR and abs(thick - 1) <= NEAR:
        return "Shorter than planned."
    return "Smaller than planned." if min(long, thick) < 1 - NEAR else "Larger than planned."
