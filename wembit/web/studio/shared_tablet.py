"""Two makers share one tablet: both have signed in on it once, one has it in hand."""

from __future__ import annotations

from django.http import HttpRequest
from django.utils.crypto import constant_time_compare

from wembit.web import clock

from .actions.note_hands import note_hands
from .models import Member, User

HANDS, IN_HAND = "hands", "in_hand"
SINCE, WITH = "since", "with"  # when each hand signed in, and with which browser


def keep_hand(request: HttpRequest, user: User) -> None:
    """Remember that this person has signed in on this device, and give her the tablet."""
    hands = request.session.get(HANDS, {})
    hands[str(user.pk)] = user.get_session_auth_hash()
    request.session[HANDS] = hands
    request.session[IN_HAND] = str(user.pk)
    request.session[SINCE] = request.session.get(SINCE, {}) | {str(user.pk): clock.now().isoformat()}
    request.session[WITH] = request.headers.get("User-Agent", "")[:300]
    if request.session.session_key is None:
        request.session.create()
    note_hands(request.session.session_key or "", user, hands)  # signing in gave it a new key: all hands are noted anew


def members_here(request: HttpRequest, slug: str) -> list[Member]:
    """The members of the studio, with it, who have signed in on this device and whose password is still the same."""
    hands = dict(request.session.get(HANDS, {}))
    hands.setdefault(str(request.user.pk), request.user.get_session_auth_hash())  # type: ignore[union-attr] # signed in
    members = Member.objects.filter(studio__slug=slug, user__in=hands, user__is_active=True).select_related(
        "user", "studio"
    )
    return [
        member
        for member in members.order_by("user__first_name", "user__username")
        if constant_time_compare(hands[str(member.user_id)], member.user.get_session_auth_hash())
    ]


def member_in_hand(request: HttpRequest, slug: str) -> Member | None:
    """The member who acts: the one with the tablet in hand when she belongs to this studio, else who signed in. None where
    there is no such studio, or it is not theirs.
    """
    here = members_here(request, slug)
    request.members_here = here  # type: ignore[attr-defined] # read as Request afterwards
    wanted = request.session.get(IN_HAND, str(request.user.pk))
    hand = next((member for member in here if str(member.user_id) == wanted), None)
    return hand or next((member for member in here if member.user_id == request.user.pk), None)
