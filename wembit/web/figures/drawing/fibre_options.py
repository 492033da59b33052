"""The fibres that a slot can be given."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.template.loader import render_to_string

from wembit.web.stash.models import FIBRE, Item
from wembit.web.stash.queries import with_free

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def fibre_options(studio: Studio) -> str:
    """The list of fibres to choose from, each with what is free of it; the same for every slot."""
    return studio.cached_until_change("fibre-options", lambda: _rendered(studio))


def _rendered(studio: Studio) -> str:
    fibres = with_free(Item.objects.of(studio).filter(kind=FIBRE).select_related("own_breed").order_by("name", "pk"))
    return render_to_string("figures/drawing/_fibre_options.html", {"fibres": fibres, "studio": studio})
