"""The shelf, a lot and what is done with it."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal
from fractions import Fraction
from typing import TYPE_CHECKING
from urllib.parse import urlencode

from django.contrib import messages
from django.core.exceptions import ValidationError
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from wembit.core.colour.colour_words import MANY, ORDER
from wembit.core.portions import rounded
from wembit.web import numbers
from wembit.web.asked import whole_number_in, words_in
from wembit.web.decimals import to_cent
from wembit.web.errors import Refusal
from wembit.web.fields import amount_field
from wembit.web.idempotency import press_of
from wembit.web.responses import again, page, refused, tried
from wembit.web.stash import queries
from wembit.web.stash.actions.describe import describe
from wembit.web.stash.actions.describe_item import describe_item
from wembit.web.stash.actions.discard import discard
from wembit.web.stash.actions.merge import merge
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.put_back import put_back
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.split import split
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.chest.fronts import Front, fronts
from wembit.web.stash.models import GRAMS, Lot, Promise
from wembit.web.uploads import cleaned

from .forms import FORM_CHOICES, AmountForm, DescribeForm, MergeForm, UndoForm
from .shelf_chart import GROUPS, PX2_PER_GRAM, boards, step_chart
from .slice import in_the_tray, slice_off
from .wool_forms import drawings

if TYPE_CHECKING:
    from collections.abc import Callable, Sequence
    from typing import Any
    from uuid import UUID

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

MOST_SHOWN = 80  # bags drawn at once; more come as one scrolls


def filters_of(request: Request) -> queries.ShelfFilters:
    given = request.GET
    return queries.ShelfFilters(
        **{name: words_in(given.get(name, "")) for name in ("words", "breed", "form", "hue", "drawer")},
        free_only=bool(given.get("free")),
    )


def shelf_context(request: Request) -> dict:
    """The shelf with its sieve; the whole shelf's boards are kept until something changes."""
    studio, filters = request.studio, filters_of(request)
    by = request.GET.get("by", "breed")
    by = by if by in GROUPS else "breed"
    start = whole_number_in(request.GET.get("from", "")) or 0
    rest = request.GET.copy()
    rest["from"] = str(start + MOST_SHOWN)
    if start or filters != queries.ShelfFilters():
        drawn, lot_count = drawn_boards(studio, filters, by, start, rest)
    else:
        drawn, lot_count = studio.cached_until_change(
            f"boards:{by}", lambda: drawn_boards(studio, filters, by, start, rest)
        )
    return {
        "filters": filters,
        "any_filter": filters != queries.ShelfFilters(),
        "by": by,
        "groups": GROUPS.items(),
        "boards": drawn,
        "lot_count": lot_count,
        "breeds": queries.breed_choices(studio),
        "forms": FORM_CHOICES,
        "hues": [(word, MANY[word]) for word in ORDER],
        "drawers": [(name, name) for name in queries.drawers(studio)],
        "drawings": drawings().values(),
        "mark": draw_mark(),
    }


def shelf_chest(studio: Studio, chosen: str) -> list[Front]:
    """The chest; a touch on a drawer shows what lies in it, the chosen one is lit."""
    home = reverse("stash:home", args=[studio.slug])
    return [
        replace(
            front,
            words=(front.bags,),
            href=f"{home}?{urlencode({'by': 'drawer', 'drawer': front.name})}" if front.name else "",
            is_lit=bool(chosen) and front.name == chosen,
        )
        for front in fronts(studio)
    ]


def drawn_boards(studio: Studio, filters: Any, by: str, start: int, rest: Any) -> tuple[str, int]:
    """The boards as markup, from the lot at `start` on, and how many lots there are in all."""
    lots, lot_count = queries.shelf(studio, filters, by, start, MOST_SHOWN)
    context = {
        "studio": studio,
        "boards": boards(lots, by),
        "chest": shelf_chest(studio, filters.drawer) if by == "drawer" and not start else [],
        "lot_count": lot_count,
        "any_filter": filters != queries.ShelfFilters(),
        "beyond": max(lot_count - start - MOST_SHOWN, 0),
        "rest": rest.urlencode(),
    }
    return render_to_string("stash/shelf/_boards.html", context), lot_count


