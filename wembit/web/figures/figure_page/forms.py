"""What the small forms of a figure's page say; a part and a layer have files of their own."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django import forms

from wembit.core.craft.armature import COATINGS, METALS, PIPE_CLEANER, WIRE
from wembit.core.grams.relations import WOOL, Relation
from wembit.core.portions import Wish
from wembit.core.pose.gaze import VIEWS
from wembit.core.pose.placing import LARGEST_MM
from wembit.web.asked import number_in
from wembit.web.fields import (
    ChosenField,
    IdField,
    NumberField,
    ShareField,
    TextField,
    length_field,
    tick_field,
    weight_field,
)
from wembit.web.figures.actions.nudge_part import MOST_DEGREES, MOST_MM, Push
from wembit.web.figures.editing.touching import Touch
from wembit.web.figures.size_words import related
from wembit.web.forms import StudioForm

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence

    from django.http import QueryDict

    from wembit.web.figures.models import Part
    from wembit.web.request import Request

REST = "rest"
MOST_WAY, PAIR = 20_000, 2  # characters of a way; numbers of a point
WIRE_LENGTHS = {
    "gauge_mm": (0.1, 10), "bare_mm": (0, 500), "loop_mm": (0, 500), "back_mm": (0, 2000), "through_mm": (0, 2000),
}  # fmt: skip
PUSHES = {"right_mm": MOST_MM, "up_mm": MOST_MM, "deeper_mm": MOST_MM, "pitch": MOST_DEGREES, "yaw": MOST_DEGREES}


class FigureForm(StudioForm):
    name = TextField(80)
    story = TextField(2000)


class CopyForm(StudioForm):
    copy_name = TextField(80)


class NewPartForm(StudioForm):
    """A part of a kind, so long; where the drawing was touched, if it was."""

    kind = TextField(40)
    name = TextField(40)
    view = TextField(20)
    way = TextField(MOST_WAY)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["length"] = length_field(request.studio)


class FibreForm(StudioForm):
    """The fibre of a colour slot; `part` is the part in hand."""

    item = IdField("Choose a fibre of the shelf.")
    slot = TextField(40)
    part = TextField(40)

    @property
    def faults(self) -> dict[str, str]:
        return {("fibre" if name == "item" else name): words for name, words in super().faults.items()}


class NewLayerForm(StudioForm):
    role = TextField(20)
    new_slot = TextField(40)


def points_in(way: str) -> list[tuple[float, float]]:
    """The points of a finger's way; what cannot be read is left out."""
    numbers = ([number_in(each) for each in word.split(",")] for word in way.split())
    return [
        (x, y)
        for x, y in (pair for pair in numbers if len(pair) == PAIR)
        if x is not None and y is not None and max(abs(x), abs(y)) <= LARGEST_MM
    ]


def touch_in(given: Mapping[str, Any]) -> Touch | None:
    """The first point that was touched on one of the views; None where none was."""
    points = points_in(given["way"])
    return Touch(VIEWS[given["view"]], *points[0]) if points and given["view"] in VIEWS else None


class MarkingForm(StudioForm):
    """The way of a finger over one of the views, as `right,up` in mm, and the colour slot that it draws in."""

    view = ChosenField(VIEWS, "Draw on one of the drawings.")
    way = TextField(MOST_WAY)
    mark_slot = TextField(40)
    both = tick_field()

    def points(self) -> list[tuple[float, float]]:
        return points_in(self.cleaned_data["way"])


class WireForm(StudioForm):
    """The wire in a part, or none."""

    no_wire = tick_field()
    twist = NumberField(0, 200, required=False)
    doubled = tick_field()
    former = tick_field()
    wire_kind = ChosenField([WIRE, PIPE_CLEANER], "Choose wire or pipe cleaner.")
    metal = ChosenField(METALS, "Choose the metal from the list.")
    coating = ChosenField(COATINGS, "Choose what it is covered with from the list.")

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        for name, (least, most) in WIRE_LENGTHS.items():
            self.fields[name] = length_field(request.studio, least=least, most=most, required=False)

    def armature(self) -> dict[str, Any]:
        """The wire as the part keeps it, lengths in mm, the twist as a share; empty for none."""
        given = self.cleaned_data
        if self.has("no_wire"):
            return {}
        told: dict[str, Any] = {name: float(given[name]) for name in WIRE_LENGTHS if given[name] is not None}
        if given["twist"]:
            told["twist"] = given["twist"] / 100
        if given["wire_kind"] != PIPE_CLEANER:
            told |= {name: given[name] for name in ("metal", "coating") if given[name]}
        return told | {
            "doubled": self.has("doubled"),
            "former": self.has("former"),
            "kind": given["wire_kind"] or WIRE,
        }


