"""What the forms of a figure say: a part's sizes and seat, its layers."""

from __future__ import annotations

from django import forms

from wembit.core import units
from wembit.core.fibres import FIRMNESS
from wembit.web.fields import length_field, read

from .sizes import reshaped, resized, sizes

AS_SHOWN_MM = 0.02  # a length shown in inches and sent back unchanged may differ by so much
FACES = [("side", "seen from the side"), ("front", "seen from the front"), ("top", "seen from above")]
ROLES = {
    "core": "inside",
    "padding": "soft layer",
    "cover": "cover",
    "coat": "long coat",
    "detail": "spots and lines",
    "weighed": "weighed amount",
}


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
        "t": (0, 100, seat, 100),
        "angle": (-360, 360, seat, 1),
        "sink": (-50, 200, seat, 1),
        "by": (0, 100, seat, 100),
        "centre_mm": (-500, 2000, seat, 1),
    }
    for name, (least, most, into, divisor) in numbers.items():
        if given.get(name, "").strip() == "":
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


def read_layers(request) -> tuple[list[dict], dict]:
    given, rows = request.POST, []
    for index in range(30):
        role = given.get(f"role_{index}", "")
        if role not in ROLES or given.get(f"drop_{index}"):
            continue
        rule: dict = {}
        try:
            if role in ("core", "cover", "coat", "padding"):
                rule["share"] = number(given.get(f"share_{index}") or "100", "the share") / 100
            if role == "padding":
                rule |= {"thickness_mm": _length(request, f"size_{index}", "4 mm"), "firmness": "airy"}
            if role == "detail":
                rule["area_mm2"] = number(given.get(f"size_{index}") or "50", "the area in mm²")
            if role == "weighed":
                rule["grams"] = read(given.get(f"size_{index}") or "0.1", "weight", "g", request.member.pinch_g).value
            if role == "coat":
                rule |= {
                    "finished_mm": _length(request, f"size_{index}", "13 mm"),
                    "pulled_mm": _length(request, f"pulled_{index}", "44 mm"),
                    "row_spacing_mm": _length(request, f"rows_{index}", "6 mm"),
                    "grams_per_cm": number(given.get(f"row_g_{index}") or "0.035", "grams a cm of row"),
                    "folded": True,
                }
        except ValueError as fault:
            return rows, {"layers": str(fault)}
        over = "core" if role in ("cover", "detail") else ""
        rows.append({"role": role, "slot": given.get(f"slot_{index}", ""), "over": over, "rule": rule})
    return rows, {}


def number(text: str, what: str) -> float:
    try:
        return units.number(text)
    except ValueError:
        raise ValueError(f"Write {what} as a number.") from None


def _length(request, name: str, otherwise: str) -> float:
    return read(request.POST.get(name) or otherwise, "length", request.studio.length_unit).value
