"""Give a member a secret address for the studio's days, and take it back."""

from __future__ import annotations

from django.db import transaction

from wembit.web import clock
from wembit.web.restock.models import Feed
from wembit.web.studio.models import Link, Member, hashed


@transaction.atomic
def make_feed(member: Member) -> str:
    """The token of a new address; an older one leads nowhere any more."""
    token = Link.new_token()
    Feed.objects.filter(member=member).delete()
    Feed.objects.create(studio=member.studio, member=member, token_hash=hashed(token), made_at=clock.now())
    return token


@transaction.atomic
def drop_feed(member: Member) -> None:
    """No address leads to the member's days any more."""
    Feed.objects.filter(member=member).delete()
