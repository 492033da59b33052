"""A request under a studio's address, as the middleware has made it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.http import HttpRequest

if TYPE_CHECKING:
    from django_htmx.middleware import HtmxDetails

    from wembit.web.studio.models import Member, Studio, User


class Request(HttpRequest):
    """`studio` and `member` are set for every view under `/s/<studio>/`; a view that has saved nothing says so."""

    user: User
    studio: Studio
    member: Member
    members_here: list[Member]
    htmx: HtmxDetails
    saved_nothing: bool
