"""What a figure takes besides wool: eyes, wire, fittings and tools, with the wisp and the thread that each fitting brings."""

from __future__ import annotations

import math
import re
from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import dataclass

from .armature import ANY_MAKE, Cut, Make, lengths

PIECES, MILLIMETRES = "pc", "mm"
SMALL_PARTS = ("eyes", "brooch_back", "bell", "bead")  # what a small child or an animal can swallow
PALE_L, DARK_L = 75.0, 35.0  # dark fibres creep into pale wool by way of the pad
PADS = {"pale": "pale wools", "dark": "dark wools"}
CLEANER_MM = 300.0  # a pipe cleaner as it is sold; from memory
GAUGE_AWAY = 0.35  # a wire or an eye so much thicker or thinner, as a share, is another one


@dataclass(frozen=True)
class Fitting:
    """Something fitted to a finished figure; wisp in g and thread in mm for each. Common practice."""

    words: str
    unit: str
    wisp_g: float = 0.0
    thread_mm: float = 0.0
    caution: str = ""


FITTINGS = {
    "brooch_back": Fitting("brooch back", PIECES, 0.3, 300, "wire"),
    "loop": Fitting("hanging loop", MILLIMETRES, 0.1, 200, "hang"),
    "perch": Fitting("perch", PIECES, 0.1, 150),
    "thread": Fitting("thread", MILLIMETRES),
    "clay": Fitting("polymer clay", PIECES, caution="clay"),
    "bell": Fitting("bell", PIECES, 0.1, 100, "small parts"),
    "bead": Fitting("bead", PIECES, 0.02, 60, "small parts"),
    "pin": Fitting("pin", PIECES, caution="count"),
}


@dataclass(frozen=True)
class Needed:
    """One line of the list: `notion` and its size, how much of it, for what; `back`: a tool, which comes back."""

    notion: str
    words: str
    size_mm: float | None
    amount: float
    unit: str
    what_for: str
    back: bool = False
    caution: str = ""
    srgb: str = ""  # of an eye that is no black one
    make: Make = ANY_MAKE  # of a wire


@dataclass(frozen=True)
class OnShelf:
    """A notion that lies in the house; of so many bags of it nobody knows how much they hold."""

    id: str
    notion: str
    name: str
    size_mm: float | None
    free: float
    unit: str
    srgb: str = ""
    make: Make = ANY_MAKE
    unweighed: int = 0


def pad_for(light: float) -> str:
    """Which pad a wool of that lightness (L*) is worked on: "pale", "dark", or "" for either."""
    return "pale" if light >= PALE_L else "dark" if light <= DARK_L else ""


def in_unit(needed: Needed, unit: str, times: int = 1) -> float:
    """What so many figures need together, in the unit that the shelf keeps: lengths of what is counted become whole pieces."""
    amount = needed.amount * times
    if needed.unit == MILLIMETRES and unit == PIECES:
        return float(math.ceil(round(amount / CLEANER_MM, 6)))
    return amount


def eyes(beads: Iterable[tuple[str, int, float] | tuple[str, int, float, str]]) -> list[Needed]:
    """Bought eyes by part, count, diameter in mm and, where it was told, their colour."""
    return [
        Needed("eyes", "eyes", mm, count, PIECES, part, caution="small parts", srgb="".join(srgb))
        for part, count, mm, *srgb in beads
    ]


def wire(cuts: Sequence[Cut]) -> list[Needed]:
    """Wire and pipe cleaner by gauge and make; a former comes back."""
    found = []
    for back in (False, True):
        mine = [cut for cut in cuts if cut.former is back]
        for (kind, gauge, make), mm in lengths(mine).items():
            parts = ", ".join(cut.part for cut in mine if (cut.kind, cut.gauge_mm, cut.make) == (kind, gauge, make))
            words = f"{make.words} {kind.replace('_', ' ')}".strip()
            found.append(Needed(kind, words, gauge, mm, MILLIMETRES, parts, back, "wire", make=make))
    return found


