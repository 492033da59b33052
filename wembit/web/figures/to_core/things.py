"""What a stored figure takes besides wool: bought eyes, wire, and what the maker put on it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from wembit.core.colour.conversions import GREY, lab, sector
from wembit.core.colour.difference import delta_e_2000
from wembit.core.craft.armature import cutting_list
from wembit.core.craft.notions import DARK_L, Needed, OnShelf, eyes, fittings, of_make, wire
from wembit.web.figures.models import Part, Version

from .wiring import wires

OTHER_COLOUR = 15.0  # ΔE00 from which an eye is of another colour; common practice


@dataclass(frozen=True)
class Thing:
    """One thing of a figure, and the id of the fitting where it is one that can be taken off again."""

    needed: Needed
    fitting_id: str = ""


def things_of(version: Version, parts: Sequence[Part]) -> list[Thing]:
    """Everything besides wool that stays on or in one figure; a wire that is pulled out again is a tool and comes too."""
    counts = {part.key: part.count for part in parts}
    names = {part.key: part.name for part in parts}
    beads = [
        (part.name, part.count, part.seat["bead_mm"], part.seat.get("bead_srgb", ""))
        for part in parts
        if part.seat.get("bead_mm")
    ]
    things = [Thing(needed) for needed in [*eyes(beads), *wire(cutting_list(wires(parts)))]]
    for kept in version.fittings:
        lines = fittings([kept], counts)
        things += [Thing(needed, kept["id"] if n == 0 else "") for n, needed in enumerate(lines)]
    return [
        replace(thing, needed=replace(thing.needed, what_for=names.get(thing.needed.what_for, thing.needed.what_for)))
        for thing in things
    ]


def alike(needed: Needed, offers: Iterable[OnShelf]) -> list[OnShelf]:
    """The offers whose colour and make are what is needed, else those of which nobody knows it; any where none is told."""
    offers = of_make(needed, offers)
    if not needed.srgb:
        return offers
    wanted = lab(needed.srgb)
    of_it = [offer for offer in offers if offer.srgb and delta_e_2000(wanted, lab(offer.srgb)) <= OTHER_COLOUR]
    return of_it or [offer for offer in offers if not offer.srgb]


def called(needed: Needed) -> str:
    """What a need is called where nobody has it: amber eyes are yellow eyes."""
    if not needed.srgb:
        return needed.words
    colour = lab(needed.srgb)
    word = sector(colour[1], colour[2])
    return f"{'black' if word == GREY and colour[0] < DARK_L else word} {needed.words}"
