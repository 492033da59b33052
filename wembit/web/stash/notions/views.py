"""Notions to size: eyes by millimetre, wire by thickness, needles by gauge, section and mark, cutters as their outlines."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods

from wembit.core.craft.armature import COATINGS, METALS
from wembit.core.craft.cutter_shapes import CUTTERS, SECTIONS
from wembit.core.craft.notions import PADS
from wembit.web.responses import again
from wembit.web.stash import queries
from wembit.web.stash.actions.describe_item import describe_item
from wembit.web.stash.models import Item
from wembit.web.studio.models import MAKER

from .forms import NotionForm
from .notion_chart import draw_notion, kinds

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request

SHARP = ("needle", "pin", "cutter")


def notions_context(request: Request, chosen: Item | None = None) -> dict:
    items = queries.notions(request.studio)
    picked = next((item for item in items if chosen and item.pk == chosen.pk), None)
    return {
        "kinds": kinds(items),
        "chosen": picked and draw_notion(picked),
        "lots": queries.bags_of(picked) if picked else [],
        "sections": [(section, section) for section in SECTIONS],
        "metals": [(metal, metal) for metal in METALS],
        "pads": list(PADS.items()),
        "coatings": list(COATINGS.items()),
        "outlines": [(name, [(x * 40, y * 40) for x, y in points]) for name, points in CUTTERS.items()],
        "sharp": picked is not None and picked.notion in SHARP,
    }


@require_GET
def home(request: Request) -> HttpResponse:
    return render(request, "stash/notions/notions.html", notions_context(request))


@require_http_methods(["GET", "POST"])
def notion(request: Request, notion_id: UUID) -> HttpResponse:
    """One notion in the tray: its lots, and what is told of it."""
    notion = queries.notion_of(request.studio, notion_id)
    if request.method == "GET":
        return render(request, "stash/notions/notions.html", notions_context(request, notion))
    request.member.must_be(MAKER)
    form = NotionForm(request, notion)
    _, faults = form.tried(lambda _: describe_item(request.member, notion_id, **form.told()))
    if faults:
        return again(request, "stash/notions/notions.html", notions_context(request, notion), faults)
    messages.success(request, "Kept.")
    return redirect("stash:notion", studio=request.studio.slug, notion_id=notion_id)