def fittings(kept: Iterable[Mapping], counts: Mapping[str, int]) -> list[Needed]:
    """Fittings that the maker put on the figure: so many a piece of the part they belong to."""
    found = []
    for each in kept:
        fitting = FITTINGS[each["notion"]]
        times = counts.get(each.get("part", ""), 1)
        amount = each["amount"] * times
        size = each.get("size_mm")
        what = each.get("words") or fitting.words
        found.append(
            Needed(each["notion"], what, size, amount, fitting.unit, each.get("part", ""), caution=fitting.caution)
        )
        if fitting.thread_mm:
            found.append(Needed("thread", "thread", None, fitting.thread_mm * each["amount"] * times
                                if fitting.unit == PIECES else fitting.thread_mm, MILLIMETRES, what))  # fmt: skip
    return found


def wisps_g(kept: Iterable[Mapping], counts: Mapping[str, int]) -> float:
    """Wool that hides the fittings, in g."""
    return sum(
        FITTINGS[each["notion"]].wisp_g
        * (each["amount"] if FITTINGS[each["notion"]].unit == PIECES else 1)
        * counts.get(each.get("part", ""), 1)
        for each in kept
    )


def of_make(needed: Needed, shelf: Iterable[OnShelf]) -> list[OnShelf]:
    """The offers that are known to be of the metal and the covering that is needed, else those of which nobody said."""
    may = [offer for offer in shelf if needed.make.may_be(offer.make)]
    return [offer for offer in may if needed.make.is_told_in(offer.make)] or may


def nearest(needed: Needed, shelf: Iterable[OnShelf], kept: Container[str] = ()) -> OnShelf | None:
    """The notion of the shelf that is nearest in size; of several one of `kept` (ids), then the one with most of it; None
    where none is near.
    """
    same = [offer for offer in shelf if offer.notion == needed.notion]
    if needed.notion == "needle":  # gauges are no sizes: the mark on the box names them
        gauges = set(re.findall(r"\d\d", needed.words))
        same = [offer for offer in same if gauges & set(re.findall(r"\d\d", offer.name))]
    if needed.size_mm is None:
        return max(same, key=lambda offer: (offer.id in kept, offer.free), default=None)

    wanted = needed.size_mm

    def away(offer: OnShelf) -> float:
        return abs((offer.size_mm or wanted) - wanted) / wanted

    near = [offer for offer in same if away(offer) <= GAUGE_AWAY]
    return min(near, key=lambda offer: (round(away(offer), 3), offer.id not in kept, -offer.free), default=None)


def tools(details: bool, coats: bool, paints_l: Sequence[float], glued: bool) -> list[Needed]:
    """Needles with a spare each, pads by the lightness of the wools (L*), glue and scissors where a step asks for them."""
    found = [
        Needed("needle", "needles 36–38, one of them spare", None, 2, PIECES, "bulk", True, "count"),
        Needed("needle", "needles 40, one of them spare", None, 2, PIECES, "skins and finish", True, "count"),
    ]
    if details:
        found.append(Needed("needle", "needles 42, one of them spare", None, 2, PIECES, "details", True, "count"))
    pale, dark = any(light >= PALE_L for light in paints_l), any(light <= DARK_L for light in paints_l)
    for words in ("pad for pale", "pad for dark") if pale and dark else ("pad",):
        found.append(Needed("pad", words, None, 1, PIECES, "to work on", True))
    if glued:
        found.append(Needed("glue", "glue, and an awl", None, 1, PIECES, "eyes and joins", True, "glue"))
    if coats:
        found.append(Needed("", "sharp scissors", None, 1, PIECES, "the coat", True, "scissors"))
    return found


def small_parts(needed: Iterable[Needed]) -> list[Needed]:
    """What must not be on a figure for a small child, an animal or beside a baby."""
    return [need for need in needed if need.notion in SMALL_PARTS]


def shanks_meet(shank_mm: float, apart_mm: float) -> bool:
    """Whether the shanks of two eyes, set so far apart, meet inside the head."""
    return 2 * shank_mm >= apart_mm
