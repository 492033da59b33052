"""`{% empty_place "plan" %}`: a place in dotted outline."""

from __future__ import annotations

from functools import cache
from typing import Any

from django import template
from django.template.loader import render_to_string
from django.utils.safestring import SafeString, mark_safe

from wembit.web.figures.begin.thumbnails import thumbnail
from wembit.web.stash.shelf.wool_forms import drawings
from wembit.web.studio.models import VIEWER

from .first_thing import first_thing

register = template.Library()

FORMS = {
    "tops": 74,
    "batt": 84,
    "core": 104,
    "locks": 64,
    "needle": 60,
}  # what lies on a shelf, in pixels across, about
BODIES = ("standing", "sitting", "perched", "snail", "octopus")


@register.simple_tag(takes_context=True)
def empty_place(context: dict[str, Any], place: str) -> SafeString:
    """The place's dotted picture with the one thing to do first; a viewer has nothing to press."""
    studio, member = context["studio"], context.get("member")
    thing = None if member and member.role == VIEWER else first_thing(studio, place)
    return mark_safe(
        render_to_string("empty/place.html", {"studio": studio, "picture": _picture(place), "thing": thing})
    )


@cache
def _picture(place: str) -> str:
    """The dotted picture of a place, drawn once for a process."""
    forms = [(drawings()[key], across) for key, across in FORMS.items()]
    return render_to_string(f"empty/{place}.html", {"forms": forms, "bodies": [thumbnail(key) for key in BODIES]})
