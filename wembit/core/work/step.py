"""A step of the order of work: what it is, what it waits for and why, and how its time scatters."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import NamedTuple

from wembit.core.grams.estimate import Z90

from .worked import FILLING, Wool

LEAST_MINUTES, MINUTES_SIGMA = 2.0, 0.35
GLUE_HOURS = 12.0  # until dry; the supplier's instructions come first
# where a kind of step stands when nothing else decides
RANK = {
    "gather": 0,
    "prepare": 1,
    "wire": 2,
    "make": 3,
    "pad": 4,
    "face": 4,
    "join": 5,
    "cover": 6,
    "detail": 7,
    "coat": 8,
    "late": 9,
    "eyes": 10,
    "finish": 11,
    "away": 12,
}
GROUPS = {
    "gather": "lay out",
    "prepare": "lay out",
    "wire": "wire",
    "make": "make",
    "pad": "make",
    "join": "join",
    "late": "join",
    "cover": "cover",
    "coat": "cover",
    "detail": "cover",
    "face": "face",
    "eyes": "face",
    "finish": "finish",
    "away": "finish",
}
# why one step comes after another: each is said of the earlier one
WHY = {
    "laid out": "everything lies ready first",
    "wired": "the wire is bent before it is wound",
    "threaded": "a wound limb does not go through",
    "bound": "bare wires are bound before they are wound",
    "inwards": "winding goes from the end inwards",
    "divided": "equal shares come before the first of them is worked",
    "made": "it has to be there first",
    "stiff": "it is stiff enough then",
    "host": "something has to be there to join it to",
    "held": "it is held better once that is joined",
    "ground": "it lies on top of that",
    "seam": "the cover hides the seam",
    "colour": "its own colour would be covered over",
    "in the hand": "in the hand it is turned as it is needed",
    "on the pad": "flat, on the pad, it is reached from both sides",
    "reach": "afterwards no needle gets there",
    "under": "it lies under that",
    "firmed": "it is felted through there",
    "round": "it lies round that",
    "tried": "it is tried with pins first",
    "bald": "on the bald head they are reached",
    "fills": "every layer fills it, so it is drawn in again",
    "settled": "all else is settled by then",
    "last": "nothing moves after it",
}


class After(NamedTuple):
    """A step that comes first, and why: a key of `WHY`."""

    step: str
    why: str


@dataclass(frozen=True)
class Step:
    """One step: what to do, with which needles, what wool, how long (minutes, the middle), what to compare before going
    on, which cautions belong to it, what has to be done before it and why, and what waits by itself when it is done.

    `words` say what is particular to it; `method` names the general way, which is said once. `first`: the share of its wool
    that is taken first. `parts`: all parts that are worked in it.
    """

    id: str
    kind: str
    title: str
    words: str
    part: str = ""
    needles: str = ""
    wools: tuple[Wool, ...] = ()
    minutes: float = LEAST_MINUTES
    compare: str = ""
    cautions: tuple[str, ...] = ()
    after: tuple[After, ...] = ()
    wait_hours: float = 0.0
    method: str = ""
    first: float = 1.0
    parts: tuple[str, ...] = ()
    template: int = 0

    @property
    def waits_for(self) -> tuple[str, ...]:
        """The ids of what comes first."""
        return tuple(after.step for after in self.after)

    def first_of(self, form: str) -> float:
        """The share of a wool of that form that is taken first: what is wrapped goes in whole."""
        return 1.0 if form == FILLING else self.first

    @property
    def group(self) -> str:
        return GROUPS[self.kind]


def at_least(minutes: float, count: int = 1) -> float:
    """No piece takes less than two minutes."""
    return max(LEAST_MINUTES * count, minutes)


def minutes_range(minutes: float) -> tuple[float, float]:
    """The 10 and 90 % points of a time whose middle is that."""
    spread = math.exp(Z90 * MINUTES_SIGMA)
    return minutes / spread, minutes * spread
