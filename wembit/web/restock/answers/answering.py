"""Answers to a shortage: another wool, a blend, the wool kept for what shows, a parcel; the one with least trouble first."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any

from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import in_words
from wembit.core.colour.matching import nearest
from wembit.core.colour.show_through import DARKER_L, LEAST_G_M2, MOST_G_M2
from wembit.core.colour.thin_layer import laid_under, more_over
from wembit.core.craft.materials import FORMS, LOSS_CARDING
from wembit.core.stock.insides import MORE_COVER, NEVER, inside_trouble
from wembit.core.stock.standing_in import WORTH, Trouble, makings_for
from wembit.web import clock, numbers
from wembit.web.colour.map.nearest_and_blends import Recipe, recipes
from wembit.web.colour.map.target import Target, target_of
from wembit.web.colour.queries import Wool, Wools, blending_forms, blending_habits, wools
from wembit.web.plan.actions.stand_in import makings_left
from wembit.web.plan.figure_needs import InSizes, of_a_making
from wembit.web.plan.instead import Instead
from wembit.web.plan.queries import NeedLine, covers_of, covers_over, short_elsewhere
from wembit.web.restock.queries import TideLine, tide_of
from wembit.web.stash.models import FIBRE, GRAMS, MIXED, Item
from wembit.web.stash.queries import items_of
from wembit.web.stash.swatch import UNTOLD

if TYPE_CHECKING:
    from collections.abc import Callable, Mapping, Sequence
    from decimal import Decimal
    from uuid import UUID

    from wembit.web.plan.models import Need
    from wembit.web.stash.models import Lot
    from wembit.web.studio.models import Studio

CORE = "core"  # a form
LEAST_TOLD_G = 0.05  # of cover that an inside takes more
SHOWN, UNLIKE = 3, 12.0  # beyond that ΔE00 a wool that shows is no answer, unless none is nearer
LOOKED_AT = 40  # the nearest bags among which stand-ins are looked for
MOST_SINGLES = 8
LEAST_SHARE = LEAST_G_M2 / MOST_G_M2  # of the grams of the old wool: no cover takes less in its place
STAND_IN, BLEND, HIDDEN, UNDER_IT, BUY = "stand in", "blend", "hidden", "under", "buy"
WEIGH, WAIT, SEND = "weigh", "wait", "send"  # a bag that nobody weighed, a parcel on its way, a list not sent yet


@dataclass(frozen=True)
class Answer:
    """One way out, with what speaks against it. `need` is that for which the other wool is taken; `free` what is free of it;
    `count` for how many makings.
    """

    kind: str
    trouble: Trouble
    need: NeedLine
    count: int
    grams: float
    words: str
    srgb: str = ""
    name: str = ""
    item_id: str = ""
    free: float = 0.0
    recipe: Recipe | None = None
    tide: TideLine | None = None
    days_late: int = 0
    saves_g: float = 0.0
    lot: Lot | None = None


@dataclass(frozen=True)
class Answers:
    """What can be done for a need; a blend is carded in one batch for `others`, too, unless `only` this one is asked for."""

    target: Target | None
    line: NeedLine
    count: int
    grams: float
    only: bool = False
    others: list[Instead] = field(default_factory=list)
    first: list[Answer] = field(default_factory=list)
    rest: list[Answer] = field(default_factory=list)

    @property
    def srgb(self) -> str:
        """The colour that is missing; grey where nobody told it."""
        return self.target.srgb if self.target else UNTOLD


def answers(studio: Studio, needs: list[NeedLine], count: int | None = None, only: bool = False) -> Answers:
    """All answers for what a project needs of one fibre. `needs`: the need that shows first, and the hidden one."""
    line = next((row for row in needs if row.short), needs[0])
    need, shelf = line.need, wools(studio)
    if not line.left:  # all of it is taken, or another one stands in for it
        return Answers(target_of({"item": str(need.item_id)}, shelf), line, 0, 0.0)
    (here,) = Instead.of_many(studio, [need], _how_many({need.pk: line.short}, count))
    count, grams = here.count, round(float(here.grams), 2)
    others = places_beside(studio, need)
    target = target_of({"item": str(need.item_id)}, shelf)
    rows = [
        *_singles(shelf, line, target, here),
        *_blends(studio, shelf, line, target, [here, *([] if only else others)]),
    ]
    rows += _kept_for_what_shows(shelf, needs, line)
    rows += _laid_under(shelf, line, target, count)
    if not _held_by(line):
        rows.append(_bought(studio, line, count))
    rows += _at_hand(line, count)
    rows.sort(key=lambda row: row.trouble.score)
    first: list[Answer] = []
    for row in rows:  # one of a kind among the first
        if len(first) < SHOWN and row.kind not in {other.kind for other in first}:
            first.append(row)
    return Answers(target, line, count, grams, only, others, first, [row for row in rows if row not in first])


def _how_many(short: Mapping[UUID, Decimal], wanted: int | None = None) -> Callable[[Need, InSizes], int]:
    """For how many makings another wool has to stand in, by how much each need is short."""

    def count(need: Need, figure: InSizes) -> int:
        each, left = float(of_a_making(need, figure)), makings_left(need, figure)
        return makings_for(float(short[need.pk]), each, left, wanted)

    return count


def places_beside(studio: Studio, need: Need) -> list[Instead]:
    """The other projects that are short of the same wool where it is seen, or hidden, as it is here."""
    short = short_elsewhere(studio, need)
    count = _how_many({other.pk: missing for other, missing in short})
    return Instead.of_many(studio, [other for other, _ in short], count) if short else []


def free_by_item(shelf: Wools) -> dict[str, float]:
    """What is free of each wool, by its id, in g."""
    found: dict[str, float] = {}
    for wool in shelf.rows:
        found[wool.item_id] = found.get(wool.item_id, 0.0) + (wool.free or 0.0)
    return found


def _trouble(wool: Wool, need: Need, free: float, grams: float, **more: Any) -> Trouble:
    old = need.item
    return Trouble(
        seen=need.seen,
        other_form=wool.form != old.form,
        other_breed=wool.source != old.source.name,
        other_felting=wool.felting != old.source.felting,
        micron_um=wool.micron_um - old.source.micron_um,
        share_of_free=grams / free if free else 1.0,
        **more,
    )


def _singles(shelf: Wools, line: NeedLine, target: Target | None, here: Instead) -> list[Answer]:
    """Other wools of which enough is free for what the makings take of them; where it shows, of a form that lies like the old
    one.
    """
    need, free, grams = line.need, free_by_item(shelf), float(here.grams)
    if not need.seen:
        return _insides(shelf, line, here)
    lies = FORMS[need.item.form].blends
    rows = [
        n
        for n, wool in enumerate(shelf.rows)
        if wool.item_id != str(need.item_id)
        and free[wool.item_id] >= LEAST_SHARE * grams
        and FORMS[wool.form].blends == lies
        and _is_a_skin(wool, need)
    ]
    some = shelf.only(rows)
    if not rows or target is None:
        return []
    found, seen = list[Answer](), set[str]()
    for each in nearest(target.lab, [wool.lot_id for wool in some.rows], some.labs, LOOKED_AT):
        wool = some.rows[each.index]
        if wool.item_id in seen:
            continue
        seen.add(wool.item_id)
        trouble = _trouble(wool, need, free[wool.item_id], grams, de00=each.de00)
        found.append(
            Answer(
                STAND_IN,
                trouble,
                line,
                here.count,
                grams,
                in_words(each.de00),
                wool.srgb,
                wool.name,
                wool.item_id,
                free[wool.item_id],
            )
        )
    held = _that_hold_enough(found, here)
    return [row for row in held if row is held[0] or row.trouble.de00 <= UNLIKE]


def _is_a_skin(wool: Wool, need: Need) -> bool:
    """Whether a wool can lie where it shows: what does not felt, and core wool, only in place of their like."""
    old = need.item
    return (wool.felting != NEVER or old.source.felting == NEVER) and (wool.form != CORE or old.form == CORE)


def _insides(shelf: Wools, line: NeedLine, here: Instead) -> list[Answer]:
    """Other wools for the inside, whatever their colour: by what they are good for, and by what the covers over them take
    more; dark wool creeps out of a pale skin.
    """
    need, free, count, grams = line.need, free_by_item(shelf), here.count, float(here.grams)
    over = covers_over(need.project, need.item_id)
    found = []
    for wool in {wool.item_id: wool for wool in shelf.rows}.values():
        inside = inside_trouble(wool.form, wool.micron_um, wool.felting)
        if wool.item_id == str(need.item_id) or inside is None or free[wool.item_id] < LEAST_SHARE * grams:
            continue
        more = count * sum(max(0.0, more_over(each.srgb, each.micron_um, each.cover, wool.srgb)) for each in over)
        trouble = Trouble(
            seen=False, inside=inside + MORE_COVER * more, share_of_free=grams / free[wool.item_id], left_short=0.0
        )
        words = "for the inside, where nobody sees it"
        if more >= LEAST_TOLD_G:
            names = " and ".join(sorted({each.name for each in over}))
            words = f"inside; {names} over it takes {' '.join(numbers.grams(more, need.studio))} more"
        if any(lab(each.srgb)[0] - wool.lab[0] > DARKER_L for each in over):
            words += "; dark fibres may creep out"
        found.append(
            Answer(STAND_IN, trouble, line, count, grams, words, wool.srgb, wool.name, wool.item_id, free[wool.item_id])
        )
    found.sort(key=lambda row: (row.trouble.score, -row.free))
    return _that_hold_enough(found, here)


def _that_hold_enough(rows: Sequence[Answer], here: Instead) -> list[Answer]:
    """The first stand-ins of which there is as much free as the makings take of them, with those grams."""
    items = items_of(here.need.studio, [row.item_id for row in rows])
    found: list[Answer] = []
    for row in rows:
        taken = round(here.taken(items[row.item_id], row.srgb).p50, 2)
        if taken <= row.free:
            found.append(replace(row, grams=taken, trouble=replace(row.trouble, share_of_free=taken / row.free)))
        if len(found) == MOST_SINGLES:
            break
    return found


def _blends(
    studio: Studio, shelf: Wools, line: NeedLine, target: Target | None, places: Sequence[Instead]
) -> list[Answer]:
    """Blends in one batch for all the places, this project's first: as much as nine in ten of their makings take of a batt of
    that colour, and what stays in the carders is taken with it.
    """
    if target is None or not line.need.seen or not FORMS[line.need.item.form].blends:
        return []  # nobody cards for an inside
    found, left = [], 1 - studio.habits.get("carding_loss", LOSS_CARDING)
    batt = Item(studio=studio, kind=FIBRE, unit=GRAMS, breed=MIXED, form="batt")

    def weigh(srgb: str) -> float:
        return sum(place.taken(batt, srgb).p90 for place in places) / left

    shelf = shelf.only([n for n, wool in enumerate(shelf.rows) if _is_a_skin(wool, line.need)])
    forms, wanted = blending_forms(studio), weigh(target.srgb)
    for recipe in recipes(target, shelf, forms, wanted, weigh=weigh, **blending_habits(studio)):
        share = max(dose.grams / dose.wool.free for dose in recipe.doses if dose.wool.free)
        trouble = Trouble(de00=recipe.de00, seen=line.need.seen, mottle=recipe.mottle_de00, share_of_free=share)
        grams = round(left * sum(dose.grams for dose in recipe.doses), 2)
        found.append(Answer(BLEND, trouble, line, places[0].count, grams, recipe.words, recipe.srgb, recipe=recipe))
    return found


def _kept_for_what_shows(shelf: Wools, lines: list[NeedLine], short: NeedLine) -> list[Answer]:
    """Where the same wool also lies hidden: another one there, so that this one is left for what shows."""
    hidden = next((line for line in lines if not line.need.seen and line.left and line is not short), None)
    if hidden is None or not short.need.seen:
        return []
    (here,) = Instead.of_many(
        hidden.need.studio, [hidden.need], lambda need, figure: max(1, makings_left(need, figure))
    )
    return [replace(row, kind=HIDDEN) for row in _insides(shelf, hidden, here)[:1]]


def _laid_under(shelf: Wools, line: NeedLine, target: Target | None, count: int) -> list[Answer]:
    """A thin layer of another wool under the cover, where that hides the ground and so saves covering wool: the one that
    saves most.
    """
    need, free = line.need, free_by_item(shelf)
    if target is None or not need.seen:
        return []
    covers = covers_of(need.project, need.item_id)
    rows = []
    some = shelf.only([n for n, w in enumerate(shelf.rows) if w.item_id != str(need.item_id) and FORMS[w.form].blends])
    for each in nearest(target.lab, [wool.lot_id for wool in some.rows], some.labs, SHOWN * 4) if covers else ():
        wool = some.rows[each.index]
        layer = laid_under(covers, (target.srgb, need.item.source.micron_um), (wool.srgb, wool.micron_um))
        saved, taken = layer.saved * count, layer.taken * count
        if layer.remains < 1 - WORTH and taken <= free[wool.item_id]:
            left = max(0.0, 1 - saved / float(line.short)) if line.short else 0.0
            trouble = _trouble(wool, need, free[wool.item_id], taken, mottle=0.0, left_short=left)
            words = f"saves {' '.join(numbers.grams(saved, need.studio))}"
            rows.append(
                Answer(
                    UNDER_IT,
                    trouble,
                    line,
                    count,
                    round(taken, 2),
                    words,
                    wool.srgb,
                    wool.name,
                    wool.item_id,
                    saves_g=saved,
                )
            )
    return sorted(rows, key=lambda row: (-row.saves_g, row.trouble.score))[:1]


def _held_by(line: NeedLine) -> bool:
    """Whether what is on the way and on the lists is enough."""
    return line.coming.on_the_way + line.coming.on_list >= line.short


def _at_hand(line: NeedLine, count: int) -> list[Answer]:
    """What is there already, or nearly: bags that nobody weighed, a parcel on its way, a list that waits to be sent."""
    grams, comes, start = float(line.short), line.coming, line.need.project.start
    rows = [Answer(WEIGH, Trouble(), line, count, grams, "", lot=lot) for lot in line.unweighed]
    if comes.on_the_way and comes.on:
        late = max(0, (comes.on - start).days)
        missing = max(0.0, 1 - float(comes.on_the_way / line.short)) if line.short else 0.0
        trouble = Trouble(days_late=late, left_short=missing)
        words = "in time" if not late else f"{late} day{'s' if late > 1 else ''} late"
        rows.append(Answer(WAIT, trouble, line, count, grams, words))
    if comes.on_list:
        rows.append(Answer(SEND, Trouble(days=1), line, count, grams, ""))
    return rows


def _bought(studio: Studio, line: NeedLine, count: int) -> Answer:
    """A parcel, by when it comes and what it costs."""
    tide, need = tide_of(studio, line.need.item_id), line.need
    if tide.supplier is None:
        return Answer(BUY, Trouble(days=99), line, count, float(line.short), "nobody is known to sell it", tide=tide)
    days = tide.supplier.lead_days
    late = max(0, days - max(0, (need.project.start - clock.today(studio)).days))
    trouble = Trouble(days=days, days_late=late, cost=float(tide.outlook.chosen.cost))
    words = "in time" if not late else f"{late} day{'s' if late > 1 else ''} late"
    return Answer(BUY, trouble, line, count, float(line.short), words, tide=tide, days_late=late)
