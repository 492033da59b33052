"""What a stored figure takes besides wool: bought eyes, wire, and what the maker put on it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from wembit.core.craft.armature import cutting_list
from wembit.core.craft.notions import Needed, eyes, fittings, wire
from wembit.web.figures.models import Part, Version

from .wiring import wires


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
