"""The fibres that a slot can be given."""

from __future__ import annotations

from django.template.loader import render_to_string

from wembit.web.stash.models import FIBRE
from wembit.web.stash.queries import items


def fibre_options(studio) -> str:
    """The list of fibres to choose from, each with what is free of it; the same for every slot."""
    return studio.cached_until_change("fibre-options", lambda: _rendered(studio))


def _rendered(studio) -> str:
    fibres = [each for each in items(studio) if each.kind == FIBRE]
    return render_to_string("figures/drawing/_fibre_options.html", {"fibres": fibres, "studio": studio})
