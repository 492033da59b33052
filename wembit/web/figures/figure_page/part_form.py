"""What the form of a part says: its sizes and its seat."""

from __future__ import annotations

from dataclasses import asdict
from typing import TYPE_CHECKING, Any

from wembit.core.craft.cutter_shapes import CUTTERS
from wembit.core.craft.materials import FIRMNESS
from wembit.core.pose.rows import ALONG, OVER, ROUND, Row
from wembit.core.shape.sizes import cut_as, reshaped, resized
from wembit.core.shape.sizes import sizes as exact_sizes
from wembit.core.shape.solids import Slab
from wembit.web.fields import ChosenField, NumberField, PatternField, TextField, length_field, unless_as_shown
from wembit.web.figures.drawing.layout import BEAD
from wembit.web.figures.editing.following import held_sizes
from wembit.web.figures.size_words import sizes
from wembit.web.forms import StudioForm

if TYPE_CHECKING:
    from wembit.web.figures.models import Part
    from wembit.web.request import Request

BY_RULE = ("visible", "loose_end_mm")  # left empty, the drawing or the studio's habit tells
SHOWN_MM = 0.03  # a length shown in thousandths of an inch and sent back unchanged may differ by half of it
# a number of the form: the least, the most, what it is divided by, and the step in which the page shows it
PART_NUMBERS = {
    "count": (1, 200, 1, 0),
    "visible": (0, 100, 100, 1),
    "loose_end_mm": (0, 200, 1, 0.001),
}
SEAT_NUMBERS = {
    "t": (0, 100, 100, 1),
    "angle": (-360, 360, 1, 0.1),
    "sink": (-50, 200, 1, 0.1),
    "by": (0, 100, 100, 1),
    "centre_mm": (-500, 2000, 1, 0.1),
    "shank_mm": (0, 60, 1, 0.001),
    "lid": (0, 100, 100, 1),
    "gaze": (-360, 360, 1, 0.001),
}
# of a row: the same
ROW_NUMBERS = {
    "to": (0, 100, 100, 1),
    "spread": (1, 360, 1, 1),
    "turn": (-180, 180, 1, 1),
    "size": (10, 300, 100, 1),
}
ROWS = [("", "as they are"), (ROUND, "evenly round it"), (ALONG, "in a line along it"), (OVER, "all over it")]
ROW = "row_"
ANGLE_STEP = 1  # degrees in which the page shows how a part points
FACES = [("side", "seen from the side"), ("front", "seen from the front"), ("top", "seen from above")]


