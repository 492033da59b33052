"""What the form of one layer says, by what the layer does."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.core.craft.materials import FIRMNESS
from wembit.core.grams.details import (
    ALONG,
    BORDER,
    DRAWN,
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
from wembit.web.fields import ChosenField, NumberField, TextField, length_field, unless_as_shown, weight_field
from wembit.web.forms import StudioForm

from .part_form import SHOWN_MM

if TYPE_CHECKING:
    from django import forms

    from wembit.web.figures.models import Layer
    from wembit.web.request import Request

MEASURED = {SPOTS: "spots", LINE: "a line", BORDER: "a soft border", PATCH: "a patch"}
FIRST = {
    SPOTS: {"spots": 3, "across_mm": 4},
    LINE: {"line_mm": 40, "width_mm": 2},
    BORDER: {"border_mm": 6},
    PATCH: {"area_mm2": 50},
}
SHOWN = 0.001  # the step in which a plain number and a weight in g stand in their fields


@dataclass(frozen=True)
class Number:
    """A plain number of a rule; what the page shows of `default` where the rule has none is no change when it comes back."""

    name: str
    least: float
    most: float
    divisor: float = 1
    whole: bool = False
    default: float | None = None

    def field(self, request: Request) -> forms.Field:
        return NumberField(self.least, self.most, whole=self.whole)

    def keep(self, value: Any, rule: dict[str, Any]) -> None:
        """Put the value into the rule, unless it is what the page showed."""
        step = 1 / self.divisor if self.divisor > 1 else SHOWN
        now = rule.get(self.name, self.default)
        told = int(value) if self.whole else unless_as_shown(value / self.divisor, now, step)
        if self.name in rule or told != self.default:
            rule[self.name] = told


@dataclass(frozen=True)
class Length:
    """A length of a rule, in mm."""

    name: str

    def field(self, request: Request) -> forms.Field:
        return length_field(request.studio, least=0.1, most=10_000)

    def keep(self, value: Any, rule: dict[str, Any]) -> None:
        """Put the length into the rule, unless it is what the page showed."""
        rule[self.name] = unless_as_shown(float(value), rule.get(self.name), SHOWN_MM)


@dataclass(frozen=True)
class Weight:
    """A weight of a rule, in g."""

    name: str

    def field(self, request: Request) -> forms.Field:
        return weight_field(request.member, least=0.001, most=10_000)

    def keep(self, value: Any, rule: dict[str, Any]) -> None:
        """Put the weight into the rule, unless it is what the page showed."""
        rule[self.name] = unless_as_shown(float(value), rule.get(self.name), SHOWN)


Measure = Number | Length | Weight
SHARE = Number("share", 0, 100, divisor=100, default=1.0)
TURN = Number("angle", -360, 360, default=90.0)
AT = Number("t", 0, 100, divisor=100, default=0.5)
MEASURES: dict[str, tuple[Measure, ...]] = {
    "core": (SHARE,),
    "padding": (SHARE, Length("thickness_mm")),
    "cover": (SHARE, Number("coats", 0.1, 20, default=1.0)),
    "coat": (SHARE, Length("row_spacing_mm"), Length("pulled_mm"), Length("finished_mm"), Weight("row_g")),
    "weighed": (Weight("grams"),),
    SPOTS: (Number("spots", 1, 5000, whole=True), Length("across_mm"), AT, Number("angle", -360, 360, default=0.0)),
    LINE: (Length("line_mm"), Length("width_mm"), AT, TURN),
    BORDER: (Length("border_mm"), Number("part", 1, 100, divisor=100, default=1.0)),
    DRAWN: (Length("width_mm"),),
    PATCH: (
        Number("area_mm2", 0.01, 1e6),
        AT,
        TURN,
        Number("stretch", 0.02, 50, default=1.0),
        Number("pieces", 1, 60, whole=True, default=1),
    ),
}  # fmt: skip
CHOICES: dict[str, tuple[str, tuple[str, ...]]] = {SPOTS: ("laid", (ROW, RING)), LINE: ("runs", (ALONG, ROUND))}
TICKS = {"folded": True, "scale_pile": False}  # of a coat, with what holds where the rule says nothing
BOTH = "both"  # flanks have what was drawn
ENDS = (Number("from", 0, 100, divisor=100), Number("to", 0, 100, divisor=100))
WHOLE = (0.0, 1.0)  # along the whole axis, which is not written down


class LayerForm(StudioForm):
    """A layer's rule, its colour slot and what it lies over; only what the page sent is changed."""

    slot = TextField(40)
    over = TextField(40)
    measured = TextField(20)
    firmness = ChosenField(FIRMNESS, "Choose how firm it is.")

    def __init__(self, request: Request, layer: Layer) -> None:
        super().__init__(request)
        self.layer, self.role = layer, layer.role
        self.does = kind_of(layer.rule) if self.role == "detail" else self.role
        wanted = self.data.get("measured", self.does)
        self.becomes = wanted if self.role == "detail" and wanted in FIRST and wanted != self.does else ""
        self.measures = () if self.becomes else MEASURES[self.does]
        self.runs_along = self.role in ("cover", "coat")
        for measure in (*self.measures, *(ENDS if self.runs_along else ())):
            if self.has(measure.name):
                self.fields[measure.name] = measure.field(request)
        name, among = CHOICES.get(self.does, ("", ()))
        if name:
            self.fields[name] = ChosenField(among, "Choose how it runs.")

    def clean(self) -> dict[str, Any]:
        if self.runs_along and not {"from", "to"} & set(self.errors):
            start, end = self._ends()
            if start >= end:
                self.add_error("to" if "to" in self.fields else None, "Write a larger number than where it begins.")
        return self.cleaned_data

    def slot_name(self) -> str:
        """The colour slot that it takes."""
        return self.cleaned_data["slot"] if self.has("slot") else self.layer.slot.name

    def over_name(self) -> str:
        """The slot over which it lies; empty for none."""
        if self.has("over"):
            return self.cleaned_data["over"]
        return self.layer.over.name if self.layer.over else ""

    def rule(self) -> dict[str, Any]:
        """The layer's rule as the page has it. The form must be valid."""
        if self.becomes:
            return {**FIRST[self.becomes]}
        rule, given = {**self.layer.rule}, self.sent
        row_g = rule["grams_per_cm"] * WEIGHED_ROW_MM / 10 if self.role == "coat" else None
        if row_g is not None:
            rule["row_g"] = row_g
        for measure in self.measures:
            if measure.name in given:
                measure.keep(given[measure.name], rule)
        if row_g is not None:
            if (told := rule.pop("row_g")) != row_g:
                rule["grams_per_cm"] = grams_per_cm(told)
            self._ticks(rule)
        self._words(rule)
        if self.does == DRAWN and self.has("drawn_shown"):
            rule[BOTH] = self.has(BOTH)
        if self.runs_along:
            rule.pop("along", None)
            if (ends := self._ends()) != WHOLE:
                rule["along"] = list(ends)
        return rule

    def _ends(self) -> tuple[float, float]:
        """From where to where along the axis it lies, 0 to 1."""
        ends: dict[str, Any] = dict(zip(("from", "to"), self.layer.rule.get("along", WHOLE), strict=True))
        for end in ENDS:
            if self.cleaned_data.get(end.name) is not None:
                end.keep(self.cleaned_data[end.name], ends)
        return ends["from"], ends["to"]

    def _ticks(self, rule: dict[str, Any]) -> None:
        for name, default in TICKS.items():
            if name in rule or self.has(name) != default:
                rule[name] = self.has(name)

    def _words(self, rule: dict[str, Any]) -> None:
        """Its own firmness, or that of the part; how spots and lines are laid."""
        if self.role in ("core", "padding") and self.has("firmness"):
            if firmness := self.cleaned_data["firmness"]:
                rule["firmness"] = firmness
            elif self.role == "core":
                rule.pop("firmness", None)
        name, among = CHOICES.get(self.does, ("", ()))
        chosen = self.sent.get(name)
        if chosen and (name in rule or chosen != among[0]):
            rule[name] = chosen
