"""Users, studios, who belongs to which, and the links that let a person in."""

from __future__ import annotations

import hashlib
import secrets
import uuid
from collections.abc import Callable
from functools import cache
from typing import Any, TypeVar
from zoneinfo import available_timezones

from django.contrib.auth.models import AbstractUser
from django.core.exceptions import PermissionDenied, ValidationError
from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.db.models import F
from django.utils.crypto import salted_hmac
from django.utils.functional import cached_property

from wembit.web.caches import is_trying, until_pressed
from wembit.web.tenancy import Owned

T = TypeVar("T")
OWNER, MAKER, VIEWER = "owner", "maker", "viewer"
ROLES = [(OWNER, "owner"), (MAKER, "maker"), (VIEWER, "viewer")]
RANK = {VIEWER: 0, MAKER: 1, OWNER: 2}
REASONS = {
    MAKER: "You look on in this studio. Ask an owner to make you a maker, then you can change this.",
    OWNER: "Only an owner of this studio changes this. Ask an owner.",
}


@cache
def time_zones() -> list[str]:
    """The names of all time zones."""
    return sorted(available_timezones())


def known_timezone(name: str) -> None:
    """Raises `ValidationError` for a name that is no time zone."""
    if name not in time_zones():
        raise ValidationError("Choose a time zone of the list, like Europe/Lisbon.")


class User(AbstractUser):
    """A person, in one studio or several. The username is the name to sign in with."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    session_round = models.PositiveIntegerField(default=0, editable=False)  # another one ends every session of hers

    def __str__(self) -> str:
        return self.first_name or self.username

    def _get_session_auth_hash(self, secret: str | None = None) -> str:
        if not self.session_round:
            return super()._get_session_auth_hash(secret)  # type: ignore[misc] # of Django's AbstractBaseUser
        told = f"{self.password}\n{self.session_round}"
        return salted_hmac("wembit.session", told, secret=secret, algorithm="sha256").hexdigest()


class HeldIn(models.Model):
    """A session that holds a person's hand: found by the person, without reading the sessions of others."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="held_in")
    session_key = models.CharField(max_length=40)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "session_key"], name="held_once_in_a_session")]


class Studio(models.Model):
    """A studio, its units and habits; `stamp` rises with every press that changes something."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    slug = models.SlugField(max_length=40, unique=True)
    name = models.CharField(max_length=80)
    timezone = models.CharField(max_length=60, default="UTC", validators=[known_timezone])
    currency = models.CharField(max_length=3, default="EUR")
    decimal_mark = models.CharField(max_length=1, default=".", choices=[(".", "point: 7.5"), (",", "comma: 7,5")])
    weight_unit = models.CharField(max_length=2, default="g", choices=[("g", "grams"), ("oz", "ounces")])
    length_unit = models.CharField(
        max_length=2, default="mm", choices=[("mm", "millimetres"), ("cm", "centimetres"), ("in", "inches")]
    )
    members = models.ManyToManyField(User, through="Member", related_name="studios")
    habits = models.JSONField(default=dict, editable=False)  # how this studio works, each asked when first needed
    hands = models.JSONField(default=dict, editable=False)  # what its work has taught: bench/learning.py
    stamp = models.PositiveBigIntegerField(default=0, editable=False)
    backed_up_at = models.DateTimeField(null=True, editable=False)

    def __str__(self) -> str:
        return self.name

    def cached_until_change(self, what: str, make: Callable[[], T]) -> T:
        """What `make()` gives, kept until the next press in this studio, by whichever process takes it."""
        if is_trying():
            return make()
        return until_pressed.get_or_make((self.pk, what), self.stamp, make)

    def once(self, what: str, make: Callable[[], T]) -> T:
        """What `make()` gives, looked up once for this request."""
        if what not in self._once:
            self._once[what] = make()
        return self._once[what]

    @cached_property
    def _once(self) -> dict:
        return {}

    def __getstate__(self) -> dict[str, Any]:
        """What is kept beyond this request is the studio, not what was looked up for it once."""
        return {name: value for name, value in super().__getstate__().items() if name != "_once"}

    def pressed(self) -> None:
        """Something may have changed: what was kept before holds no longer."""
        Studio.objects.filter(pk=self.pk).update(stamp=F("stamp") + 1)


class Member(Owned):
    """A person in a studio, with a role and the weight of her pinch once she has shown it."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    studio = models.ForeignKey(Studio, on_delete=models.CASCADE, related_name="memberships", editable=False)
    role = models.CharField(max_length=6, choices=ROLES, default=MAKER)
    has_told = False  # whether what was done with this object in hand stands in the journal
    pinch_g = models.DecimalField(max_digits=6, decimal_places=3, null=True, blank=True)
    hand = models.JSONField(default=dict, editable=False)  # g of a wisp, a pinch and a handful, shown often enough
    keys_on = models.BooleanField(default=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "studio"], name="one_membership_a_studio")]

    def __str__(self) -> str:
        return str(self.user)

    def may(self, role: str) -> bool:
        return RANK[self.role] >= RANK[role]

    def must_be(self, role: str) -> None:
        """Raises `PermissionDenied` with the reason when this member's role is lower."""
        if not self.may(role):
            raise PermissionDenied(REASONS[role])


