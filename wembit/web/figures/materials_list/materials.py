"""The complete list of a figure: wools, notions and tools, held against what is in the house."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.core.colour.conversions import lab
from wembit.core.craft.armature import cutting_list
from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.notions import Needed, OnShelf, eyes, fittings, nearest, small_parts, tools, wire, wisps_g
from wembit.web.figures.models import Part, Version
from wembit.web.figures.order_of_work.order import school_of
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, sums
from wembit.web.figures.to_core.wiring import wires
from wembit.web.stash.models import NOTION
from wembit.web.stash.queries import items

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class ListRow:
    """A notion or a tool, the one on the shelf that comes nearest, and whether there is enough of it."""

    needed: Needed
    found: OnShelf | None
    enough: bool
    another_size: bool
    fitting_id: str = ""


def needed_notions(version: Version, parts: Sequence[Part], palette: Palette) -> list[tuple[Needed, str]]:
    """Everything besides wool, and the id of the fitting where it is one that can be taken off."""
    counts = {part.key: part.count for part in parts}
    names = {part.key: part.name for part in parts}
    beads = [(part.name, part.count, part.seat["bead_mm"]) for part in parts if part.seat.get("bead_mm")]
    found = [(each, "") for each in [*eyes(beads, version.scale), *wire(cutting_list(wires(parts, version.scale)))]]
    for kept in version.fittings:
        lines = fittings([kept], counts, version.scale)
        found += [(each, kept["id"] if n == 0 else "") for n, each in enumerate(lines)]
    roles = {layer.role for part in parts for layer in part.layers.all()}
    glued = bool(beads) or school_of(version).get("attach") in ("glue", "bored")
    lights = [lab(colour)[0] for colour in palette.colours.values()]
    found += [(each, "") for each in tools("detail" in roles, "coat" in roles, lights, glued)]
    return [(_named(each, names), key) for each, key in found]


def _named(needed: Needed, names: dict[str, str]) -> Needed:
    return Needed(**{**needed.__dict__, "what_for": names.get(needed.what_for, needed.what_for)})


def rows_of(studio: Studio, needed: Sequence[tuple[Needed, str]]) -> list[ListRow]:
    """Each need beside the house; what several of them take of one bag is counted together."""
    shelf = [
        OnShelf(
            str(item.pk),
            item.notion,
            item.name,
            float(item.size_mm) if item.size_mm else None,
            float(item.free),
            item.unit,
        )
        for item in items(studio)
        if item.kind == NOTION
    ]
    taken: dict[str, float] = {}
    rows = []
    for each, key in needed:
        found = nearest(each, shelf) if each.notion else None
        enough = True
        if each.notion and found:
            taken[found.id] = taken.get(found.id, 0.0) + each.amount
            enough = taken[found.id] <= found.free
        elif each.notion:
            enough = False
        other = bool(found and each.size_mm and found.size_mm and abs(found.size_mm - each.size_mm) > 0.05)
        rows.append(ListRow(each, found, enough, other, key))
    return rows


def _on_shelf(item: Item) -> OnShelf:
    size = float(item.size_mm) if item.size_mm else None
    return OnShelf(str(item.pk), item.notion, item.name, size, float(item.free), item.unit)


def listing(version: Version, parts: Sequence[Part], plan: FigurePlan, palette: Palette) -> dict:
    """What the page of the list shows."""
    studio, figure = version.studio, version.figure
    needed = needed_notions(version, parts, palette)
    rows = rows_of(studio, needed)
    free = {item.pk: item.free for item in items(studio)}
    wools = [
        (
            each,
            free.get(each.item.pk) if each.item else None,
            bool(each.item and float(free[each.item.pk]) >= each.grams.p50),
        )
        for each in sums(plan)
    ]
    whom = figure.origin.get("whom", "")
    risky = small_parts([each for each, _ in needed]) if whom else []
    return {
        "wools": wools,
        "things": [row for row in rows if not row.needed.back],
        "tools": [row for row in rows if row.needed.back],
        "wisps_g": wisps_g(version.fittings, {part.key: part.count for part in parts}),
        "risky": risky,
        "cautions": _cautions(needed, risky, whom),
        "missing": [row for row in rows if not row.enough] + [each for each, _, enough in wools if not enough],
    }


def _cautions(needed: Any, risky: list[Needed], whom: str) -> list[str]:
    keys = list(dict.fromkeys(each.caution for each, _ in needed if each.caution in ("glue", "clay", "hang")))
    if risky:
        keys.insert(0, "small parts")
    if whom == "prop":
        keys.insert(0, "prop")
    return [CAUTIONS[key] for key in keys]