class PushForm(StudioForm):
    """How far a part is pushed in a view, in mm, and turned, in degrees."""

    view = TextField(20)
    mirror = TextField(4)

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        for name, most in PUSHES.items():
            words = f"A push goes at most {most:g} mm or degrees."
            self.fields[name] = NumberField(-most, most, words=words, required=False)

    @property
    def faults(self) -> dict[str, str]:
        return {"part": next(iter(super().faults.values()))} if self.errors else {}

    def push(self) -> Push:
        """The push; what the page did not send is none. The form must be valid."""
        given = self.cleaned_data
        view = given["view"] if given["view"] in VIEWS else "side"
        far = {name: given[name] or 0.0 for name in PUSHES}
        return Push(view=view, mirror=-1 if given["mirror"] == "-1" else 1, **far)


class RelationForm(StudioForm):
    """What follows what: a size, or the wool, of a part; `of` is a part, a slash, and its size or its wool."""

    size = TextField(40)
    of = TextField(80)
    share = ShareField()
    whole = tick_field()
    gap = TextField(60)

    def __init__(self, request: Request, part: Part, parts: Sequence[Part]) -> None:
        super().__init__(request)
        self.part, self.keys = part, {other.key for other in parts}

    def clean_size(self) -> str:
        """A size of the part, or its wool."""
        size: str = self.cleaned_data["size"]
        if size != WOOL and size not in {relation.name for relation in related(self.part.shape)}:
            raise forms.ValidationError("Choose what follows.")
        return size

    def clean_of(self) -> tuple[str, str]:
        """The part that is followed, and its size or its wool."""
        other, _, of_size = self.cleaned_data["of"].partition("/")
        if other not in self.keys or (self.data.get("size") == WOOL) != (of_size == WOOL):
            raise forms.ValidationError("Choose a part’s wool for wool, a part’s size for a size.")
        return other, of_size

    def clean_gap(self) -> float:
        """So many mm more than the share, or less."""
        text = self.cleaned_data["gap"]
        if not text or self.data.get("size") == WOOL:
            return 0.0
        sign = -1 if text.startswith(("-", "−")) else 1
        return float(length_field(self.studio).clean(text.lstrip("-−"))) * sign

    def relation(self) -> Relation:
        """The relation that the page tells. The form must be valid."""
        given = self.cleaned_data
        other, of_size = given["of"]
        return Relation(given["size"], other, of_size, float(given["share"]), given["gap"], self.has("whole"))


class RestOrShareField(ShareField):
    """A share, or the rest: None; an empty field is no share."""

    def to_python(self, value: Any) -> Any:
        text = (value or "").strip()
        return REST if text.lower() in (REST, "the rest") else super().to_python(text)


class DivideForm(StudioForm):
    """So many grams of a wool, and the share that each part gets, one piece of it: `share_<part>`."""

    item = TextField(40)

    def __init__(self, request: Request, given: QueryDict, parts: Sequence[Part]) -> None:
        super().__init__(request, data=given)
        self.parts = parts
        self.fields["grams"] = weight_field(request.member, least=0.01)
        for part in parts:
            self.fields[f"share_{part.key}"] = RestOrShareField(required=False)

    def wishes(self) -> list[tuple[Part, Wish]]:
        """The parts that get a share, each with its wish; None in a wish is the rest. The form must be valid."""
        told = [(part, self.cleaned_data[f"share_{part.key}"]) for part in self.parts]
        return [
            (part, Wish(part.name, part.count, None if share == REST else share))
            for part, share in told
            if share is not None
        ]


class LooseForm(StudioForm):
    size = TextField(40)
