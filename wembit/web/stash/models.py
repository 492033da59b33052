"""Items, drawers, lots and the ledger of every gram."""

from __future__ import annotations

from decimal import Decimal
from typing import Self

from django.db import models
from django.db.models import Exists, OuterRef, Q
from django.db.models.expressions import Combinable
from django.db.models.functions import Lower

from wembit.core.craft.armature import Make
from wembit.core.craft.materials import BREEDS, FORMS, MEASURED, NOTIONS, Breed
from wembit.web import clock
from wembit.web.numbers import GRAMS, MILLIMETRES, PIECES
from wembit.web.tenancy import Owned, OwnedQuerySet

UNITS = [(GRAMS, "g"), (PIECES, "pieces"), (MILLIMETRES, "mm")]
FIBRE, NOTION = "fibre", "notion"
MIXED = "mixed"  # the breed of a made fibre

OPENING, RECEIVED, PULLED, RETURNED = "opening", "received", "pulled", "returned"
SPLIT_OUT, SPLIT_IN, MERGED_OUT, MERGED_IN = "split out", "split in", "merged out", "merged in"
BLENDED_OUT, BLENDED_IN = "blended out", "blended in"
RECOUNT, DISCARDED, TRIMMED, SOLD = "recount", "discarded", "trimmed", "sold"
KINDS = [
    OPENING, RECEIVED, PULLED, RETURNED, TRIMMED, BLENDED_OUT, BLENDED_IN, "carded out", "carded in",
    SPLIT_OUT, SPLIT_IN, MERGED_OUT, MERGED_IN, RECOUNT, DISCARDED, SOLD,
]  # fmt: skip


def unit_of(notion: str) -> str:
    """The unit in which a notion is kept: wire, thread and loops in mm, the others by the piece."""
    return MILLIMETRES if notion in MEASURED else PIECES


def fibre_words(source: str, form: str) -> str:
    """What a fibre is: where it comes from, and its form."""
    return f"{source} {FORMS[form].name}"


class Drawer(Owned):
    """A place where bags lie; `closed_until`: after moths were found, its wool lies shut and cold."""

    name = models.CharField(max_length=40)
    closed_until = models.DateField(null=True)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint("studio", Lower("name"), name="one_drawer_a_name")]

    def __str__(self) -> str:
        return self.name

    @property
    def told(self) -> str:
        """Its name, and that it is closed."""
        return f"{self.name} (closed for moths)" if self.closed_until else self.name


class OwnBreed(Owned):
    """A source of fibre that the studio adds to the table: middle values, and what it is like, in words."""

    name = models.CharField(max_length=40)
    micron_um = models.FloatField()
    staple_mm = models.FloatField(null=True, blank=True)
    like = models.JSONField(default=dict)  # crimp, felting, touch, uses, as in the table

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint("studio", Lower("name"), name="one_breed_a_name"),
            models.CheckConstraint(condition=Q(micron_um__gt=0), name="breed_has_a_diameter"),
        ]

    def __str__(self) -> str:
        return self.name

    def as_breed(self) -> Breed:
        return Breed(self.name, self.micron_um, self.staple_mm, **self.like)


