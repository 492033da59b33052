"""What can come in a parcel: the studio's own fibres and notions."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.html import format_html_join

from wembit.web.stash.queries import items_known

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.studio.models import Studio


def goods(studio: Studio) -> list[tuple[UUID, str]]:
    """Each item with what it is called."""
    return [(item.pk, f"{item.name}, {item.what}") for item in items_known(studio)]


def goods_options(studio: Studio) -> str:
    """The same as options of a list, kept until something changes."""
    made = '<option value="{}">{}</option>'
    return studio.cached_until_change("goods", lambda: format_html_join("", made, goods(studio)))
