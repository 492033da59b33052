"""What the form of one layer says, by what the layer does."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.core import units
from wembit.core.craft.materials import FIRMNESS
from wembit.core.grams.details import (
    ALONG,
    BORDER,
    LINE,
    PATCH,
    RING,
    ROUND,
    ROW,
    SPOTS,
    WEIGHED_ROW_MM,
    grams_per_cm,
    kind_of,
)
from wembit.web.fields import hand_of, read, signed, unless_as_shown

from .part_form import SHOWN_MM

if TYPE_CHECKING:
    from wembit.web.figures.models import Layer
    from wembit.web.request import Request

ROLES = {
    "core": "inside",
    "padding": "soft layer",
    "cover": "cover",
    "coat": "long coat",
    "detail": "spots and lines",
    "weighed": "weighed amount",
}
MEASURED = {SPOTS: "spots", LINE: "a line", BORDER: "a soft border", PATCH: "a patch"}
FIRST = {
    SPOTS: {"spots": 3, "across_mm": 4},
    LINE: {"line_mm": 40, "width_mm": 2},
    BORDER: {"border_mm": 6},
    PATCH: {"area_mm2": 50},
}


SHOWN_G = 0.001


class Reader:
    """Reads one form: every number into `rule`, what cannot be read into `faults` beside its field."""

    def __init__(self, request: Request, layer: Layer) -> None:
        self.given, self.studio, self.member = request.POST, request.studio, request.member
        self.role, self.rule = layer.role, {**layer.rule}
        self.faults: dict[str, str] = {}

    def length(self, name: str, least: float = 0.1, most: float = 10_000) -> None:
        self._measure(name, "length", self.studio.length_unit, least, most, " mm", SHOWN_MM)

    def weight(self, name: str, least: float = 0.001, most: float = 10_000) -> None:
        self._measure(name, "weight", self.studio.weight_unit, least, most, " g", SHOWN_G)

    def _measure(self, name: str, measure: str, unit: str, least: float, most: float, suffix: str, step: float) -> None:
        if name not in self.given:
            return
        try:
            found = read(self.given[name], measure, unit, hand_of(self.member)).value
        except ValueError as fault:
            self.faults[name] = str(fault)
            return
        if least <= found <= most:
            self.rule[name] = unless_as_shown(found, self.rule.get(name), step)
        else:
            self.faults[name] = f"Write between {units.shown(least)} and {units.shown(most)}{suffix}."

    def number(
        self,
        name: str,
        least: float,
        most: float,
        *,
        divisor: float = 1,
        whole: bool = False,
        default: float | None = None,
    ) -> None:
        """A plain number; what the page shows of `default` where the rule has none is no change when it comes back."""
        if name not in self.given:
            return
        found = signed(self.given[name])
        if found is None:
            self.faults[name] = f"Write a number between {units.shown(least)} and {units.shown(most)}."
        elif whole and found != int(found):
            self.faults[name] = "Write a whole number."
        elif least <= found <= most:
            step = 1 / divisor if divisor > 1 else 0.001
            now = self.rule.get(name, default)
            value = int(found) if whole else unless_as_shown(found / divisor, now, step)
            if name in self.rule or value != default:
                self.rule[name] = value
        else:
            self.faults[name] = f"Write a number between {units.shown(least)} and {units.shown(most)}."

    def firmness(self) -> None:
        """The layer's own firmness, or that of the part."""
        chosen = self.given.get("firmness")
        if chosen in FIRMNESS:
            self.rule["firmness"] = chosen
        elif chosen == "" and self.role == "core":
            self.rule.pop("firmness", None)

    def along(self) -> None:
        """From where to where along the axis, in per cent; the whole of it is not written down."""
        ends = {"from": 0.0, "to": 1.0, **dict(zip(("from", "to"), self.rule.pop("along", (0.0, 1.0)), strict=True))}
        keep, self.rule = self.rule, ends
        for name in ends:
            self.number(name, 0, 100, divisor=100)
        ends, self.rule = self.rule, keep
        if ends["from"] >= ends["to"]:
            self.faults.setdefault("to", "Write a larger number than where it begins.")
        elif (ends["from"], ends["to"]) != (0.0, 1.0):
            self.rule["along"] = [ends["from"], ends["to"]]

    def choice(self, name: str, among: tuple[str, ...]) -> None:
        if self.given.get(name) in among and (name in self.rule or self.given[name] != among[0]):
            self.rule[name] = self.given[name]

    def tick(self, name: str, *, default: bool) -> None:
        if name in self.rule or (name in self.given) != default:
            self.rule[name] = name in self.given


def read_layer(request: Request, layer: Layer) -> tuple[dict, dict]:
    """The layer's rule as the form has it, and what has to be changed in the form."""
    form = Reader(request, layer)
    if layer.role in ("core", "padding", "cover", "coat"):
        form.number("share", 0, 100, divisor=100, default=1.0)
    match layer.role:
        case "core":
            form.firmness()
        case "padding":
            form.length("thickness_mm")
            form.firmness()
        case "cover":
            form.number("coats", 0.1, 20, default=1.0)
            form.along()
        case "coat":
            _coat(form)
        case "detail":
            _detail(form, layer)
        case "weighed":
            form.weight("grams")
    return form.rule, form.faults


def _coat(form: Reader) -> None:
    for name in ("row_spacing_mm", "pulled_mm", "finished_mm"):
        form.length(name)
    row_g = form.rule["grams_per_cm"] * WEIGHED_ROW_MM / 10
    form.rule["row_g"] = row_g
    form.weight("row_g")
    if (told := form.rule.pop("row_g")) != row_g:
        form.rule["grams_per_cm"] = grams_per_cm(told)
    form.tick("folded", default=True)
    form.tick("scale_pile", default=False)
    form.along()


def _detail(form: Reader, layer: Layer) -> None:
    kind = form.given.get("measured", kind_of(layer.rule))
    if kind in FIRST and kind != kind_of(layer.rule):
        form.rule = {**FIRST[kind]}
        return
    match kind_of(layer.rule):
        case "spots":
            form.number("spots", 1, 5000, whole=True)
            form.length("across_mm")
            _place(form, 0.0)
            form.choice("laid", (ROW, RING))
        case "line":
            form.length("line_mm")
            form.length("width_mm")
            _place(form)
            form.choice("runs", (ALONG, ROUND))
        case "border":
            form.length("border_mm")
            form.number("part", 1, 100, divisor=100, default=1.0)
        case _:
            form.number("area_mm2", 0.01, 1e6)
            _place(form)
            form.number("stretch", 0.02, 50, default=1.0)
            form.number("pieces", 1, 60, whole=True, default=1)


def _place(form: Reader, angle: float = 90.0) -> None:
    """Where on the skin it lies."""
    form.number("t", 0, 100, divisor=100, default=0.5)
    form.number("angle", -360, 360, default=angle)
