"""Figures being made, piece by piece, with the plan they were begun with."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from wembit.core.craft.materials import USUAL_SIGMA
from wembit.core.work import spells
from wembit.web.figures.models import Colourway
from wembit.web.plan.models import Project
from wembit.web.stash.models import Entry, Item, Lot, Movement
from wembit.web.studio.models import Member
from wembit.web.tenancy import Owned

PLANNED, WEIGHED, MADE, WAITING, FITTED = "planned", "weighed", "made", "waiting", "fitted"
KINDS = ("tuft", "wisp", "pinch", "handful")
GONE = {"": "in stock", "given": "given", "sold": "sold"}
DONE = (MADE, WAITING, FITTED)
STATES = [PLANNED, WEIGHED, MADE, WAITING, FITTED]
REASONS = {
    "big": "too big", "soft": "too soft", "colour": "wrong colour", "needle": "broken needle", "flat": "felted too flat",
}  # fmt: skip


class Making(Owned):
    """One figure being made; it keeps its own copy of the plan."""

    project = models.ForeignKey(Project, on_delete=models.PROTECT, null=True, related_name="makings")
    colourway = models.ForeignKey(Colourway, on_delete=models.PROTECT, related_name="makings")
    number = models.PositiveSmallIntegerField(default=1)
    scale = models.FloatField(default=1.0)  # times the figure's own size
    maker = models.ForeignKey(Member, on_delete=models.PROTECT, related_name="+")
    begun_at = models.DateTimeField()
    finished_at = models.DateTimeField(null=True)
    photo = models.ImageField(blank=True)
    needles_out = models.PositiveSmallIntegerField(default=0)
    minutes = models.JSONField(default=dict)  # of a part, where somebody said so, by its key
    took = models.JSONField(default=dict)  # when finished: minutes of each part by the rule, and what it took
    gone = models.CharField(max_length=8, blank=True, choices=list(GONE.items()))
    whom = models.CharField(max_length=80, blank=True)  # it went to
    gone_on = models.DateField(null=True)
    missing = models.CharField(max_length=120, blank=True)  # where a needle is that did not come back

    class Meta:
        ordering = ["begun_at"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_making_a_number")]

    def __str__(self) -> str:
        name = self.colourway.version.figure.name
        return f"{name} {self.number} of {self.project.count}" if self.project else f"{name} {self.number}"


class Piece(Owned):
    """One physical part of a making: ear 1, ear 2."""

    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="pieces")
    part_key = models.SlugField(max_length=40)
    name = models.CharField(max_length=50)
    position = models.PositiveSmallIntegerField(default=0)
    state = models.CharField(max_length=8, default=PLANNED, choices=[(s, s) for s in STATES])
    long_mm = models.FloatField(null=True)  # as it was measured
    thick_mm = models.FloatField(null=True)
    was_loose = models.BooleanField(default=False)  # once measured larger and softer than planned
    photo = models.ImageField(blank=True)
    seen = models.JSONField(default=dict)  # what the photo shows: piece_photo.py

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.name


class Spell(Owned):
    """A stretch of work of one maker at one part; without an end it goes on. `sure`: it was work all along."""

    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="spells")
    part_key = models.SlugField(max_length=40)
    maker = models.ForeignKey(Member, on_delete=models.PROTECT, related_name="+")
    begun_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True)
    sure = models.BooleanField(default=False)
    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, null=True, related_name="+")  # that began it

    class Meta:
        ordering = ["begun_at"]
        constraints = [
            models.UniqueConstraint(fields=["maker"], condition=Q(ended_at=None), name="one_part_in_hand"),
        ]

    def as_core(self) -> spells.Spell:
        """As the core reckons with it."""
        return spells.Spell(self.begun_at, self.ended_at, self.sure)


class PieceLayer(Owned):
    """What one layer of a piece takes: the rule's grams, bias and sigma as they were when the making began."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="layers")
    item = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="+")
    instead_of = models.ForeignKey(Item, on_delete=models.PROTECT, null=True, related_name="+")
    seen = models.BooleanField(default=True)
    need = models.UUIDField(null=True)
    role = models.CharField(max_length=8)
    slot_name = models.CharField(max_length=40)
    rule_g = models.FloatField()
    bias = models.FloatField(default=1.0)
    sigma = models.FloatField(default=USUAL_SIGMA)
    counts_for = models.CharField(max_length=12, blank=True)  # a firmness or a role, by which hands are known
    freed = models.DecimalField(max_digits=12, decimal_places=3, default=0)  # of what was planned, when it was enough
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["position"]


