"""What the shelf shows."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING, Any, NamedTuple
from uuid import UUID

from django.db.models import Case, Count, Exists, F, Min, OuterRef, Q, Subquery, Sum, Value, When
from django.db.models.functions import Coalesce, TruncMonth
from django.http import Http404
from django.shortcuts import get_object_or_404

from wembit.core.colour.colour_words import ORDER
from wembit.core.craft.armature import Make
from wembit.core.craft.materials import BREEDS, FORMS
from wembit.core.craft.notions import OnShelf
from wembit.web import clock
from wembit.web.asked import id_in
from wembit.web.stash.models import LotQuerySet

from .models import (
    BLENDED_OUT,
    FIBRE,
    GRAMS,
    NOTION,
    OPENING,
    PULLED,
    RECEIVED,
    RETURNED,
    ZERO,
    Drawer,
    Entry,
    Item,
    Lot,
    Movement,
    OwnBreed,
    Promise,
    StashFile,
    fibre_words,
    standing,
)
from .swatch import LOOK

if TYPE_CHECKING:
    from wembit.web.studio.models import Member, Studio

UNKNOWN = "unknown"  # the table's breed of a bag whose label is lost, or that is of the studio's own
USED = (PULLED, RETURNED, BLENDED_OUT)


def lot_of(studio: Studio, lot_id: UUID) -> Lot:
    """This studio's lot with its item and drawer. Raises `Http404`."""
    lot = Lot.objects.of(studio).filter(pk=lot_id, waste=False).select_related("item__own_breed", "drawer").first()
    if lot is None:
        raise Http404
    return lot


def item_of_lot(studio: Studio, lot_id: UUID) -> UUID:
    """The item of this studio's lot. Raises `Http404`."""
    item = Lot.objects.of(studio).filter(pk=lot_id, waste=False).values_list("item", flat=True).first()
    if item is None:
        raise Http404
    return item


def with_promised(lots: LotQuerySet) -> LotQuerySet:
    """The lots with `promised`: the grams of each that are promised, never more than it holds."""
    sums = Promise.objects.filter(lot=OuterRef("pk")).values("lot").annotate(total=Sum("amount")).values("total")
    return lots.annotate(promised=Coalesce(Subquery(sums), ZERO))


@dataclass(frozen=True)
class ShelfFilters:
    """What the shelf is sieved by."""

    words: str = ""
    breed: str = ""
    form: str = ""
    hue: str = ""
    drawer: str = ""
    free_only: bool = False


def _at(field: str, values: Iterable[str]) -> Case:
    """The place of a field's value in a list of values, those not listed last."""
    places = [When(**{field: value}, then=Value(place)) for place, value in enumerate(values)]
    return Case(*places, default=Value(len(places)))


OWN_FIRST = F("item__own_breed__name").asc(nulls_first=True)
ORDERS: dict[str, list[Any]] = {
    "breed": [
        "item__kind",
        "item__breed",
        OWN_FIRST,
        _at("item__form", FORMS),
        "item__notion",
        "item__name",
        "-on_hand",
        "pk",
    ],
    "form": [
        "item__kind",
        _at("item__form", FORMS),
        "item__notion",
        "item__breed",
        OWN_FIRST,
        "item__name",
        "-on_hand",
        "pk",
    ],
    "hue": ["item__kind", _at("hue", ORDER), F("lab_l").asc(nulls_last=True), "pk"],
    "drawer": [F("drawer__name").asc(nulls_last=True), "item__kind", "item__breed", "item__name", "-on_hand", "pk"],
}


def shelf(studio: Studio, filters: ShelfFilters, by: str, start: int, most: int) -> tuple[list[Lot], int]:
    """`most` lots from `start` on in the order of `by`, as the shelf draws them, and how many there are. Two queries."""
    filtered = _on_shelf(studio, filters)
    lots = with_promised(filtered).select_related("item__own_breed", "drawer").order_by(*ORDERS[by])
    return list(lots[start : start + most]), filtered.count()


def fibre_lots(studio: Studio) -> list[Lot]:
    """All lots of fibres on the shelf, with `promised`. One query."""
    return list(
        with_promised(Lot.objects.of(studio).on_shelf().filter(item__kind=FIBRE)).select_related(
            "item__own_breed", "drawer"
        )
    )


