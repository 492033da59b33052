"""The complete list of a figure: wools, notions and tools, held against what is in the house."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import TYPE_CHECKING

from wembit.core.colour.conversions import lab
from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.notions import Needed, OnShelf, in_unit, nearest, small_parts, tools, wisps_g
from wembit.core.stock.serving import alike
from wembit.web.figures.models import Part, Version
from wembit.web.figures.order_of_work.order import school_of
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, Sum, sums
from wembit.web.figures.to_core.things import Thing, things_of
from wembit.web.stash.models import NOTION, ZERO
from wembit.web.stash.queries import items, on_shelf

if TYPE_CHECKING:
    from uuid import UUID

OTHER_SIZE_MM = 0.05  # a size so far off is told


@dataclass(frozen=True)
class ListRow:
    """A notion or a tool, the one on the shelf that comes nearest, and whether there is enough of it."""

    needed: Needed
    found: OnShelf | None
    enough: bool
    another_size: bool
    fitting_id: str = ""


@dataclass(frozen=True)
class WoolRow:
    """What is needed of a wool, what of it is free (None where none is chosen), how many of its bags nobody has weighed, and
    whether what is known of it is enough.
    """

    need: Sum
    free: Decimal | None
    unweighed: int
    enough: bool


def _wools(needs: Iterable[Sum], free: Mapping[UUID, Decimal], unweighed: Mapping[UUID, int]) -> list[WoolRow]:
    """Each need beside its wool; what is seen and what is hidden of one wool come out of the same bags."""
    rest = {item: float(grams) for item, grams in free.items()}
    rows = []
    for need in needs:
        if need.item is None:
            rows.append(WoolRow(need, None, 0, False))
            continue
        pk = need.item.pk
        rows.append(WoolRow(need, free[pk], unweighed[pk], rest[pk] >= need.grams.p50))
        rest[pk] -= need.grams.p50
    return rows


def needed_notions(version: Version, parts: Sequence[Part], palette: Palette) -> list[Thing]:
    """Everything besides wool, tools too."""
    things = things_of(version, parts)
    roles = {layer.role for part in parts for layer in part.layers.all()}
    glued = any(part.seat.get("bead_mm") for part in parts) or school_of(version).get("attach") in ("glue", "bored")
    lights = [lab(colour)[0] for colour in palette.colours.values()]
    return [*things, *(Thing(tool) for tool in tools("detail" in roles, "coat" in roles, lights, glued))]


def rows_of(needed: Sequence[tuple[Thing, int]], house: Sequence[OnShelf]) -> list[ListRow]:
    """Each need of so many figures beside what is free in the house; what several of them take of one bag is counted
    together. Tools are needed once.
    """
    free = {offer.id: offer.free for offer in house}
    rows = []
    for thing, count in needed:
        need = thing.needed
        rest = [replace(offer, free=free[offer.id]) for offer in alike(need, house)]
        match = nearest(need, rest, _told_alike(need, rest)) if need.notion else None
        enough = not need.notion
        if match:
            amount = in_unit(need, match.unit, 1 if need.back else count)
            enough = amount <= match.free
            free[match.id] -= amount
            match = replace(match, free=next(offer.free for offer in house if offer.id == match.id))
        other = bool(match and need.size_mm and match.size_mm and abs(match.size_mm - need.size_mm) > OTHER_SIZE_MM)
        shown = need if need.back else replace(need, amount=need.amount * count)
        rows.append(ListRow(shown, match, enough, other, thing.fitting_id))
    return rows


def _told_alike(need: Needed, offers: Sequence[OnShelf]) -> set[str]:
    """Pads that are named after what they are for."""
    lights = [word for word in ("pale", "dark") if word in need.words]
    return {offer.id for offer in offers if need.notion == "pad" and any(word in offer.name for word in lights)}


@dataclass(frozen=True)
class Batch:
    """So many figures of one size: their parts and plan."""

    parts: Sequence[Part]
    plan: FigurePlan
    count: int


def _together(batches: Sequence[Batch]) -> list[Sum]:
    """The wools of all batches, largest first."""
    found: dict[tuple[UUID | str, bool], Sum] = {}
    for batch in batches:
        for need in sums(batch.plan, batch.count):
            key = (need.item.pk if need.item else need.slot_name, need.seen)
            before = found.get(key)
            found[key] = before.and_as_much_as(need) if before else need
    return sorted(found.values(), key=lambda need: -need.grams.p50)


def listing(
    version: Version, batches: Sequence[Batch], palette: Palette, mine: Mapping[UUID, Decimal] | None = None
) -> dict:
    """What the page of the list shows for batches of figures; `mine`: by item, what of it is promised to them already."""
    studio, figure = version.studio, version.figure
    needed: dict[Thing, int] = {}  # what is the same in several sizes stands there once; tools come back
    for batch in batches:
        for thing in needed_notions(version, batch.parts, palette):
            if not thing.needed.back:
                needed[thing] = needed.get(thing, 0) + batch.count
            elif batch is batches[0]:
                needed[thing] = 1
    stock = items(studio)
    free = {item.pk: item.free + (mine or {}).get(item.pk, ZERO) for item in stock}
    rows = rows_of(list(needed.items()), [on_shelf(item, free[item.pk]) for item in stock if item.kind == NOTION])
    wools = _wools(_together(batches), free, {item.pk: item.unweighed for item in stock})
    whom = figure.origin.get("whom", "")
    risky = small_parts([row.needed for row in rows]) if whom else []
    return {
        "wools": wools,
        "things": [row for row in rows if not row.needed.back],
        "tools": [row for row in rows if row.needed.back],
        "wisps_g": sum(
            batch.count * wisps_g(version.fittings, {part.key: part.count for part in batch.parts}) for batch in batches
        ),
        "risky": risky,
        "cautions": _cautions([row.needed for row in rows], risky, whom),
        "missing": [row for row in rows if not row.enough] + [wool for wool in wools if not wool.enough],
    }


def _cautions(needed: Sequence[Needed], risky: list[Needed], whom: str) -> list[str]:
    keys = list(dict.fromkeys(need.caution for need in needed if need.caution in ("glue", "clay", "hang")))
    if risky:
        keys.insert(0, "small parts")
    if whom == "prop":
        keys.insert(0, "prop")
    return [CAUTIONS[key] for key in keys]