def draw_mark() -> float:
    """Side in pixels of the square that stands for 10 g."""
    return round((10 * PX2_PER_GRAM) ** 0.5, 1)


@require_GET
def home(request: Request) -> HttpResponse:
    """The shelf; the boards alone for htmx."""
    context = shelf_context(request)
    return HttpResponse(context["boards"]) if request.htmx else render(request, "stash/shelf/shelf.html", context)


IT_HOLDS = {GRAMS: "It weighs this", "mm": "It measures this"}


def lot_context(request: Request, lot: Lot) -> dict:
    promises = queries.promises_on(lot)
    lot.promised = sum((promise.amount for promise in promises), Decimal(0))
    held, whole = to_cent(lot.on_hand), to_cent(lot.promised)
    lines = queries.history(lot)
    others = queries.other_bags(lot)
    return {
        "lot": lot,
        "item": lot.item,
        "drawn": in_the_tray(lot),
        "promised": whole,
        "free": max(held - whole, Decimal(0)),
        "promises": list(zip(promises, _added_up(promises, whole), strict=True)),
        "lines": lines,
        "chart": step_chart(lines),
        "breeds": queries.breed_choices(request.studio),
        "forms": FORM_CHOICES,
        "others": [(other.pk, f"{other.dye_lot or 'no dye lot'}, {other.drawer or 'no drawer'}") for other in others],
        "strand_mm": _strand_mm(lot),
        "it_holds": IT_HOLDS.get(lot.item.unit, "So many are there"),
    }


def _added_up(promises: Sequence[Promise], whole: Decimal) -> list[Decimal]:
    """Their amounts to the hundredth, so that they add up to the whole as it is shown."""
    shares = [Fraction(promise.amount) for promise in promises]
    together = sum(shares)
    return (
        [to_cent(amount) for amount in rounded(float(whole), [share / together for share in shares])]
        if together
        else []
    )


def _strand_mm(lot: Lot) -> float | None:
    """What is free of a strand, in mm."""
    density = lot.item.grams_a_metre
    return float(max(lot.on_hand - lot.promised, Decimal(0))) / density * 1000 if density else None


@require_GET
def lot(request: Request, lot_id: UUID) -> HttpResponse:
    """A lot in the tray beside the shelf; alone for htmx."""
    lot = queries.lot_of(request.studio, lot_id)
    context = lot_context(request, lot)
    if not request.htmx:
        context |= shelf_context(request)
    return page(request, "stash/shelf/shelf.html", "stash/shelf/_lot.html", context)


@require_GET
def slice_of(request: Request, lot_id: UUID) -> HttpResponse:
    """The bag drawn with so much cut off as stands in the field; whole where that is no amount."""
    lot = queries.lot_of(request.studio, lot_id)
    lot.promised = sum((promise.amount for promise in queries.promises_on(lot)), Decimal(0))
    field = amount_field(request.member, lot.item.unit, lot.item, lot)
    try:
        cut = slice_off(lot, field.clean(request.GET.get("amount", "")))
    except ValidationError:
        cut = None
    return render(request, "stash/shelf/_slice.html", {"lot": lot, "drawn": in_the_tray(lot), "slice": cut})


def lot_again(request: Request, stale: Lot, faults: dict, **more: Any) -> HttpResponse:
    """The lot's tray with its faults; beside the shelf when the page came without htmx."""
    context = {**lot_context(request, queries.lot_of(request.studio, stale.pk)), **more}
    if request.htmx:
        return again(request, "stash/shelf/_lot.html", context, faults)
    return again(request, "stash/shelf/shelf.html", {**context, **shelf_context(request)}, faults)


def lot_done(request: Request, lot_id: UUID, said: str) -> HttpResponse:
    messages.success(request, said)
    return redirect("stash:lot", studio=request.studio.slug, lot_id=lot_id)


