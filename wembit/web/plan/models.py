"""Planned makings by a due date and what they need."""

from __future__ import annotations

import datetime as dt
from decimal import Decimal

from django.db import models
from django.db.models import F, Q

from wembit.core.grams.estimate import Range
from wembit.web.figures.models import Colourway, Figure
from wembit.web.stash.models import Item, Lot
from wembit.web.studio.models import Member
from wembit.web.tenancy import Owned

RANGE = ("p10", "p50", "p90")  # of a need
PLANNED, DONE, DROPPED = "planned", "done", "dropped"
FIRST, BY_ITS_DAY, CAN_WAIT = 0, 1, 2  # priority of a project, the lower the sooner
PRIORITIES = [
    (BY_ITS_DAY, "by its day"),
    (FIRST, "before all others"),
    (CAN_WAIT, "when there is room"),
]
STOCK, ASKED_FOR, GIFT, MARKET, CLASS, KIT = "stock", "order", "gift", "market", "class", "kit"
FOR_WHOM = [
    (STOCK, "our own shelf"),
    (ASKED_FOR, "somebody who ordered it"),
    (GIFT, "a gift"),
    (MARKET, "a market"),
    (CLASS, "a class"),
    (KIT, "kits"),
]
ARITHMETIC = 1  # by which needs are worked out; one more whenever a figure comes to take something else than it did


class Project(Owned):
    """Planned makings of a figure's colourway by a day. What has a lower priority has wool and hours before the others."""

    name = models.CharField(max_length=80)
    for_whom = models.CharField(max_length=6, default=STOCK, choices=FOR_WHOM)
    priority = models.PositiveSmallIntegerField(default=BY_ITS_DAY, choices=PRIORITIES)
    colourway = models.ForeignKey(Colourway, on_delete=models.PROTECT, related_name="projects")
    count = models.PositiveSmallIntegerField(default=1)
    sizes = models.JSONField(
        default=list, blank=True
    )  # of the first so many makings, as times the figure's own; else 1
    start = models.DateField()
    due = models.DateField()
    state = models.CharField(max_length=8, default=PLANNED, choices=[(s, s) for s in (PLANNED, DONE, DROPPED)])
    made_at = models.DateTimeField(auto_now_add=True)
    arithmetic = models.PositiveSmallIntegerField(default=ARITHMETIC, editable=False)  # by which its needs were written

    short: list  # what it is short of, set by what lists projects

    def size_of(self, number: int) -> float:
        """How many times the figure's own size the making of that number is."""
        return float(self.sizes[number - 1]) if number <= len(self.sizes) else 1.0

    @property
    def own_sizes(self) -> list[float]:
        """The sizes of its makings up to the last one that is not the figure's own."""
        sizes = [self.size_of(number) for number in range(1, self.count + 1)]
        while sizes and sizes[-1] == 1:
            sizes.pop()
        return sizes

    @property
    def all_sizes(self) -> list[float]:
        """The sizes of all its makings; empty where all are the figure's own."""
        return [self.size_of(number) for number in range(1, self.count + 1)] if self.own_sizes else []

    class Meta:
        ordering = ["due", "name"]
        constraints = [
            models.CheckConstraint(condition=Q(count__gte=1, count__lte=500), name="project_count"),
            models.CheckConstraint(condition=Q(start__lte=F("due")), name="starts_before_due"),
            models.CheckConstraint(condition=Q(priority__lte=CAN_WAIT), name="priority_known"),
        ]

    def __str__(self) -> str:
        return self.name


class Need(Owned):
    """Project × fibre × seen or hidden, in grams: a middle value and the range around it."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="needs")
    item = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="needs")
    seen = models.BooleanField(default=True)
    p10 = models.DecimalField(max_digits=12, decimal_places=3)
    p50 = models.DecimalField(max_digits=12, decimal_places=3)
    p90 = models.DecimalField(max_digits=12, decimal_places=3)

    taken: Decimal  # these four are set by queries.open_needs
    left: Decimal
    promised: Decimal
    sigma: float  # the scatter of its logarithm
    rest: Range  # of what is left

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "item", "seen"], name="one_need_a_fibre")]

    @property
    def start(self) -> dt.date:
        return self.project.start


class Pin(Owned):
    """So much of a bag that a maker keeps for a project by hand, whatever is due before it; `seen` as of its need."""

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="pins")
    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="pins")
    seen = models.BooleanField(default=True)
    amount = models.DecimalField(max_digits=12, decimal_places=3)

    @property
    def kept(self) -> Decimal:
        """As much of it as the bag still holds."""
        return min(self.amount, self.lot.on_hand)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "lot", "seen"], name="one_pin_a_bag_and_need"),
            models.CheckConstraint(condition=Q(amount__gt=0), name="pin_of_something"),
        ]


class StandIn(Owned):
    """Another fibre for what is short, in the last `count` makings of a project: the grams that moved from one need to the
    other, middle values. One that lies under the covers leaves a share of them. The figure's versions and colourways stay
    as they are.
    """

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="stand_ins")
    old = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="+")
    new = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="+")
    seen = models.BooleanField()
    count = models.PositiveSmallIntegerField()
    ratio = models.FloatField(default=1.0)  # grams of the new fibre for one of the old that moved
    remains = models.FloatField(default=0.0)  # the share of each cover that stays, where the new one lies under it
    moved = models.DecimalField(max_digits=12, decimal_places=3)
    client_key = models.CharField(max_length=64, blank=True)
    made_at = models.DateTimeField(auto_now_add=True)
    taken_back_at = models.DateTimeField(null=True)

    repeated = False  # set on what a press that came again gives

    class Meta:
        ordering = ["made_at"]
        constraints = [
            models.CheckConstraint(condition=Q(count__gte=1), name="stand_in_of_some"),
            models.CheckConstraint(condition=Q(remains__gte=0, remains__lt=1), name="stand_in_moves_some"),
            models.UniqueConstraint("studio", "client_key", condition=~Q(client_key=""), name="one_stand_in_a_press"),
        ]

    @property
    def under(self) -> bool:
        """Whether it is a thin layer under the covers, which nobody sees."""
        return self.remains > 0

    @property
    def new_seen(self) -> bool:
        return self.seen and not self.under


class MakerHours(Owned):
    """The hours that a maker has at the bench on each day of the week; none of her: nobody said."""

    member = models.OneToOneField(Member, on_delete=models.CASCADE, related_name="bench_hours")
    hours = models.JSONField(default=dict)  # by weekday, as WEEK names them

    def __str__(self) -> str:
        return f"{self.member}"


class Away(Owned):
    """Days on which a maker is not at the bench, both ends among them."""

    member = models.ForeignKey(Member, on_delete=models.CASCADE, related_name="away")
    first = models.DateField()
    last = models.DateField()

    class Meta:
        ordering = ["first", "last"]
        constraints = [models.CheckConstraint(condition=Q(first__lte=F("last")), name="away_goes_forward")]

    def __str__(self) -> str:
        return f"{self.member}"


class LeftToOthers(Owned):
    """A figure that a maker leaves to the others."""

    member = models.ForeignKey(Member, on_delete=models.CASCADE, related_name="leaves")
    figure = models.ForeignKey(Figure, on_delete=models.CASCADE, related_name="+")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["member", "figure"], name="left_to_others_once")]

    def __str__(self) -> str:
        return f"{self.figure}"
