"""What can come in a parcel, as the options of a list."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.html import format_html_join

from wembit.web.stash.queries import goods

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def goods_options(studio: Studio) -> str:
    """Kept until something changes."""
    made = '<option value="{}">{}</option>'
    return studio.cached_until_change("goods", lambda: format_html_join("", made, goods(studio)))
