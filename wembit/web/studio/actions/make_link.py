"""Make a one-use link: to join the studio, or to choose a new password."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.studio.models import OWNER, ROLES, Link, Member, hashed
from wembit.web.studio.queries import member_of

JOIN_DAYS, PASSWORD_DAYS = 14, 2


@transaction.atomic
def make_join_link(member: Member, role: str) -> str:
    """The token of a link by which a person joins in that role. Only its hash is kept. Raises `Refusal`."""
    member.must_be(OWNER)
    if role not in dict(ROLES):
        raise Refusal("Choose what the new member may do.", "role")
    return _made(member, JOIN_DAYS, purpose=Link.JOIN, role=role)


@transaction.atomic
def make_password_link(member: Member, member_id: UUID) -> str:
    """The token of a link by which a member chooses a new password. Raises `Refusal`, `Http404`.

    A person who belongs to another studio, too, is left to that studio's owner or the command line.
    """
    member.must_be(OWNER)
    other = member_of(member.studio, member_id)
    if other.user.memberships.exclude(studio=member.studio).exists():
        raise Refusal(f"{other} belongs to another studio, too. Use ./start --reset-password {other.user.username}.")
    was = other.user.get_session_auth_hash()
    return _made(member, PASSWORD_DAYS, purpose=Link.PASSWORD, for_user=other.user, password_was=was)


@transaction.atomic
def withdraw_link(member: Member, link_id: UUID) -> None:
    """The link lets nobody in any more. Raises `Http404`."""
    member.must_be(OWNER)
    get_object_or_404(Link.objects.of(member.studio), pk=link_id, used_at=None).delete()


def _made(member: Member, days: int, **fields: object) -> str:
    token = Link.new_token()
    Link.objects.create(
        studio=member.studio,
        made_by=member,
        token_hash=hashed(token),
        expires_at=clock.now() + dt.timedelta(days=days),
        **fields,
    )
    return token
