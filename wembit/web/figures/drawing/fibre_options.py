"""The fibres that a slot can be given."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.html import format_html_join

from wembit.web import numbers
from wembit.web.stash.queries import fibres_free

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def fibre_options(studio: Studio) -> str:
    """The list of fibres to choose from, each with what is free of it; the same for every slot."""
    return studio.cached_until_change("fibre-options", lambda: _options(studio))


def _options(studio: Studio) -> str:
    rows = (
        (fibre.pk, fibre.name, fibre.what, numbers.held(fibre.free, numbers.GRAMS, fibre.unweighed, studio, "free"))
        for fibre in fibres_free(studio)
    )
    return format_html_join("", '<option value="{}">{}, {} ({})</option>', rows)
