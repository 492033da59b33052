"""What the form of a part says: its sizes and its seat."""

from __future__ import annotations

from django import forms

from wembit.core import units
from wembit.core.fibres import FIRMNESS
from wembit.core.sizes import reshaped, resized
from wembit.web.fields import length_field

from .sizes import sizes

BY_RULE = ("visible", "loose_end_mm")  # left empty, the drawing or the studio's habit tells
AS_SHOWN_MM = 0.02  # a length shown in inches and sent back unchanged may differ by so much
FACES = [("side", "seen from the side"), ("front", "seen from the front"), ("top", "seen from above")]


def read_part(request, now) -> tuple[dict, dict]:
    """The changes of a part that a form brings, and what cannot be read."""
    given, changes, faults = request.POST, {}, {}
    shape = now.shape
    if "shape" in given:
        shape = reshaped(shape, given["shape"])
    lengths = {}
    for size in sizes(shape):
        if size.name in given and shape["kind"] == now.shape["kind"]:
            try:
                found = float(length_field(request.studio, least=0.1, most=10_000).clean(given[size.name]))
                lengths[size.name] = size.mm if abs(found - size.mm) < AS_SHOWN_MM else found
            except forms.ValidationError as fault:
                faults[size.name] = fault.messages[0]
    changes["shape"] = resized(shape, lengths)
    seat = dict(now.seat)
    if "bead" in given:
        try:
            seat["bead_mm"] = float(length_field(request.studio, least=0.5, most=60).clean(given["bead"]))
        except forms.ValidationError as fault:
            faults["bead"] = fault.messages[0]
    if given.get("firmness") in FIRMNESS:
        changes["firmness"] = given["firmness"]
    if given.get("name", "").strip():
        changes["name"] = " ".join(given["name"].split())[:40]
    numbers = {
        "count": (1, 200, changes, 1),
        "visible": (0, 100, changes, 100),
        "loose_end_mm": (0, 200, changes, 1),
        "t": (0, 100, seat, 100),
        "angle": (-360, 360, seat, 1),
        "sink": (-50, 200, seat, 1),
        "by": (0, 100, seat, 100),
        "centre_mm": (-500, 2000, seat, 1),
        "shank_mm": (0, 60, seat, 1),
        "lid": (0, 100, seat, 100),
        "gaze": (-360, 360, seat, 1),
    }
    for name, (least, most, into, divisor) in numbers.items():
        if given.get(name, "").strip() == "":
            if name in BY_RULE and name in given:
                changes[name] = None
            continue
        value = signed(given[name])
        if value is None or not least <= value <= most:
            faults[name] = f"Write a number between {least} and {most}."
        else:
            into[name] = value / divisor
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
        seat["pitch"] = angles[0]
    return changes, faults


def signed(text: str) -> float | None:
    """A number that may be below zero; None when it cannot be read."""
    text = text.strip().replace("−", "-")
    try:
        return -units.number(text[1:]) if text.startswith("-") else units.number(text)
    except ValueError:
        return None


def number(text: str, what: str) -> float:
    try:
        return units.number(text)
    except ValueError:
        raise ValueError(f"Write {what} as a number.") from None