def hashed(token: str) -> str:
    """What is kept of a link's token."""
    return hashlib.sha256(token.encode()).hexdigest()


class Link(Owned):
    """A one-use link: it lets a new member in, or an old one choose a new password. Only its hash is kept."""

    JOIN, PASSWORD = "join", "password"

    purpose = models.CharField(max_length=8, choices=[(JOIN, "join"), (PASSWORD, "password")])
    token_hash = models.CharField(max_length=64, unique=True)
    role = models.CharField(max_length=6, choices=ROLES, default=MAKER)
    for_user = models.ForeignKey(User, on_delete=models.CASCADE, null=True, related_name="+")
    password_was = models.CharField(
        max_length=128, blank=True
    )  # the person's session hash: a new password ends the link
    made_by = models.ForeignKey(Member, on_delete=models.CASCADE, null=True, related_name="+")
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)

    @staticmethod
    def new_token() -> str:
        return secrets.token_urlsafe(24)


class DonePress(Owned):
    """A press of a form that made something, by the key that the form carried, and where it led."""

    key = models.CharField(max_length=64)
    led_to = models.CharField(max_length=500, blank=True)
    made_at = models.DateTimeField(db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["studio", "key"], name="one_done_press_a_key")]


class Deed(Owned):
    """What a member did, in her words, and how it is taken back: a stock entry by another entry, a change of a figure, or of
    rows of another kind, by the rows before and after; any other deed cannot be taken back from the journal.
    """

    STOCK, FIGURE, ROWS, OTHER = "stock", "figure", "rows", "other"

    member = models.ForeignKey(Member, on_delete=models.CASCADE, related_name="deeds")
    made_at = models.DateTimeField()
    kind = models.CharField(max_length=6, choices=[(kind, kind) for kind in (STOCK, FIGURE, ROWS, OTHER)])
    thing = models.UUIDField(null=True)  # the entry, or the figure
    words = models.CharField(max_length=120)
    rows = models.JSONField(null=True, encoder=DjangoJSONEncoder)  # of a figure: table, id, row before, row after
    version = models.UUIDField(null=True)
    taken_back_at = models.DateTimeField(null=True)
    back_key = models.CharField(max_length=64, blank=True)  # of the press that took it back

    class Meta:
        ordering = ["-made_at"]
        indexes = [
            models.Index(fields=["member", "-made_at"]),
            models.Index(fields=["studio", "thing", "-made_at"]),
        ]

    def __str__(self) -> str:
        return self.words
