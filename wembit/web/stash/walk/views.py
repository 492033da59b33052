"""Keeping the shelf true: the walk from bag to bag with the scale, bags that sleep, dated looks at the wool."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.core.craft.moths import COLD_DAYS
from wembit.core.stock.air import ROOMS, humidity_in, kind_of
from wembit.core.stock.recounting import explained
from wembit.web import clock, numbers
from wembit.web.dates import spoken
from wembit.web.idempotency import press_of
from wembit.web.once import once
from wembit.web.responses import again
from wembit.web.stash.actions.close_drawer import close_drawer, open_drawer
from wembit.web.stash.actions.keep_reminder import keep_reminder
from wembit.web.stash.actions.keep_room import ROOM, keep_room
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.tick_reminder import tick_reminder
from wembit.web.stash.chest.fronts import Front, fronts
from wembit.web.stash.models import FIBRE, GRAMS, Lot
from wembit.web.stash.queries import drawers
from wembit.web.stash.shelf.shelf_chart import draw
from wembit.web.stash.shelf.wool_forms import drawings
from wembit.web.studio.models import MAKER

from . import queries
from .forms import ReminderForm, RoomForm, WeighForm

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

LARGE, LEAST = 45_000.0, 900.0  # px² of the largest bag of the place, to which the others are drawn, and the least


def home_context(request: Request) -> dict:
    return {
        "chest": walk_chest(request.studio),
        "closed": queries.closed(request.studio),
        "asleep": queries.asleep(request.studio),
        "reminders": queries.reminders(request.studio),
        "drawers": drawers(request.studio),
        "rooms": list(ROOMS.items()),
        "room": request.studio.habits.get(ROOM, ""),
    }


def walk_chest(studio: Studio) -> list[Front]:
    """The chest in the order of the walk; a drawer is done when all its bags were weighed again."""
    drawn = {front.drawer_id: front for front in fronts(studio)}
    return [_to_walk(studio, drawn[stop.drawer_id], stop) for stop in queries.places(studio)]


def _to_walk(studio: Studio, front: Front, stop: queries.Stop) -> Front:
    if stop.never:
        told = "not weighed again yet" if stop.never == stop.count else f"{stop.never} not weighed again yet"
    else:
        assert stop.oldest is not None, "all were weighed"
        told = f"since {spoken(stop.oldest.astimezone(clock.zone(studio)).date(), clock.today(studio))}"
    where = (
        ("stash:walk_place", [studio.slug, stop.drawer_id]) if stop.drawer_id else ("stash:walk_nowhere", [studio.slug])
    )
    return replace(front, words=(front.bags, told), href=reverse(where[0], args=where[1]), is_done=not stop.never)


@require_GET
def home(request: Request) -> HttpResponse:
    """Where to walk: the places, that first which was not walked for longest."""
    return render(request, "stash/walk/walk.html", home_context(request))


def place_context(request: Request, drawer_id: UUID | None, lot_id: str) -> dict:
    """The bag in hand, the one before and the one after; after the last one, the end of the walk."""
    bags = queries.bags_in(request.studio, drawer_id)
    if not bags:
        raise Http404
    at = next((n for n, lot in enumerate(bags) if str(lot.pk) == lot_id), 0)
    lot = bags[at]
    return {
        "drawer": lot.drawer,
        "lot": lot,
        "item": lot.item,
        "drawn": draw(lot, LARGE / max(1.0, *(float(bag.on_hand) for bag in bags)), LEAST),
        "number": at + 1,
        "bags": bags,
        "before": bags[at - 1] if at else None,
        "after": bags[at + 1] if at + 1 < len(bags) else None,
        "cold_days": COLD_DAYS,
        "drawings": drawings().values(),
    }


@require_http_methods(["GET", "POST"])
def place(request: Request, drawer_id: UUID | None = None) -> HttpResponse:
    """One bag after another: weigh, Enter, next. Enter alone goes on without weighing."""
    context = place_context(request, drawer_id, request.GET.get("bag", ""))
    if request.method == "GET":
        done = request.GET.get("bag") == "end"
        if done:
            context["left"] = queries.not_weighed_today(request.studio, context["bags"])
        return render(request, "stash/walk/walk_end.html" if done else "stash/walk/walk_place.html", context)
    request.member.must_be(MAKER)
    lot = context["lot"]
    form = WeighForm(request, lot.item)

    def weigh(given: dict[str, Any]) -> None:
        if given["amount"] is not None:
            recount(request.member, lot.pk, given["amount"], press=press_of(request))

    _, faults = form.tried(weigh)
    if faults:
        return again(request, "stash/walk/walk_place.html", context, faults)
    if (amount := form.cleaned_data["amount"]) is not None:
        _say(request, lot, amount)
    after = context["after"].pk if context["after"] else "end"
    where = ("stash:walk_place", [drawer_id]) if drawer_id else ("stash:walk_nowhere", [])
    return redirect(f"{reverse(where[0], args=[request.studio.slug, *where[1]])}?bag={after}")


def _say(request: Request, lot: Lot, found: Decimal) -> None:
    """What was found, and what the difference can mean."""
    amount = " ".join(numbers.amount(found, lot.item.unit, request.studio))
    away = found - lot.on_hand
    if not lot.weighed or not away:
        messages.success(request, f"{lot.item.name}: {amount}.")
        return
    difference = " ".join(numbers.amount(abs(away), lot.item.unit, request.studio))
    why = explained(float(lot.on_hand), float(found), kind=_kind(lot), airs=_airs(request.studio, lot))
    messages.success(request, f"{lot.item.name}: {amount}, {difference} {'more' if away > 0 else 'less'}; {why}.")


def _kind(lot: Lot) -> str | None:
    """What a bag is of, as the air knows it; None for what is counted, measured or no fibre."""
    return kind_of(lot.item.breed) if lot.item.unit == GRAMS and lot.item.kind == FIBRE else None


def _airs(studio: Studio, lot: Lot) -> tuple[float, float] | None:
    """How damp the room was when the bag was weighed last, or laid in, and how it is now; None where nobody told the room."""
    room = studio.habits.get(ROOM)
    if room not in ROOMS:
        return None
    zone = clock.zone(studio)
    first = lot.movements.order_by("entry__happened_at").values_list("entry__happened_at", flat=True).first()
    days = ((lot.recounted_at or first or lot.made_at).astimezone(zone).date(), clock.today(studio))
    then, now = (humidity_in(room, day, studio.timezone) for day in days)
    return then, now


@require_POST
def room(request: Request) -> HttpResponse:
    """Whether the wool lies in a heated room."""
    request.member.must_be(MAKER)
    _, faults = RoomForm(request).tried(lambda given: keep_room(request.member, given["room"]))
    if faults:
        return again(request, "stash/walk/walk.html", home_context(request), faults)
    messages.success(request, "Kept.")
    return redirect("stash:walk", studio=request.studio.slug)


@require_POST
@once
def new_reminder(request: Request) -> HttpResponse:
    request.member.must_be(MAKER)
    _, faults = ReminderForm(request).tried(
        lambda given: keep_reminder(
            request.member,
            given["words"],
            given["due"],
            every_days=given["every_days"] or 0,
            drawer=given["drawer"],
        )
    )
    if faults:
        return again(request, "stash/walk/walk.html", home_context(request), faults)
    messages.success(request, "Kept.")
    return redirect("stash:walk", studio=request.studio.slug)


@require_POST
def tick(request: Request, reminder_id: UUID) -> HttpResponse:
    kept = tick_reminder(request.member, reminder_id)
    messages.success(request, f"Looked at. Next time {kept.due:%-d %B}." if kept else "Looked at.")
    return redirect("stash:walk", studio=request.studio.slug)


@require_POST
def moths(request: Request, drawer_id: UUID) -> HttpResponse:
    """Moths were found: the drawer is closed, and looked through on a day."""
    drawer = close_drawer(request.member, drawer_id)
    messages.success(request, f"Drawer {drawer.name} is closed until {drawer.closed_until:%-d %B}.")
    return redirect("stash:walk", studio=request.studio.slug)


@require_POST
def clear(request: Request, drawer_id: UUID) -> HttpResponse:
    """No moths any more: the drawer is open."""
    drawer = open_drawer(request.member, drawer_id)
    messages.success(request, f"Drawer {drawer.name} is open again. Recount a bag that was thinned out.")
    return redirect("stash:walk", studio=request.studio.slug)