def _on_lot(request: Request, lot_id: UUID, do: Callable[[Lot, dict[str, Any]], Any], said: str) -> HttpResponse:
    """Read an amount, do something with the lot, answer with its tray."""
    lot = queries.lot_of(request.studio, lot_id)
    form = AmountForm(request, lot)
    before = queries.promised_to(lot.item_id)
    _, faults = form.tried(lambda given: do(lot, given))
    if faults:
        return lot_again(request, lot, faults, doing=form.cleaned_data.get("doing", ""))
    after = queries.promised_to(lot.item_id)
    for whose in sorted(name for name in before if after.get(name, 0) < before[name]):
        lost = " ".join(numbers.amount(before[whose] - after.get(whose, 0), lot.item.unit, request.studio))
        messages.warning(request, f"{lost} that were promised to {whose} are no longer there.")
    return lot_done(request, lot.pk, said)


@require_POST
def take(request: Request, lot_id: UUID) -> HttpResponse:
    def do(lot: Lot, given: dict[str, Any]) -> Any:
        broken = queries.promises_broken_by(lot, given["amount"])
        if broken and not given["anyway"]:
            names = " and ".join(sorted({promise.whose for promise in broken}))
            raise Refusal(
                f"That is promised to {names}. Take less, or press Take again to take it all the same.", "anyway"
            )
        return pull(request.member, lot.pk, given["amount"], press=press_of(request))

    return _on_lot(request, lot_id, do, "Taken.")


@require_POST
def give_back(request: Request, lot_id: UUID) -> HttpResponse:
    def do(lot: Lot, given: dict[str, Any]) -> Any:
        return put_back(request.member, lot.pk, given["amount"], press=press_of(request))

    return _on_lot(request, lot_id, do, "Put back.")


@require_POST
def weigh(request: Request, lot_id: UUID) -> HttpResponse:
    def do(lot: Lot, given: dict[str, Any]) -> Any:
        return recount(request.member, lot.pk, given["amount"], press=press_of(request))

    return _on_lot(request, lot_id, do, "The book is true again.")


@require_POST
def split_lot(request: Request, lot_id: UUID) -> HttpResponse:
    def do(lot: Lot, given: dict[str, Any]) -> Any:
        return split(request.member, lot.pk, given["amount"], press=press_of(request))

    return _on_lot(request, lot_id, do, "Two bags now.")


@require_POST
def throw_away(request: Request, lot_id: UUID) -> HttpResponse:
    def do(lot: Lot, given: dict[str, Any]) -> Any:
        return discard(request.member, lot.pk, given["amount"], press=press_of(request), why=given["why"])

    return _on_lot(request, lot_id, do, "Thrown away.")


@require_POST
def merge_lot(request: Request, lot_id: UUID) -> HttpResponse:
    lot = queries.lot_of(request.studio, lot_id)
    form = MergeForm(request)
    _, faults = form.tried(lambda given: merge(request.member, lot.pk, given["into"], press=press_of(request)))
    if faults:
        return lot_again(request, lot, faults, doing="merge")
    return lot_done(request, form.cleaned_data["into"], "One bag now.")


@require_POST
def take_back(request: Request, entry_id: UUID) -> HttpResponse:
    """Take back one line of a lot's ledger."""
    form = UndoForm(request)
    _, faults = tried(lambda: undo(request.member, press=press_of(request), entry_id=entry_id))
    if faults:
        refused(request, faults)
    else:
        messages.success(request, "Taken back.")
    if not form.is_valid():
        raise Http404
    lot = queries.lot_of(request.studio, form.cleaned_data["lot"])
    return redirect("stash:lot", studio=request.studio.slug, lot_id=lot.pk)


@require_POST
def describe_lot(request: Request, lot_id: UUID) -> HttpResponse:
    """What the bag is: colour, dye lot, drawer, picture; and its item: name, breed, form, least amount, grams a metre."""
    lot = queries.lot_of(request.studio, lot_id)
    form = DescribeForm(request, lot.item)

    def do(given: dict[str, Any]) -> None:
        photo = cleaned(request.FILES.get("photo"), request.studio)
        describe(request.member, lot.pk, **form.bag(), photo=photo)
        describe_item(request.member, lot.item_id, **form.told())

    _, faults = form.tried(do)
    if faults:
        return lot_again(request, lot, faults, doing="describe")
    return lot_done(request, lot.pk, "Kept.")
