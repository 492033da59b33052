"""What the form of a part says: its sizes and its seat."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django import forms

from wembit.core.craft.materials import FIRMNESS
from wembit.core.shape.sizes import reshaped, resized
from wembit.core.shape.sizes import sizes as exact_sizes
from wembit.web.fields import length_field, signed, unless_as_shown
from wembit.web.figures.models import Part
from wembit.web.figures.size_words import sizes

if TYPE_CHECKING:
    from collections.abc import Mapping

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
ANGLE_STEP = 1  # degrees in which the page shows how a part points
FACES = [("side", "seen from the side"), ("front", "seen from the front"), ("top", "seen from above")]


def read_part(request: Request, now: Part) -> tuple[dict, dict]:
    """The changes of a part that a form brings, and what cannot be read."""
    given = request.POST.dict()
    faults: dict[str, str] = {}
    own = {name: getattr(now, name) for name in PART_NUMBERS}
    changes: dict[str, Any] = {
        **{name: None for name in BY_RULE if name in given},  # written over by what stands in the field
        **_numbers(given, PART_NUMBERS, own, faults),
        **_words(given),
        "shape": _shape(request, now, faults),
    }
    if changes.get("count", 1) % 1:
        faults["count"] = "Write a whole number."
    elif "count" in changes:
        changes["count"] = int(changes["count"])
    seat = now.seat | _numbers(given, SEAT_NUMBERS, now.seat, faults) | _bead(request, now, faults)
    if given.get("on"):
        seat["on"] = given["on"]
    if given.get("face") in dict(FACES):
        seat["face"] = given["face"]
    pitch, yaw = (signed(given.get(name, "")) for name in ("pitch", "yaw"))
    if now.seat.get("on") and pitch is not None and yaw is not None:
        changes["standing"] = (pitch, yaw)
    elif not now.seat.get("on") and pitch is not None:
        seat["pitch"] = unless_as_shown(pitch, seat.get("pitch", 0), ANGLE_STEP)
    return changes | {"seat": seat}, faults


def _shape(request: Request, now: Part, faults: dict[str, str]) -> dict:
    """The shape with the sizes of the form; those of another kind are not sizes of it. Adds to `faults`."""
    given = request.POST
    shape = reshaped(now.shape, given["shape"]) if "shape" in given else now.shape
    lengths, exact = {}, exact_sizes(shape)
    for size in sizes(shape):
        if size.name in given and shape["kind"] == now.shape["kind"]:
            field = length_field(request.studio, least=0.1, most=10_000)
            try:
                lengths[size.name] = unless_as_shown(float(field.clean(given[size.name])), exact[size.name], SHOWN_MM)
            except forms.ValidationError as fault:
                faults[size.name] = fault.messages[0]
    return resized(shape, lengths)


def _bead(request: Request, now: Part, faults: dict[str, str]) -> dict[str, float]:
    """The size of an eye, in mm. Adds to `faults`."""
    if "bead" not in request.POST:
        return {}
    try:
        found = float(length_field(request.studio, least=0.5, most=60).clean(request.POST["bead"]))
    except forms.ValidationError as fault:
        faults["bead"] = fault.messages[0]
        return {}
    return {"bead_mm": unless_as_shown(found, now.seat.get("bead_mm"), SHOWN_MM)}


def _numbers(given: Mapping[str, str], table: dict, held: dict, faults: dict[str, str]) -> dict[str, float]:
    """The numbers of the table that the form gives, where they are not what the page showed. Adds to `faults`."""
    found = {}
    for name, (least, most, divisor, step) in table.items():
        if given.get(name, "").strip() == "":
            continue
        value = signed(given[name])
        if value is None or not least <= value <= most:
            faults[name] = f"Write a number between {least} and {most}."
        elif name in held or value:  # 0 in a field that the seat has not is no change
            found[name] = unless_as_shown(value / divisor, held.get(name), step / divisor)
    return found


def _words(given: Mapping[str, str]) -> dict[str, str]:
    """The name and the firmness, where the form gives one."""
    found = {}
    if given.get("firmness") in FIRMNESS:
        found["firmness"] = given["firmness"]
    if given.get("name", "").strip():
        found["name"] = " ".join(given["name"].split())[:40]
    return found