def _on_shelf(studio: Studio, filters: ShelfFilters) -> LotQuerySet:
    lots = Lot.objects.of(studio).on_shelf()
    exact = {"item__form": filters.form, "hue": filters.hue}
    lots = lots.filter(**{key: value for key, value in exact.items() if value})
    if filters.breed in BREEDS:
        lots = lots.filter(item__breed=filters.breed, item__own_breed=None)
    elif filters.breed:
        lots = lots.filter(
            item__own_breed__in=[breed.pk for breed in own_breeds(studio) if str(breed.pk) == filters.breed]
        )
    if filters.drawer:
        lots = lots.filter(drawer__name=filters.drawer)
    if filters.free_only:
        lots = with_promised(lots).filter(on_hand__gt=F("promised"))
    for word in filters.words.split():
        lots = lots.filter(
            Q(item__name__icontains=word)
            | Q(item__breed__icontains=word, item__own_breed=None)
            | Q(item__own_breed__name__icontains=word)
            | Q(item__form__icontains=word)
            | Q(item__notion__icontains=word)
            | Q(item__told__icontains=word)
            | Q(dye_lot__icontains=word)
            | Q(drawer__name__iexact=word)
        )
    return lots


def shelf_line(studio: Studio) -> tuple[Decimal, int, int]:
    """Grams and number of lots on the shelf, and how many of wool nobody has weighed."""
    wool = Q(item__unit=GRAMS)
    lot = Lot.objects.of(studio).on_shelf().aggregate(
        grams=Sum("on_hand", filter=wool), lots=Count("pk"), unweighed=Count("pk", filter=wool & Q(weighed=False))
    )  # fmt: skip
    return lot["grams"] or ZERO, lot["lots"], lot["unweighed"]


def drawers(studio: Studio) -> list[str]:
    """The names of the drawers."""
    return list(Drawer.objects.of(studio).values_list("name", flat=True))


def items_of(studio: Studio, ids: Iterable[str]) -> dict[str, Item]:
    """This studio's items of those ids, each by its id as text."""
    return {str(item.pk): item for item in Item.objects.of(studio).filter(pk__in=set(ids)).select_related("own_breed")}


def items(studio: Studio) -> list[Item]:
    """All items with `on_hand`, `free` and the newest lot's colour, by name."""
    return with_stock(Item.objects.of(studio).select_related("own_breed").order_by("kind", "name", "size_mm", "pk"))


def with_stock(fibres: Iterable[Item]) -> list[Item]:
    """Items with `on_hand`, `unweighed`, `promised`, `free` and `srgb` of the newest lot that has a colour. Four queries."""
    return with_colour(with_free(fibres))


def with_free(fibres: Iterable[Item]) -> list[Item]:
    """Items with `on_hand`, `unweighed`, `promised` and `free`. Three queries."""
    rows = with_held(fibres)
    promises = Promise.objects.filter(lot__item__in=[item.pk for item in rows]).order_by()
    promised = dict(promises.values_list("lot__item").annotate(total=Sum("amount")))
    for item in rows:
        item.promised = promised.get(item.pk, ZERO)
        item.free = max(item.on_hand - item.promised, ZERO)
    return rows


def with_held(fibres: Iterable[Item]) -> list[Item]:
    """Items with `on_hand` and `unweighed`. Two queries."""
    rows = list(fibres)
    held = _held(Lot.objects.filter(item__in=[item.pk for item in rows]))
    for item in rows:
        item.on_hand, item.unweighed = held.get(item.pk, (ZERO, 0))
    return rows


def with_colour(fibres: Iterable[Item]) -> list[Item]:
    """Items with `srgb` of the newest lot that has a colour."""
    rows = list(fibres)
    lots = Lot.objects.filter(item__in=[item.pk for item in rows], waste=False).exclude(srgb="")
    seen = dict(lots.order_by("item", "-made_at").distinct("item").values_list("item", "srgb"))
    for item in rows:
        item.srgb = seen.get(item.pk, "")
    return rows


UNWEIGHED = Count("pk", filter=Q(weighed=False))  # of lots


