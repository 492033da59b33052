"""The wools of a shelf as colours: what can be matched and blended, with what is free of each."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple, TypedDict

import numpy as np
from django.db.models import F, Sum, TextField, Value
from django.db.models.functions import Cast, Coalesce

from wembit.core.colour.mixing_lots import MixingLots
from wembit.core.colour.mixture import M
from wembit.core.craft.materials import BREEDS, FORMS
from wembit.web.caches import kept_until_pressed
from wembit.web.stash.mixing import mixing_of
from wembit.web.stash.models import FIBRE, ZERO, Lot, Promise
from wembit.web.stash.swatch import KEPT_AS
from wembit.web.studio.models import Studio

SHELVES_KEPT = 8  # in a process
MOST_FIBRES, MOST_PARTS = 3, 8  # of a recipe, where the studio has said nothing else


class Wool(NamedTuple):
    """A lot as a colour: what it is (`breed` as it is chosen), where it lies, how much of it is free in g (None: never
    weighed).
    """

    lot_id: str
    item_id: str
    name: str
    breed: str
    form: str
    drawer: str
    dye_lot: str
    srgb: str
    hue: str
    lab: tuple[float, float, float]
    free: float | None
    source: str
    micron_um: float
    felting: str
    closed: bool  # its drawer, for moths

    @property
    def what(self) -> str:
        return f"{self.source} {FORMS[self.form].name}"


@dataclass(frozen=True, eq=False)
class Wools:
    """All lots of fibres that have a colour, with their curves (n, 36); how many have none; the constant of the mixing law by
    which they blend. Each is only like itself.
    """

    rows: list[Wool]
    curves: np.ndarray
    without: int
    m: float = M

    @cached_property
    def labs(self) -> np.ndarray:
        return np.array([wool.lab for wool in self.rows]).reshape(-1, 3)

    def only(self, places: Sequence[int]) -> Wools:
        return Wools([self.rows[place] for place in places], self.curves[list(places)], self.without, self.m)

    def palette(self) -> MixingLots:
        """What can be blended by hand: the forms that go together, each with what is free of it."""
        grams = np.array([wool.free or 0.0 for wool in self.rows])
        return MixingLots.of_curves([wool.lot_id for wool in self.rows], self.curves, grams, self.m)


# Ids come as text: thousands of UUIDs take as long as the rest.
FIELDS = (Cast("pk", TextField()), Cast("item_id", TextField()), "item__name", "item__breed", "item__form",
          Coalesce("drawer__name", Value("")), "dye_lot", "srgb", "hue", "lab_l", "lab_a", "lab_b", "on_hand", "weighed",
          "curve", "item__own_breed__name", "item__own_breed__micron_um", "item__own_breed__like",
          "item__own_breed_id", "drawer__closed_until")  # fmt: skip


@kept_until_pressed(SHELVES_KEPT)
def wools(studio: Studio) -> Wools:
    """The shelf's colours, kept in this process until the next press. Four queries."""
    lots = Lot.objects.of(studio).on_shelf().filter(item__kind=FIBRE).order_by(F("made_at"), "pk")
    sums = Promise.objects.of(studio).order_by().values("lot").annotate(total=Sum("amount"))
    promised = dict(sums.values_list(Cast("lot", TextField()), "total"))
    rows, kept = [], []
    without = 0
    for *named, light, a, b, held, weighed, curve, source, micron, like, own, closed in lots.values_list(*FIELDS):
        if curve is None:
            without += 1
            continue
        lot, known = named[0], BREEDS[named[3]]
        free = max(float(held - promised.get(lot, ZERO)), 0.0) if weighed else None
        if own:
            named[3] = str(own)
        felting = (like or {}).get("felting", known.felting)
        lot_id, item_id, name, breed, form, drawer, dye_lot, srgb, hue = named
        rows.append(
            Wool(
                lot_id,
                item_id,
                name,
                breed,
                form,
                drawer,
                dye_lot,
                srgb,
                hue,
                (light, a, b),
                free,
                source or known.name,
                micron or known.micron_um,
                felting,
                closed is not None,
            )
        )
        kept.append(bytes(curve))
    curves = (
        np.frombuffer(b"".join(kept), dtype=KEPT_AS).astype(float).reshape(len(rows), -1) if rows else np.empty((0, 36))
    )
    return Wools(rows, curves, without, mixing_of(studio).m)


def blending_forms(studio: Studio) -> list[str]:
    """The forms that this studio blends with each other by hand."""
    own = studio.habits.get("blends")
    return [form for form in FORMS if (FORMS[form].blends if own is None else form in own)]


class BlendingHabits(TypedDict):
    """How many fibres and parts a recipe has at most."""

    fibres: int
    parts: int


def blending_habits(studio: Studio) -> BlendingHabits:
    """How many fibres and parts a recipe of this studio has at most."""
    return {"fibres": studio.habits.get("fibres", MOST_FIBRES), "parts": studio.habits.get("parts", MOST_PARTS)}
