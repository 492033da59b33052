"""Use a one-use link."""

from __future__ import annotations

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.studio.models import Link, Member, User
from wembit.web.studio.queries import holds

WEAK = "Choose a password of at least 8 characters that is not one of the common ones."  # as settings.py asks


@transaction.atomic
def follow_link(link: Link, *, username: str = "", name: str = "", password: str, user: User | None = None) -> User:
    """Join the studio (as `user`, who is signed in, or as a new person), or keep the new password. Raises `Refusal`."""
    unused = Link.objects.filter(pk=link.pk, used_at=None).locked().first()
    if unused is None:
        raise Refusal("This link was used already. Ask for a new one.")
    link = unused
    if link.purpose == Link.PASSWORD and link.for_user_id:
        user = User.objects.select_for_update().get(pk=link.for_user_id)
        if not holds(link, user):
            raise Refusal("This link holds no longer. Ask for a new one.")
        keep_password(user, password)
    else:
        user = user or new_user(username, name, password)
        Member.objects.get_or_create(studio=link.studio, user=user, defaults={"role": link.role})
    link.used_at = clock.now()
    link.save(update_fields=["used_at"])
    return user


def new_user(username: str, name: str, password: str) -> User:
    """A person who can sign in. Raises `Refusal` for a name that is taken or a weak password."""
    username = username.strip().lower()
    if not username or not username.replace("-", "").replace("_", "").replace(".", "").isalnum():
        raise Refusal("Choose a name to sign in with: letters and digits.", "username")
    if User.objects.filter(username__iexact=username).exists():
        raise Refusal("That name is taken. Choose another one, or sign in first and open the link again.", "username")
    user = User(username=username[:150], first_name=" ".join(name.split())[:150])
    keep_password(user, password)
    return user


def keep_password(user: User, password: str) -> None:
    """Set and store a password. Raises `Refusal` for a weak one."""
    try:
        validate_password(password, user)
    except ValidationError:
        raise Refusal(WEAK, "password") from None
    user.set_password(password)
    user.save()
