"""Change what a member may do, or let her go."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.db.models import ProtectedError

from wembit.web.errors import Refusal
from wembit.web.studio.models import OWNER, ROLES, Member
from wembit.web.studio.queries import member_of


@transaction.atomic
def change_role(member: Member, member_id: UUID, role: str) -> Member:
    """Keep the role; a studio keeps one owner at least. Raises `Refusal`, `Http404`."""
    member.must_be(OWNER)
    other = member_of(member.studio, member_id)
    if role not in dict(ROLES):
        raise Refusal("Choose what the member may do.", "role")
    if role != OWNER:
        _another_owner(other)
    other.role = role
    other.save(update_fields=["role"])
    return other


@transaction.atomic
def remove_member(member: Member, member_id: UUID, *, sure: bool) -> None:
    """The person no longer belongs to the studio. Raises `Refusal` unless the owner is sure, or when the ledger names her;
    `Http404`.
    """
    member.must_be(OWNER)
    other = member_of(member.studio, member_id)
    _another_owner(other)
    if not sure:
        raise Refusal(f"Letting {other} go cannot be taken back. Press again to do it.", "sure")
    try:
        with transaction.atomic():
            other.delete()
    except ProtectedError:
        raise Refusal(f"{other} stands in the ledger and stays there. Make {other} a viewer instead.") from None


def _another_owner(member: Member) -> None:
    others = Member.objects.of(member.studio).filter(role=OWNER).exclude(pk=member.pk)
    if member.role == OWNER and not others.exists():
        raise Refusal("A studio needs an owner. Make somebody else an owner first.", "role")