def _held(lots: LotQuerySet) -> dict[UUID, tuple[Decimal, int]]:
    """By item what its lots hold, and how many of them nobody has weighed."""
    sums = lots.filter(waste=False).order_by().values_list("item").annotate(total=Sum("on_hand"), unknown=UNWEIGHED)
    return {item: (grams, unweighed) for item, grams, unweighed in sums}


class FibreFree(NamedTuple):
    """A fibre to choose: its id, name, breed and form in words, the grams of it that are free, and how many bags of it nobody
    has weighed.
    """

    pk: UUID
    name: str
    what: str
    free: Decimal
    unweighed: int


def fibres_free(studio: Studio) -> list[FibreFree]:
    """The studio's fibres by name, as small as a list to choose from needs them. Three queries."""
    held = _held(Lot.objects.of(studio).filter(item__kind=FIBRE))
    promises = Promise.objects.of(studio).filter(lot__item__kind=FIBRE).order_by()
    promised = dict(promises.values_list("lot__item").annotate(total=Sum("amount")))
    rows = Item.objects.of(studio).filter(kind=FIBRE).order_by("name", "size_mm", "pk")
    fibres = []
    for pk, name, breed, own, form in rows.values_list("pk", "name", "breed", "own_breed__name", "form"):
        there, unweighed = held.get(pk, (ZERO, 0))
        free = max(there - promised.get(pk, ZERO), ZERO)
        fibres.append(FibreFree(pk, name, fibre_words(own or BREEDS[breed].name, form), free, unweighed))
    return fibres


def low_items(studio: Studio) -> list[Item]:
    """Items whose free amount is below their own minimum."""
    kept = with_stock(Item.objects.of(studio).filter(minimum__gt=0))
    return [item for item in kept if item.free < item.minimum]


def colours(studio: Studio, item_ids: Iterable[UUID]) -> dict[UUID, str]:
    """The colour seen of each item's newest lot that has one."""
    lots = Lot.objects.of(studio).filter(item__in=list(item_ids)).exclude(srgb="").order_by("made_at")
    return dict(lots.values_list("item_id", "srgb"))


def names_of(item_ids: Iterable[UUID]) -> dict[UUID, str]:
    """The name of each item."""
    return dict(Item.objects.filter(pk__in=list(item_ids)).values_list("pk", "name"))


def has_bags(studio: Studio) -> bool:
    """Whether the studio ever had a bag."""
    return Lot.objects.of(studio).exists()


def lots_on_shelf(studio: Studio) -> list[Lot]:
    """Everything on the shelf with its item and drawer, by kind and name."""
    lots = Lot.objects.of(studio).on_shelf().select_related("item", "drawer")
    return list(lots.order_by("item__kind", "item__name", "made_at", "pk"))


def touched_last(studio: Studio, most: int) -> list[Lot]:
    """The lots that something came to or left last, the newest first."""
    last = Movement.objects.filter(lot=OuterRef("pk")).order_by("-entry__recorded_at").values("entry__recorded_at")[:1]
    lots = Lot.objects.of(studio).filter(waste=False).annotate(touched=Subquery(last)).filter(touched__isnull=False)
    return list(lots.select_related("item").order_by("-touched", "pk")[:most])


def newest_look(item: Item) -> dict:
    """Colour and drawer of the item's newest lot, as fields of a new one."""
    lot = item.lots.filter(waste=False).order_by("-made_at").select_related("drawer").first()
    if lot is None:
        return {}
    return {name: getattr(lot, name) for name in (*LOOK, "drawer")}


@dataclass(frozen=True)
class LedgerLine:
    """A line as a maker reads it: what was done, how much, what was left after it; `unknown` of a bag that came unweighed."""

    entry: Entry
    kind: str
    amount: Decimal
    left: Decimal
    taken_back: bool
    unknown: bool


def history(lot: Lot) -> list[LedgerLine]:
    """The lot's ledger, newest first."""
    movements = (
        Movement.objects.filter(lot=lot)
        .select_related("entry__by__user", "entry__reverses")
        .annotate(undone=Count("entry__reversed_by"))
        .order_by("entry__recorded_at", "pk")
    )
    lines, left = [], ZERO
    for movement in movements:
        left += movement.amount
        unknown = movement.kind in (OPENING, RECEIVED) and not movement.amount
        lines.append(LedgerLine(movement.entry, movement.kind, movement.amount, left, bool(movement.undone), unknown))
    return lines[::-1]