class Item(Owned):
    """What can be on the shelf: a fibre (breed × form × colour name, in grams) or a notion (counted or measured)."""

    kind = models.CharField(max_length=6, choices=[(FIBRE, "fibre"), (NOTION, "notion")], default=FIBRE)
    name = models.CharField(max_length=80)
    unit = models.CharField(max_length=2, choices=UNITS, default=GRAMS)
    breed = models.CharField(max_length=20, blank=True, choices=[(key, b.name) for key, b in BREEDS.items()])
    form = models.CharField(max_length=10, blank=True, choices=[(key, f.name) for key, f in FORMS.items()])
    notion = models.CharField(max_length=12, blank=True, choices=list(NOTIONS.items()))
    size_mm = models.DecimalField(max_digits=7, decimal_places=2, null=True, blank=True)
    told = models.JSONField(default=dict)  # of a notion: gauge, section and mark of a needle, outline of a cutter
    unit_cost = models.DecimalField("what one of it costs", max_digits=12, decimal_places=5, null=True, blank=True)
    linear_g_m = models.DecimalField("grams a metre", max_digits=7, decimal_places=2, null=True, blank=True)
    palm_g = models.DecimalField("what a palm of it weighs", max_digits=7, decimal_places=3, null=True, blank=True)
    pinch_g = models.DecimalField("what a pinch of it weighs", max_digits=7, decimal_places=4, null=True, blank=True)
    own_breed = models.ForeignKey("OwnBreed", on_delete=models.SET_NULL, null=True, blank=True, related_name="items")
    minimum = models.DecimalField(max_digits=10, decimal_places=2, default=0)
    note = models.TextField(blank=True)
    recipe = models.JSONField(default=list)  # of a made fibre: the items in it with their whole parts

    on_hand: Decimal  # these five are set by queries.with_stock
    unweighed: int  # bags of which nobody knows how much is in them
    promised: Decimal
    free: Decimal
    srgb: str

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(
                "studio", "kind", "breed", "own_breed", "form", "notion", "size_mm", Lower("name"),
                name="one_item_a_name", nulls_distinct=False,
            ),
            models.CheckConstraint(
                condition=Q(kind=FIBRE, unit=GRAMS) & ~Q(breed="") & ~Q(form="") | Q(kind=NOTION) & ~Q(notion=""),
                name="fibre_or_notion",
            ),
            models.CheckConstraint(condition=Q(minimum__gte=0), name="minimum_not_negative"),
        ]  # fmt: skip

    def __str__(self) -> str:
        return self.name

    @property
    def what(self) -> str:
        """Breed and form, or what notion it is, in words."""
        if self.kind == NOTION:
            size = f" {self.size_mm.normalize():f} mm" if self.size_mm else ""
            gauge = f" {self.told['gauge']:g}" if self.told.get("gauge") else ""
            kinds = "".join(f" {self.told[each]}" for each in ("section", "outline", "mark") if self.told.get(each))
            make = Make(self.told.get("metal", ""), self.told.get("coating", "")).words
            return f"{make} {NOTIONS[self.notion]}".strip() + gauge + kinds + size
        return fibre_words(self.source.name, self.form)

    @property
    def source(self) -> Breed:
        """Where the fibre comes from: the studio's own breed, else that of the table."""
        return self.own_breed.as_breed() if self.own_breed else BREEDS[self.breed]

    @property
    def breed_choice(self) -> str:
        """The breed as it is chosen: the key of the table, or the id of the studio's own."""
        return str(self.own_breed_id or self.breed)

    @property
    def grams_a_metre(self) -> float | None:
        """Linear density of a strand in g/m: the studio's own, else the form's usual one; None for other forms."""
        form = FORMS.get(self.form)
        if form is None or not form.strand:
            return None
        return float(self.linear_g_m) if self.linear_g_m else form.linear_g_m


class LotQuerySet(OwnedQuerySet):
    """Lots, by where they are."""

    def on_shelf(self) -> Self:
        """Lots that hold something or were never weighed; the waste lot is no shelf."""
        return self.filter(Q(on_hand__gt=0) | Q(weighed=False), waste=False)


class Lot(Owned):
    """One bag or box of an item: one dye lot, one delivery. `on_hand` is the sum of its movements, always."""

    item = models.ForeignKey(Item, on_delete=models.PROTECT, related_name="lots")
    drawer = models.ForeignKey(Drawer, on_delete=models.SET_NULL, null=True, blank=True, related_name="lots")
    dye_lot = models.CharField(max_length=40, blank=True)
    srgb = models.CharField(max_length=7, blank=True)
    lab_l = models.FloatField(null=True)
    lab_a = models.FloatField(null=True)
    lab_b = models.FloatField(null=True)
    hue = models.CharField(max_length=8, blank=True)
    curve = models.BinaryField(null=True)  # the reflectance behind the colour, see swatch.py
    predicted = models.CharField(max_length=7, blank=True)  # of a blend: the colour that was expected
    came_as = models.CharField(max_length=40, blank=True, db_index=True)  # the mark of the row that it came in with
    on_hand = models.DecimalField(max_digits=12, decimal_places=3, default=0)
    weighed = models.BooleanField(default=True)
    unit_cost = models.DecimalField("what one of it cost", max_digits=12, decimal_places=5, null=True, blank=True)
    mixed = models.JSONField(default=dict, editable=False)  # what one of it cost before each merge, by its entry
    recounted_at = models.DateTimeField(null=True)
    waste = models.BooleanField(default=False)
    photo = models.ImageField(blank=True)
    made_at = models.DateTimeField(auto_now_add=True)

    promised: Decimal  # these two are set by queries.with_promised
    free: Decimal

    objects = LotQuerySet.as_manager()  # type: ignore[misc]

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(on_hand__gte=0), name="lot_never_below_zero"),
            models.UniqueConstraint(fields=["studio"], condition=Q(waste=True), name="one_waste_lot"),
        ]

    def __str__(self) -> str:
        return self.item.name

    @property
    def unweighed(self) -> int:
        """1 where nobody knows how much is in it."""
        return int(not self.weighed)


