"""The fibres that a slot can be given."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.template.loader import render_to_string

from wembit.web.stash.models import FIBRE
from wembit.web.stash.queries import items

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def fibre_options(studio: Studio) -> str:
    """The list of fibres to choose from, each with what is free of it; the same for every slot."""
    return studio.cached_until_change("fibre-options", lambda: _rendered(studio))


def _rendered(studio: Studio) -> str:
    fibres = [item for item in items(studio) if item.kind == FIBRE]
    return render_to_string("figures/drawing/_fibre_options.html", {"fibres": fibres, "studio": studio})