class PartForm(StudioForm):
    """Sizes, firmness, count and seat of a part; only what the page sent, and shows otherwise now, is a change."""

    name = TextField(40)
    firmness = ChosenField(FIRMNESS, "Choose how firm it is.")
    shape = TextField(40)
    outline = ChosenField(CUTTERS, "Choose an outline.")
    on = TextField(40)
    face = ChosenField(FACES, "Choose which side is seen.")
    row_how = ChosenField(ROWS, "Choose how they stand.")
    bead_srgb = PatternField("^#[0-9a-fA-F]{6}$", "A colour like #c08030.")
    pitch = NumberField(required=False)
    yaw = NumberField(required=False)

    def __init__(self, request: Request, now: Part) -> None:
        super().__init__(request)
        self.now = now
        self.chosen = reshaped(now.shape, self.data.get("shape", now.shape["kind"]))
        same, held = self.chosen["kind"] == now.shape["kind"], held_sizes(now)
        self.lengths = [size.name for size in sizes(self.chosen) if same and size.name not in held]
        for name, (least, most, _, _) in {**PART_NUMBERS, **SEAT_NUMBERS}.items():
            self.fields[name] = NumberField(least, most, required=False, whole=name == "count")
        for name, (least, most, _, _) in ROW_NUMBERS.items():
            self.fields[ROW + name] = NumberField(least, most, required=False)
        for name in self.lengths:
            self.fields[name] = length_field(request.studio, least=0.1, most=10_000, required=self.has(name))
        self.fields["bead"] = length_field(request.studio, least=0.5, most=60, required=self.has("bead"))

    @property
    def has_other_shape(self) -> bool:
        """Whether the page asks for another kind of shape than the part has."""
        return self.data.get("shape", self.now.shape["kind"]) != self.now.shape["kind"]

    def habit_mm(self) -> float | None:
        """The loose end that becomes the studio's habit, in mm; None where it is the part's own."""
        return self.cleaned_data["loose_end_mm"] if self.has("habit") else None

    def changes(self) -> dict[str, Any]:
        """The fields of the part that change, its whole shape and its whole seat. The form must be valid."""
        given, now = self.sent, self.now
        held = {name: getattr(now, name) for name in PART_NUMBERS}
        changes: dict[str, Any] = {
            **{name: None for name in BY_RULE if name in given},  # written over by what stands in the field
            **_numbers(given, PART_NUMBERS, held),
            **{name: given[name] for name in ("firmness",) if given.get(name)},
            "shape": self._shape(),
            "seat": now.seat | _numbers(given, SEAT_NUMBERS, now.seat) | self._bead(),
        }
        if name := " ".join(given.get("name", "").split()):
            changes["name"] = name
        if "count" in changes:
            changes["count"] = int(changes["count"])
        if self.habit_mm() is not None:
            del changes["loose_end_mm"]
        changes["seat"] |= {name: given[name] for name in ("on", "face") if given.get(name)}
        changes["seat"] = self._in_a_row(changes["seat"])
        pitch, yaw = given.get("pitch"), given.get("yaw")
        if now.seat.get("on") and pitch is not None and yaw is not None:
            changes["standing"] = (pitch, yaw)
        elif not now.seat.get("on") and pitch is not None:
            changes["seat"]["pitch"] = unless_as_shown(pitch, now.seat.get("pitch", 0), ANGLE_STEP)
        return changes

    def _in_a_row(self, seat: dict[str, Any]) -> dict[str, Any]:
        """The seat with its row, which takes the place of copies; without one where they stand as they are."""
        now = self.now.seat.get("row") or {}
        how = self.sent.get(ROW + "how", now.get("how", ""))
        if not seat.get("on") or not any(name.startswith(ROW) for name in self.data):
            return seat
        if not how:
            return {key: value for key, value in seat.items() if key != "row"}
        given = {name: self.sent.get(ROW + name) for name in ROW_NUMBERS}
        row = now | _numbers(given, ROW_NUMBERS, asdict(Row.of(now))) | {"how": how}
        if self.has("row_shown"):
            row["both"] = self.has("row_both")
        if how != now.get("how") and given["to"] is None:
            row["to"] = round(1 - seat.get("t", 0.5), 2)  # to the other end
        return {key: value for key, value in seat.items() if key not in ("copies", "pair")} | {"row": row}

    def _shape(self) -> dict:
        """The shape with the sizes of the form; those of another kind are not sizes of it."""
        exact, given = exact_sizes(self.chosen), self.sent
        lengths = {
            name: unless_as_shown(float(given[name]), exact[name], SHOWN_MM) for name in self.lengths if name in given
        }
        cut = given.get("outline") and self.chosen["kind"] == Slab.KIND
        return resized(cut_as(self.chosen, given["outline"]) if cut else self.chosen, lengths)

    def _bead(self) -> dict[str, float | str]:
        """The size of an eye, in mm, and its colour; black, which is any, is not told."""
        told: dict[str, float | str] = {}
        if "bead" in self.sent:
            told["bead_mm"] = unless_as_shown(float(self.sent["bead"]), self.now.seat.get("bead_mm"), SHOWN_MM)
        colour = self.sent.get("bead_srgb", "").lower()
        if colour and colour != self.now.seat.get("bead_srgb", BEAD):
            told["bead_srgb"] = "" if colour == BEAD else colour
        return told


def _numbers(given: dict[str, Any], table: dict, held: dict) -> dict[str, float]:
    """The numbers of the table that the form gives, where they are not what the page showed."""
    told = {}
    for name, (_, _, divisor, step) in table.items():
        value = given.get(name)
        if value is not None and (name in held or value):  # 0 in a field that the seat has not is no change
            told[name] = unless_as_shown(value / divisor, held.get(name), step / divisor)
    return told
