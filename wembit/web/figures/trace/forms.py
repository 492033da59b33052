"""What the forms of a tracing say: the board with its points, and what becomes of it."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.core.craft.materials import FIRMNESS
from wembit.web.fields import ChosenField, IdField, NumberField, TextField, length_field, tick_field
from wembit.web.figures.to_core import tracings
from wembit.web.forms import RowForm, StudioForm

if TYPE_CHECKING:
    from wembit.web.figures.models import Tracing
    from wembit.web.request import Request

LENGTHS = {
    "thickness_mm": (0.1, 200), "diameter_mm": (0.2, 400), "wire_mm": (0.1, 10), "mark_mm": (0.1, 10_000),
}  # fmt: skip
MARKS = ("mark_x0", "mark_y0", "mark_x1", "mark_y1")
FARTHEST_MM = 1e6


class NewForm(StudioForm):
    """What it becomes, and the picture to draw over: one of the figure's, or a new one with its words."""

    kind = TextField(20)
    reference = IdField("Choose a picture of the figure.", required=False)
    words = TextField(80)


class PictureForm(StudioForm):
    words = TextField(80)


class PointForm(RowForm):
    """One point of the table, in mm of the board."""

    x = NumberField(-FARTHEST_MM, FARTHEST_MM)
    y = NumberField(-FARTHEST_MM, FARTHEST_MM)
    drop = tick_field()

    def is_left_out(self) -> bool:
        """Whether nothing stands there, or the point is to go."""
        filled = any((self.data.get(self.add_prefix(name)) or "").strip() for name in ("x", "y"))
        return not filled or self.has("drop")

    @property
    def faults(self) -> dict[str, str]:
        words = f"Point {int(self.prefix or 0) + 1}: write both places as numbers of mm."
        return {self.add_prefix("x"): words} if self.errors else {}


class BoardForm(StudioForm):
    """The sizes of what is drawn; marks, in units of the board, hold only where the page says that it is `scaled`."""

    firmness = ChosenField(FIRMNESS, "Choose how firm it is.")
    depth = NumberField(1, 1000, words="Write how deep it is, in % of its width: 1 to 1000.")
    scaled = tick_field()
    weigh = tick_field()

    def __init__(self, request: Request, tracing: Tracing) -> None:
        super().__init__(request)
        self.tracing = tracing
        numbers = [n for n in range(tracings.POINTS + 2) if self.has(f"x_{n}") or self.has(f"y_{n}")]
        self.rows = [PointForm(request, n) for n in numbers]
        for name in MARKS:
            self.fields[name] = NumberField(required=False)
        for name, (least, most) in LENGTHS.items():
            self.fields[name] = length_field(request.studio, least=least, most=most)
        for name, field in self.fields.items():
            field.required = field.required and self.has(name)

    @property
    def faults(self) -> dict[str, str]:
        points = [row.faults for row in self.rows if not row.is_left_out()]
        return super().faults | {name: words for point in points for name, words in point.items()}

    def changes(self) -> dict[str, Any]:
        """The fields of the tracing that the page changes. The form must be without faults."""
        sent = self.sent
        points = [row.cleaned_data for row in self.rows if not row.is_left_out() and row.is_valid()]
        changes: dict[str, Any] = {"points": [tracings.units(self.tracing, at["x"], at["y"]) for at in points]}
        marks = [sent.get(name) for name in MARKS]
        if None not in marks and self.has("scaled"):
            changes["marks"] = [marks[:2], marks[2:]]
        changes |= {name: float(sent[name]) for name in LENGTHS if name in sent}
        if "depth" in sent:
            changes["depth_ratio"] = sent["depth"] / 100
        if sent.get("firmness"):
            changes["firmness"] = sent["firmness"]
        return changes


class KeepForm(StudioForm):
    """A new part of a kind and name, or the part whose shape it becomes."""

    kind = TextField(20)
    name = TextField(40)
    part = TextField(40)
