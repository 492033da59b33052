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
    given = request.POST
    changes: dict[str, Any] = {}
    faults: dict[str, str] = {}
    shape = now.shape
    if "shape" in given:
        shape = reshaped(shape, given["shape"])
    lengths, exact = {}, exact_sizes(shape)
    for size in sizes(shape):
        if size.name in given and shape["kind"] == now.shape["kind"]:
            try:
                found = float(length_field(request.studio, least=0.1, most=10_000).clean(given[size.name]))
                lengths[size.name] = unless_as_shown(found, exact[size.name], SHOWN_MM)
            except forms.ValidationError as fault:
                faults[size.name] = fault.messages[0]
    changes["shape"] = resized(shape, lengths)
    seat = dict(now.seat)
    if "bead" in given:
        try:
            found = float(length_field(request.studio, least=0.5, most=60).clean(given["bead"]))
            seat["bead_mm"] = unless_as_shown(found, seat.get("bead_mm"), SHOWN_MM)
        except forms.ValidationError as fault:
            faults["bead"] = fault.messages[0]
    if given.get("firmness") in FIRMNESS:
        changes["firmness"] = given["firmness"]
    if given.get("name", "").strip():
        changes["name"] = " ".join(given["name"].split())[:40]
    own = {name: getattr(now, name) for name in PART_NUMBERS}
    for table, into, held in ((PART_NUMBERS, changes, own), (SEAT_NUMBERS, seat, now.seat)):
        for name, (least, most, divisor, step) in table.items():
            if given.get(name, "").strip() == "":
                if name in BY_RULE and name in given:
                    changes[name] = None
                continue
            value = signed(given[name])
            if value is None or not least <= value <= most:
                faults[name] = f"Write a number between {least} and {most}."
            elif name in held or value:  # 0 in a field that the seat has not is no change
                into[name] = unless_as_shown(value / divisor, held.get(name), step / divisor)
    if "count" in changes:
        if changes["count"] != int(changes["count"]):
            faults["count"] = "Write a whole number."
        changes["count"] = int(changes["count"])
    if given.get("on"):
        seat["on"] = given["on"]
    if given.get("face") in dict(FACES):
        seat["face"] = given["face"]
    changes["seat"] = seat
    angles = [signed(given.get(name, "")) for name in ("pitch", "yaw")]
    if None not in angles and now.seat.get("on"):
        changes["standing"] = tuple(angles)
    elif angles[0] is not None and not now.seat.get("on"):
        seat["pitch"] = unless_as_shown(angles[0], seat.get("pitch", 0), ANGLE_STEP)
    return changes, faults
