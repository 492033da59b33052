"""How the studio's hands differ from the rule: as its bench has learnt it, for the estimates of every room."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from wembit.core.craft.materials import USUAL_SIGMA

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.studio.models import Studio

MINUTES = "minutes"  # what work takes, beside what layers take
ALL = ""  # the hands of the studio taken together
SOLID = ("core", "padding")  # of these a hand is known by firmness, of the others by what they are


class Known(NamedTuple):
    """A hand takes `bias` times what the rule says, with the log scatter `sigma`, learnt from `n` weighed parts."""

    bias: float = 1.0
    sigma: float = USUAL_SIGMA
    n: int = 0


def key_of(role: str, firmness: str) -> str:
    """What a layer counts for: the firmness of what is solid, else its role."""
    return firmness if role in SOLID and firmness else role


def hand(studio: Studio, key: str, maker: UUID | None = None) -> Known:
    """The hand at such a layer: the maker's own where it is known, else the studio's."""
    own = studio.hands.get(str(maker), {}).get(key) if maker else None
    found = own or studio.hands.get(ALL, {}).get(key)
    return Known(*found) if found else Known()