def other_bags(lot: Lot) -> list[Lot]:
    """The other bags of the same item on the shelf, with their drawers."""
    lots = Lot.objects.of(lot.studio).on_shelf().filter(item=lot.item_id).exclude(pk=lot.pk)
    return list(lots.select_related("drawer"))


def promises_on(lot: Lot) -> list[Promise]:
    """What is promised of a lot, the earliest due first."""
    return list(lot.promises.all())


def last_entry(member: Member) -> Entry | None:
    """This member's last entry of today that can be taken back."""
    midnight = clock.at(member.studio, clock.today(member.studio), 0)
    mine = Entry.objects.of(member.studio).filter(standing(), by=member, recorded_at__gte=midnight, reverses=None)
    return mine.order_by("-recorded_at").first()


def promised_to(item_id: UUID) -> dict[str, Decimal]:
    """How much of an item is promised to whom."""
    rows = Promise.objects.filter(lot__item=item_id).order_by().values_list("whose").annotate(total=Sum("amount"))
    return dict(rows)


def promises_broken_by(lot: Lot, amount: Decimal, need: UUID | None = None) -> list[Promise]:
    """The promises that could not be kept if `amount` left the lot for `need` (or for nothing planned), the last in turn
    first.
    """
    others = [promise for promise in lot.promises.order_by("-priority", "-due", "pk") if promise.need != need]
    beyond = amount - (lot.on_hand - sum((promise.amount for promise in others), ZERO))
    broken = []
    for promise in others:
        if beyond <= 0:
            break
        broken.append(promise)
        beyond -= promise.amount
    return broken if amount <= lot.on_hand else []


def last_laid_in(studio: Studio) -> list[Lot]:
    """The last few bags of the stocktake, newest first."""
    laid = Movement.objects.filter(standing("entry"), kind=OPENING, lot=OuterRef("pk"), entry__reverses=None)
    lots = Lot.objects.of(studio).filter(Exists(laid)).select_related("item__own_breed", "drawer")
    return list(lots.order_by("-made_at")[:6])


def goods(studio: Studio) -> list[tuple[UUID, str]]:
    """What can come in a parcel, by what it is called: all items but those of which every bag was taken back when it had just
    been laid in.
    """
    lines = Movement.objects.of(studio).filter(standing("entry"), entry__reverses=None)
    stands = lines.filter(lot__studio=studio, lot__item=OuterRef("pk"))
    bags = Lot.objects.of(studio).filter(item=OuterRef("pk"))
    known = Item.objects.of(studio).filter(~Exists(bags) | Exists(stands)).select_related("own_breed")
    return [(item.pk, f"{item.name}, {item.what}") for item in known.order_by("kind", "name", "size_mm", "pk")]


def item_names(studio: Studio) -> list[str]:
    """The names of all items."""
    return list(Item.objects.of(studio).order_by("name").values_list("name", flat=True).distinct())


def item_named(studio: Studio, text: str) -> Item | None:
    """This studio's item of that id; None for any other text."""
    named = id_in(text)
    return Item.objects.of(studio).filter(pk=named).first() if named else None


def lot_named(studio: Studio, text: str) -> Lot | None:
    """This studio's bag of that id; None for any other text."""
    named = id_in(text)
    return Lot.objects.of(studio).filter(pk=named).first() if named else None


def item_chosen(studio: Studio, text: str) -> Item | None:
    """This studio's item of that id, as a form chose it; None for a text that is no id. Raises `Http404` for another's."""
    chosen = id_in(text)
    return get_object_or_404(Item.objects.of(studio), pk=chosen) if chosen else None


def bags_of(item: Item) -> list[Lot]:
    """The bags of an item on the shelf, with `promised`."""
    return list(
        with_promised(Lot.objects.on_shelf().filter(item=item))
        .select_related("item__own_breed", "drawer")
        .order_by("made_at")
    )