class MakingThing(Owned):
    """Eyes, wire or a fitting that a making takes, in its item's unit."""

    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="things")
    item = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="+")
    need = models.UUIDField(null=True)
    words = models.CharField(max_length=80)
    what_for = models.CharField(max_length=80, blank=True)
    amount = models.DecimalField(max_digits=12, decimal_places=3)
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["position"]

    def __str__(self) -> str:
        return self.words


class ThingTake(Owned):
    """Says for which thing of a making a movement of the ledger was."""

    movement = models.OneToOneField(Movement, on_delete=models.PROTECT, related_name="thing_take")
    thing = models.ForeignKey(MakingThing, on_delete=models.PROTECT, related_name="takes")


class Try(Owned):
    """A piece that was started again: what was felted until then, which stands while its entry stands."""

    piece = models.ForeignKey(Piece, on_delete=models.PROTECT, related_name="tries")
    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="given_up")
    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, null=True, related_name="+")  # None: thrown away
    grams = models.DecimalField(max_digits=12, decimal_places=3)
    reason = models.CharField(max_length=12, blank=True, choices=list(REASONS.items()))

    class Meta:
        ordering = ["entry__recorded_at"]


class NeedleBreak(Owned):
    """A needle that broke, while its entry stands; until its tip is found it is in the figure."""

    piece = models.ForeignKey(Piece, on_delete=models.PROTECT, related_name="breaks")
    item = models.ForeignKey(Item, on_delete=models.PROTECT, null=True, related_name="+")
    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="broke")
    role = models.CharField(max_length=8, blank=True)  # of the layer that was worked
    tip_found = models.BooleanField(default=False)

    class Meta:
        ordering = ["entry__recorded_at"]

    def __str__(self) -> str:
        return f"{self.item.name if self.item else 'a needle'} at {self.piece.name}"


class Trim(Owned):
    """Wool that was cut off a layer, while its entry stands."""

    layer = models.ForeignKey(PieceLayer, on_delete=models.PROTECT, related_name="trims")
    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="trimmed_off")
    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, null=True, related_name="+")
    grams = models.DecimalField(max_digits=12, decimal_places=3)


class Take(Owned):
    """Says for which piece and layer a movement of the ledger was; `measured`: it was weighed, not booked as planned; `aside`:
    it lies ready until the layer is worked.
    """

    movement = models.OneToOneField(Movement, on_delete=models.PROTECT, related_name="take")
    layer = models.ForeignKey(PieceLayer, on_delete=models.PROTECT, related_name="takes")
    given_up = models.ForeignKey(Try, on_delete=models.PROTECT, null=True, related_name="takes")
    measured = models.BooleanField(default=True)
    aside = models.BooleanField(default=False)


class Drying(Owned):
    """Glue or clay of a step that sets beside the work, until its time is over or somebody says that it is dry."""

    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="dryings")
    step = models.CharField(max_length=80)  # of the order of work, by its id
    words = models.CharField(max_length=160)
    begun_at = models.DateTimeField()
    until = models.DateTimeField()
    dry = models.BooleanField(default=False)

    class Meta:
        ordering = ["until"]
        constraints = [models.UniqueConstraint(fields=["making", "step"], name="one_drying_a_step")]

    def __str__(self) -> str:
        return self.words


class Guess(Owned):
    """A tuft, wisp, pinch or handful that a member has laid on the scale, and what it was guessed to weigh, in g."""

    member = models.ForeignKey(Member, on_delete=models.CASCADE, related_name="+")
    kind = models.CharField(max_length=8, choices=[(kind, kind) for kind in KINDS])
    guessed_g = models.FloatField(null=True)
    grams = models.FloatField()
    made_at = models.DateTimeField()

    class Meta:
        ordering = ["made_at"]
        indexes = [models.Index(fields=["member", "made_at"], name="guess_of_a_member")]
