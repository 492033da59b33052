"""The strip of places, each with one live line, so that the navigation is the state of the studio."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.urls import reverse

from wembit.web.bench.queries import makings_in_hand
from wembit.web.figures.queries import figure_count
from wembit.web.plan.queries import plan_line
from wembit.web.restock.queries import to_order
from wembit.web.stash.queries import shelf_line

from . import clock, numbers
from .dates import spoken

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.studio.models import Studio


PART_OF = {"what_if": "plan", "costs": "restock"}  # what has addresses of its own within a place


@dataclass(frozen=True)
class Place:
    """A place of the strip with its key and its live line."""

    key: int
    name: str
    url: str
    line: str
    here: bool


def frame(request: Request) -> dict:
    """What every page's frame shows (a context processor)."""
    studio = getattr(request, "studio", None)
    if studio is None:
        return {"studio": None, "member": None}
    if request.htmx:
        return {"studio": studio, "member": request.member, "today": clock.today(studio)}
    rows = places(request, studio)
    here = next((place for place in rows if place.here), None)
    return {
        "studio": studio,
        "member": request.member,
        "members_here": request.members_here,
        "places": rows,
        "here": here.name if here else "Today",
        "live_now": here.line if here else rows[-1].line,
        "today": clock.today(studio),
    }


def places(request: Request, studio: Studio) -> list[Place]:
    """The places in the order of the work, with their live lines."""
    app = request.resolver_match.namespace if request.resolver_match else ""
    rows = studio.cached_until_change(f"strip:{clock.today(studio)}", lambda: live_lines(studio))
    return [
        Place(key, name, reverse(f"{place}:home", args=[studio.slug]), line, place in (app, PART_OF.get(app)))
        for key, (place, name, line) in enumerate(rows, 1)
    ]


def live_lines(studio: Studio) -> list[tuple[str, str, str]]:
    """Each place with its name and its live line."""
    return [
        ("figures", "Figures", many(figure_count(studio), "design")),
        ("plan", "Plan", _plan(studio)),
        ("stash", "Stash", _stash(studio)),
        ("colour", "Colour", "the map"),
        ("bench", "Bench", f"{makings_in_hand(studio)} in hand"),
        ("restock", "Restock", _restock(studio)),
    ]


def many(count: int, one: str) -> str:
    """A count with its word: 1 design, 3 designs."""
    return f"{count} {one}" if count == 1 else f"{count} {one}s"


def _plan(studio: Studio) -> str:
    open_, late = plan_line(studio, clock.today(studio))
    return f"{many(open_, 'project')}, {late} late" if late else many(open_, "project")


def _stash(studio: Studio) -> str:
    held, lots, unweighed = shelf_line(studio)
    weighed = " weighed" if unweighed else ""
    return f"{numbers.NARROW.join(numbers.grams(held, studio))}{weighed}, {many(lots, 'lot')}"


def _restock(studio: Studio) -> str:
    wanted = to_order(studio)
    said = []
    if wanted.by:
        said.append(f"order {wanted.count} by {spoken(wanted.by, clock.today(studio))}")
    if wanted.lists:
        said.append("a list to send" if wanted.lists == 1 else f"{wanted.lists} lists to send")
    if wanted.to_weigh and not said:
        said.append(f"weigh {wanted.to_weigh} first")
    if wanted.unsold and not said:
        said.append(f"nobody sells {wanted.unsold} yet")
    return ", ".join(said) or "nothing to order"