class Reminder(Owned):
    """A dated look at a drawer, or at all of the wool: for moths, for damp; again every so many days, or once."""

    words = models.CharField(max_length=80)
    drawer = models.ForeignKey(Drawer, on_delete=models.CASCADE, null=True, related_name="reminders")
    due = models.DateField()
    every_days = models.PositiveSmallIntegerField(default=0)
    seen_on = models.DateField(null=True)

    class Meta:
        ordering = ["due", "words"]

    def __str__(self) -> str:
        return self.words


class StashFile(Owned):
    """A table of bags being taken in, row by row: how far it has come, and what became of the rows."""

    file = models.FileField()
    name = models.CharField(max_length=120)
    by = models.ForeignKey("studio.Member", on_delete=models.PROTECT, related_name="+")
    total = models.PositiveIntegerField()
    done = models.PositiveIntegerField(default=0)
    counts = models.JSONField(default=dict)
    refused = models.JSONField(default=list)
    made_at = models.DateTimeField(auto_now_add=True)
    finished_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return self.name


class Entry(Owned):
    """One press: one or more movements. Never changed; taken back by another entry."""

    verb = models.CharField(max_length=20)
    by = models.ForeignKey("studio.Member", on_delete=models.PROTECT, related_name="+")
    happened_at = models.DateTimeField()
    recorded_at = models.DateTimeField()
    client_key = models.CharField(max_length=64)
    content = models.CharField(max_length=64)
    reverses = models.OneToOneField("self", on_delete=models.PROTECT, null=True, related_name="reversed_by")
    note = models.CharField(max_length=200, blank=True)

    written: list[Movement]  # set by the ledger on the entry it has just written, in the order of its lines

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["studio", "client_key"], name="one_entry_a_press"),
            models.CheckConstraint(condition=Q(happened_at__gte=clock.EARLIEST), name="happened_since_1900"),
        ]
        indexes = [models.Index(fields=["studio", "by", "-recorded_at"])]


def standing(entry: str = "pk") -> Combinable:
    """Whether nobody has taken back the entry at that path; quicker than a join, which is taken for one row."""
    return ~Exists(Entry.objects.filter(reverses=OuterRef(entry)))


class Movement(Owned):
    """A line of the ledger: an amount that came to a lot (plus) or left it (minus), in the item's unit.

    `need` names what it was for, when it was for something planned; the ledger does not know more of it.
    """

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="movements")
    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, related_name="movements")
    kind = models.CharField(max_length=12, choices=[(kind, kind) for kind in KINDS])
    amount = models.DecimalField(max_digits=12, decimal_places=3)
    need = models.UUIDField(null=True)

    class Meta:
        indexes = [
            models.Index(fields=["studio", "need"], condition=Q(need__isnull=False), name="movement_need"),
            models.Index(fields=["studio", "kind"], condition=Q(need__isnull=True), name="movement_unplanned"),
        ]


class Promise(Owned):
    """Grams of a lot promised to a need, with the day by which they are wanted, a word for whom, and the project's priority:
    what has a higher number gives way first.
    """

    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="promises")
    need = models.UUIDField(db_index=True)
    amount = models.DecimalField(max_digits=12, decimal_places=3)
    due = models.DateField()
    whose = models.CharField(max_length=120)
    priority = models.PositiveSmallIntegerField(default=1)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["lot", "need"], name="one_promise_a_lot_and_need"),
            models.CheckConstraint(condition=Q(amount__gt=0), name="promise_of_something"),
        ]
        ordering = ["priority", "due", "pk"]


ZERO = Decimal("0")