def used_by_month(item: Item, today: dt.date, months: int = 12) -> list[tuple[dt.date, Decimal]]:
    """What was taken of an item in each of the last months, less what was put back; each month by its first day."""
    taken = Movement.objects.filter(standing("entry"), lot__item=item, kind__in=USED, entry__reverses=None)
    rows = taken.annotate(month=TruncMonth("entry__happened_at")).values("month").annotate(total=Sum("amount"))
    by_month = {row["month"].date(): -row["total"] for row in rows.order_by()}
    firsts, first = [], today.replace(day=1)
    for _ in range(months):
        firsts.append(first)
        first = (first - dt.timedelta(days=1)).replace(day=1)
    return [(other, max(by_month.get(other, ZERO), ZERO)) for other in reversed(firsts)]


def notions(studio: Studio) -> list[Item]:
    """All notions with their stock, kind by kind, small ones first."""
    rows = Item.objects.of(studio).filter(kind=NOTION).order_by("notion", F("size_mm").asc(nulls_last=True), "name")
    return with_stock(rows)


def files_lately(studio: Studio) -> list[StashFile]:
    """The tables that came in last."""
    return list(StashFile.objects.of(studio).select_related("by__user")[:8])


def file_of(studio: Studio, file_id: UUID) -> StashFile:
    """This studio's file. Raises `Http404`."""
    return get_object_or_404(StashFile.objects.of(studio), pk=file_id)


def fibre_of(studio: Studio, item_id: UUID) -> Item:
    """This studio's fibre with its own breed. Raises `Http404`."""
    return get_object_or_404(Item.objects.of(studio).filter(kind=FIBRE).select_related("own_breed"), pk=item_id)


def first_entry_at(studio: Studio) -> dt.datetime | None:
    """When the ledger began; None while it is empty."""
    began: dt.datetime | None = Entry.objects.of(studio).aggregate(first=Min("recorded_at"))["first"]
    return began


def promised_of(lot_ids: Iterable[UUID]) -> dict[UUID, Decimal]:
    """What of each lot is promised to anyone."""
    rows = Promise.objects.filter(lot__in=list(lot_ids)).order_by().values_list("lot").annotate(total=Sum("amount"))
    return dict(rows)


def unweighed_lots(studio: Studio, item_ids: Iterable[UUID]) -> dict[UUID, list[Lot]]:
    """The bags of these items that nobody has weighed, by item: what is in them is not known."""
    lots: dict[UUID, list[Lot]] = {}
    for lot in (
        Lot.objects.of(studio).filter(item__in=list(item_ids), weighed=False, waste=False).select_related("drawer")
    ):
        lots.setdefault(lot.item_id, []).append(lot)
    return lots


def opened_lots(lot_ids: Iterable[UUID]) -> set[UUID]:
    """The bags that something was taken from."""
    taken = Movement.objects.filter(standing("entry"), lot__in=list(lot_ids), kind__in=(PULLED, BLENDED_OUT))
    return set(taken.filter(entry__reverses=None).values_list("lot", flat=True))


def on_shelf(item: Item, free: Decimal) -> OnShelf:
    """A notion as the core holds a need against it, with what of it is free."""
    size = float(item.size_mm) if item.size_mm else None
    make = Make(item.told.get("metal", ""), item.told.get("coating", ""))
    return OnShelf(str(item.pk), item.notion, item.name, size, float(free), item.unit, item.srgb, make, item.unweighed)


def notion_of(studio: Studio, item_id: UUID) -> Item:
    """This studio's notion. Raises `Http404`."""
    return get_object_or_404(Item.objects.of(studio).filter(kind=NOTION), pk=item_id)


def own_breeds(studio: Studio) -> list[OwnBreed]:
    """The breeds that the studio has added."""
    return list(OwnBreed.objects.of(studio))


def breed_choices(studio: Studio) -> list[tuple[str, str]]:
    """The breeds to choose from: the studio's own, then those of the table."""
    own = [(str(other.pk), other.name) for other in own_breeds(studio)]
    return own + [(key, breed.name) for key, breed in BREEDS.items()]


def breed_fields(chosen: str) -> dict:
    """The fields of an item for one of `breed_choices`."""
    own = chosen not in BREEDS
    return {"breed": UNKNOWN if own else chosen, "own_breed_id": UUID(chosen) if own else None}


def own_breed(studio: Studio, breed_id: UUID) -> OwnBreed:
    """This studio's breed. Raises `Http404`."""
    return get_object_or_404(OwnBreed.objects.of(studio), pk=breed_id)
