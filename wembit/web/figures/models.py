"""Figures that can be made again: versions, parts, layers, colour slots and colourways."""

from __future__ import annotations

from typing import Any

from django.db import models
from django.db.models import Q
from django.db.models.functions import Lower

from wembit.core.contract.requests import ROLES
from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.core.craft.notions import FITTINGS
from wembit.web.stash.models import Item
from wembit.web.tenancy import Owned

# what a part is made of, beside its layers: what a copy and a file carry
PART_FIELDS = ("key", "name", "kind", "count", "shape", "firmness", "allowance", "visible", "loose_end_mm", "seat",
               "relations", "armature")  # fmt: skip
SCHOOL = "school"  # among the studio's habits


class Figure(Owned):
    """A design that can be made again; its versions hold what it is made of."""

    name = models.CharField(max_length=80)
    story = models.TextField(blank=True)
    photo = models.ImageField(blank=True)
    origin = models.JSONField(default=dict)  # where the design is from, what may be sold, whom it is for
    made_at = models.DateTimeField(auto_now_add=True)

    newest: Version | None  # set by queries.figures
    side: Any  # these two are set by what draws the herd
    plan: Any

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint("studio", Lower("name"), name="one_figure_a_name")]

    def __str__(self) -> str:
        return self.name


class Version(Owned):
    """One state of a figure. It freezes at its first making; changing a frozen one makes the next."""

    figure = models.ForeignKey(Figure, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveSmallIntegerField(default=1)
    school = models.JSONField(default=dict)  # where this figure goes its own way
    notions = models.JSONField(default=list)  # fittings that the maker put on it
    faces = models.JSONField(default=list)  # seats of what sits on the face, kept under a name
    order = models.JSONField(default=dict)  # what the maker changed in the order of work
    frozen_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["figure", "number"], name="one_version_a_number"),
        ]

    def __str__(self) -> str:
        return f"{self.figure.name} {self.number}"

    @property
    def fittings(self) -> list[dict]:
        """What the maker put on it, of kinds that are known here."""
        return [kept for kept in self.notions if kept["notion"] in FITTINGS]


class Slot(Owned):
    """A place for a colour: back, belly, eye ring."""

    version = models.ForeignKey(Version, on_delete=models.CASCADE, related_name="slots")
    name = models.CharField(max_length=40)
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["position", "name"]
        constraints = [models.UniqueConstraint("version", Lower("name"), name="one_slot_a_name")]

    def __str__(self) -> str:
        return self.name


class Part(Owned):
    """A body, a head, a pair of ears. `shape` and the layers' `rule` are those of the core's contract; `seat` says
    where it sits, relative to the part it sits on, by that part's key; `relations` are the core's: what of it follows
    another part; `armature` says what is special about the wire in it. `visible` is None where the drawing tells what
    is hidden in a join, `loose_end_mm` where the studio's habit holds, `allowance` where the rule holds.
    """

    version = models.ForeignKey(Version, on_delete=models.CASCADE, related_name="parts")
    key = models.SlugField(max_length=40)
    name = models.CharField(max_length=40)
    kind = models.CharField(max_length=12, default="body")
    position = models.PositiveSmallIntegerField(default=0)
    count = models.PositiveSmallIntegerField(default=1)
    shape = models.JSONField()
    firmness = models.CharField(max_length=10, blank=True, choices=list(FIRMNESS_WORDS.items()))
    allowance = models.FloatField(null=True, blank=True)
    visible = models.FloatField(null=True, blank=True)
    loose_end_mm = models.FloatField(null=True, blank=True)
    seat = models.JSONField(default=dict)
    relations = models.JSONField(default=list)
    armature = models.JSONField(default=dict)

    class Meta:
        ordering = ["position", "name"]
        constraints = [
            models.UniqueConstraint(fields=["version", "key"], name="one_part_a_key"),
            models.CheckConstraint(condition=Q(count__gte=1), name="count_at_least_one"),
            models.CheckConstraint(condition=Q(visible__gte=0, visible__lte=1), name="visible_is_a_share"),
        ]

    def __str__(self) -> str:
        return self.name


class Layer(Owned):
    """A layer of a part: what it does, in which colour slot, over what, and its rule as the contract has it."""

    part = models.ForeignKey(Part, on_delete=models.CASCADE, related_name="layers")
    slot = models.ForeignKey(Slot, on_delete=models.PROTECT, related_name="layers")
    over = models.ForeignKey(Slot, on_delete=models.PROTECT, null=True, blank=True, related_name="+")
    role = models.CharField(max_length=8, choices=[(role, role) for role in ROLES])
    rule = models.JSONField(default=dict)
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["position"]


class Colourway(Owned):
    """A fibre for each slot of a version; `thought` says in which colour a slot is thought of, by its id, until it has one."""

    version = models.ForeignKey(Version, on_delete=models.CASCADE, related_name="colourways")
    name = models.CharField(max_length=40, default="first")
    position = models.PositiveSmallIntegerField(default=0)
    thought = models.JSONField(default=dict)

    class Meta:
        ordering = ["position", "name"]
        constraints = [models.UniqueConstraint("version", Lower("name"), name="one_colourway_a_name")]

    def __str__(self) -> str:
        return self.name


class Choice(Owned):
    """The fibre that a colourway gives a slot."""

    colourway = models.ForeignKey(Colourway, on_delete=models.CASCADE, related_name="choices")
    slot = models.ForeignKey(Slot, on_delete=models.CASCADE, related_name="choices")
    item = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="choices")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["colourway", "slot"], name="one_fibre_a_slot")]


class Reference(Owned):
    """A picture of one's own that belongs to a figure: an animal, a sketch, a toy that was measured."""

    figure = models.ForeignKey(Figure, on_delete=models.CASCADE, related_name="references")
    image = models.ImageField(width_field="width_px", height_field="height_px")
    width_px = models.PositiveIntegerField(editable=False)
    height_px = models.PositiveIntegerField(editable=False)
    words = models.CharField(max_length=80, blank=True)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["made_at"]

    def __str__(self) -> str:
        return self.words or "picture"


class Tracing(Owned):
    """A part being drawn: points in units of the board (pixels of its picture, y down), and how long a unit is."""

    SILHOUETTE, SLAB, WIRE = "silhouette", "slab", "wire"
    KINDS = [(SILHOUETTE, "turned, like a body"), (SLAB, "flat, like an ear"), (WIRE, "a wire with bends")]

    figure = models.ForeignKey(Figure, on_delete=models.CASCADE, related_name="tracings")
    reference = models.ForeignKey(Reference, on_delete=models.SET_NULL, null=True, blank=True, related_name="tracings")
    kind = models.CharField(max_length=10, choices=KINDS, default=SILHOUETTE)
    points = models.JSONField(default=list)
    marks = models.JSONField(default=list)
    mark_mm = models.FloatField(default=100.0)
    mm_a_unit = models.FloatField(default=0.25)
    depth_ratio = models.FloatField(default=1.0)
    thickness_mm = models.FloatField(default=4.0)
    diameter_mm = models.FloatField(default=8.0)
    wire_mm = models.FloatField(default=1.0)
    firmness = models.CharField(max_length=10, default="firm", choices=list(FIRMNESS_WORDS.items()))
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]
        constraints = [
            models.CheckConstraint(condition=Q(mm_a_unit__gt=0, mark_mm__gt=0), name="board_has_a_scale"),
            models.CheckConstraint(condition=Q(depth_ratio__gt=0, thickness_mm__gt=0), name="tracing_has_depth"),
        ]
