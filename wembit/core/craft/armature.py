"""Wire and pipe cleaner inside parts: the pieces to cut, what they take up, and what they take of the wool."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

BARE_MM = 13.0  # a bare end kept for a join, about; common practice
WIRE, PIPE_CLEANER = "wire", "pipe_cleaner"
METALS = ("aluminium", "copper", "iron", "brass", "steel")  # soft before stiff; common practice
COATINGS = {"bare": "bare", "paper": "paper-covered", "cotton": "cotton-covered", "plastic": "plastic-covered",
            "lacquer": "lacquered"}  # fmt: skip


@dataclass(frozen=True)
class Make:
    """What a wire is made of and covered with (a key of `COATINGS`); empty where nobody said."""

    metal: str = ""
    coating: str = ""

    @property
    def words(self) -> str:
        return " ".join(word for word in (COATINGS.get(self.coating, ""), self.metal) if word)

    def is_told_in(self, other: Make) -> bool:
        """Whether the other is known to be all that this one says."""
        return self.metal in ("", other.metal) and self.coating in ("", other.coating)

    def may_be(self, other: Make) -> bool:
        """Whether nothing that both say differs."""
        pairs = (self.metal, other.metal), (self.coating, other.coating)
        return all(wanted == there or not (wanted and there) for wanted, there in pairs)


ANY_MAKE = Make()


@dataclass(frozen=True)
class Wire:
    """The wire of one part's pieces. `length_mm`: inside a piece; `bare_mm`: bare ends kept for joining, together;
    `loop_mm`: the end bent back; `doubled`: laid twice, as a toe is; `through_mm`: one wire for both of a pair, so long
    between them; `back_mm`: wrapped back over what is bent; `twist`: the share that
    twisting takes more; `former`: pulled out again, so that it takes no room; `sizes`: of a row whose pieces differ, the
    size of each as a share of the first.
    """

    part: str
    count: int
    length_mm: float
    gauge_mm: float
    bare_mm: float = BARE_MM
    loop_mm: float = 0.0
    doubled: bool = False
    through_mm: float | None = None
    back_mm: float = 0.0
    twist: float = 0.0
    former: bool = False
    kind: str = WIRE
    make: Make = ANY_MAKE
    sizes: tuple[float, ...] = ()

    @property
    def in_pairs(self) -> bool:
        return self.through_mm is not None and self.count >= 2

    @property
    def pieces(self) -> int:
        """How many are cut."""
        return math.ceil(self.count / 2) if self.in_pairs else self.count

    @property
    def cuts(self) -> list[tuple[int, float]]:
        """How many of which length in mm, long before short."""
        each = [self._one(size) for size in self.sizes or (1.0,) * self.count]
        if self.in_pairs and self.through_mm is not None:
            each += each[-1:] * (len(each) % 2)
            each = [one + other + self.through_mm for one, other in zip(each[::2], each[1::2], strict=True)]
        counted = Counter(round(mm, 1) if self.sizes else mm for mm in each)
        return [(count, mm) for mm, count in sorted(counted.items(), reverse=True)]

    def _one(self, size: float) -> float:
        """What one piece of that size takes, by itself."""
        inside = size * self.length_mm * (2 if self.doubled else 1) * (1 + self.twist)
        return inside + self.bare_mm + self.loop_mm + self.back_mm

    @property
    def total_mm(self) -> float:
        return sum(count * mm for count, mm in self.cuts)

    @property
    def room_mm3(self) -> float:
        """The volume that stays inside one piece of the part."""
        if self.former:
            return 0.0
        return math.pi / 4 * self.gauge_mm**2 * self.length_mm * (2 if self.doubled else 1) * (1 + self.twist)


@dataclass(frozen=True)
class Cut:
    """One line of a cutting list."""

    kind: str
    gauge_mm: float
    part: str
    pieces: int
    cut_mm: float
    former: bool
    make: Make = ANY_MAKE


def cutting_list(wires: Iterable[Wire]) -> list[Cut]:
    """What to cut, thick before thin, long before short."""
    cuts = [Cut(w.kind, w.gauge_mm, w.part, count, mm, w.former, w.make) for w in wires for count, mm in w.cuts]
    return sorted(cuts, key=lambda cut: (cut.kind, -cut.gauge_mm, -cut.cut_mm, cut.part))


def lengths(cuts: Iterable[Cut]) -> dict[tuple[str, float, Make], float]:
    """Millimetres in all, by kind, gauge and make."""
    found: dict[tuple[str, float, Make], float] = {}
    for cut in cuts:
        key = cut.kind, cut.gauge_mm, cut.make
        found[key] = found.get(key, 0.0) + cut.pieces * cut.cut_mm
    return found
