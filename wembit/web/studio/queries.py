"""Studios and their members."""

from __future__ import annotations

from uuid import UUID

from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from django.utils.crypto import constant_time_compare

from wembit.web import clock

from .models import VIEWER, Link, Member, Studio, User, hashed


def any_studio() -> bool:
    """Whether there is a studio at all."""
    return Studio.objects.exists()


def studios_of(user: User) -> list[Studio]:
    """The studios that a person belongs to."""
    return list(Studio.objects.filter(memberships__user=user).order_by("name"))


def is_alone(studio: Studio) -> bool:
    """Whether no other studio is in the house."""
    return not Studio.objects.exclude(pk=studio.pk).exists()


def members(studio: Studio) -> list[Member]:
    """The studio's members by name."""
    return list(_by_name(Member.objects.of(studio)))


def _by_name(rows: QuerySet[Member]) -> QuerySet[Member]:
    return rows.select_related("user").order_by("user__first_name", "user__username")


def makers(studio: Studio) -> QuerySet[Member]:
    """The members who make figures, by name, with their hours: all but those who look on."""
    return _by_name(Member.objects.of(studio).exclude(role=VIEWER)).select_related("user", "bench_hours")


def maker_of(studio: Studio, member_id: UUID) -> Member:
    """This studio's member who makes figures. Raises `Http404`."""
    those = Member.objects.of(studio).exclude(role=VIEWER)
    return get_object_or_404(those.select_related("user", "studio"), pk=member_id)


def member_of(studio: Studio, member_id: UUID) -> Member:
    """This studio's member. Raises `Http404`."""
    return get_object_or_404(Member.objects.of(studio).select_related("user", "studio"), pk=member_id)


def open_links(studio: Studio) -> list[Link]:
    """The studio's links that still let somebody in, the one that ends first first."""
    links = Link.objects.of(studio).filter(used_at=None, expires_at__gt=clock.now())
    return list(links.select_related("for_user", "made_by__user").order_by("expires_at"))


def open_link(token: str) -> Link | None:
    """The link of that token, while it can be used."""
    links = Link.objects.filter(token_hash=hashed(token), used_at=None, expires_at__gt=clock.now())
    link = links.select_related("studio", "for_user").first()
    if link is None or link.purpose == Link.JOIN:
        return link
    return link if link.for_user and holds(link, link.for_user) else None


def holds(link: Link, user: User) -> bool:
    """Whether a password link is still good: she is a member of its studio and of no other, and has the same password."""
    studios = set(Member.objects.filter(user=user).values_list("studio", flat=True))
    return studios == {link.studio_id} and constant_time_compare(link.password_was, user.get_session_auth_hash())
