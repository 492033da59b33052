"""Who wishes for a letter a week, and when the last one went."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from wembit.web.studio.models import Member
from wembit.web.tenancy import Owned

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class Letter(Owned):
    """A member's letter: to which address (none: she stopped it), on which weekday, and whether whoever reads mail there has
    said yes to it; `house` is the address under which she reaches Wembit.
    """

    member = models.OneToOneField(Member, on_delete=models.CASCADE, related_name="letter")
    address = models.EmailField(max_length=254, blank=True)
    weekday = models.PositiveSmallIntegerField(default=0, choices=list(enumerate(WEEKDAYS)))
    house = models.CharField(max_length=200)
    agreed = models.BooleanField(default=False)
    asked_at = models.DateTimeField()  # for the yes
    last_on = models.DateField()  # before it says yes, the day on which it was asked for

    class Meta:
        constraints = [models.CheckConstraint(condition=Q(weekday__lt=len(WEEKDAYS)), name="letter_on_a_weekday")]

    def __str__(self) -> str:
        return f"a letter to {self.member}"
