"""The wires of a figure, from what its parts say of theirs."""

from __future__ import annotations

from collections.abc import Sequence

from wembit.core.craft.armature import BARE_MM, WIRE, Cut, Make, Wire, cutting_list
from wembit.core.pose.carrying import FootWire, Leg, bare_end_mm, feet, legs
from wembit.core.pose.placing import axis_length, section
from wembit.core.pose.rows import Row
from wembit.web.figures.models import Part

from .seating import placed_part

BEGUN_GAUGE_MM = 1.0


def wire_of(part: Part) -> Wire | None:
    """The wire in a part's pieces; None for a part without any."""
    told = part.armature
    wound = part.shape["kind"] == "wrap"
    if not wound and not told:
        return None
    placed = placed_part(part)
    if wound:
        length, gauge = placed.shape.axis_mm, part.shape["wire_mm"]
    else:
        length, gauge = axis_length(placed.shape, placed.seat), told.get("gauge_mm", BEGUN_GAUGE_MM)
    return Wire(
        part.name, part.count, length, gauge,
        bare_mm=told.get("bare_mm", BARE_MM), loop_mm=told.get("loop_mm", 0.0), doubled=told.get("doubled", False),
        through_mm=told.get("through_mm"), back_mm=told.get("back_mm", 0.0),
        twist=told.get("twist", 0.0),
        former=told.get("former", False), kind=told.get("kind", WIRE),
        make=Make(told.get("metal", ""), told.get("coating", "")), sizes=_sizes(part),
    )  # fmt: skip


def _sizes(part: Part) -> tuple[float, ...]:
    """The size of each piece of a row whose pieces differ, as a share of the first."""
    row = Row.of(part.seat.get("row") or {})
    return tuple(row.sizes(part.count)) if row.size != 1 else ()


def wires(parts: Sequence[Part]) -> list[Wire]:
    """The wires of all parts that have one."""
    return [wire for part in parts if (wire := wire_of(part)) is not None]


def feet_of(parts: Sequence[Part]) -> list[FootWire]:
    """The feet whose toes are one wire, by the keys of their parts."""
    found = {part.key: wire for part in parts if (wire := wire_of(part)) is not None}
    hosts = {part.key: part.count for part in parts if part.key in found}
    bound = [
        (part.seat["on"], part.key, found[part.key])
        for part in parts
        if part.key in found and part.seat.get("on") in hosts and not found[part.key].bare_mm
    ]
    return feet(hosts, bound)


def cuts_of(parts: Sequence[Part]) -> list[Cut]:
    """What to cut for all parts; the toes of a foot as one wire."""
    names = {part.key: part.name for part in parts}
    found, one = {part.key: wire for part in parts if (wire := wire_of(part)) is not None}, feet_of(parts)
    toes = {key for foot in one for key in foot.parts}
    cuts = cutting_list(wire for key, wire in found.items() if key not in toes)
    for foot in one:
        wire = found[foot.parts[0]]
        words = f"toes of the {names[foot.host]}, one wire"
        cuts.append(Cut(wire.kind, foot.gauge_mm, words, foot.pieces, foot.cut_mm, wire.former, wire.make))
    return cuts


def legs_of(parts: Sequence[Part], all_g: float) -> list[Leg]:
    """The wired legs and what each of them carries."""
    return legs({part.key: (part.kind, wire) for part in parts if (wire := wire_of(part)) is not None}, all_g)


def hole_mm(part: Part, parts: Sequence[Part]) -> float | None:
    """How long its bare end should be for the hole that it goes into; None where none goes into one."""
    wire, host = wire_of(part), next((other for other in parts if other.key == part.seat.get("on")), None)
    if wire is None or host is None or not wire.bare_mm or wire.through_mm is not None:
        return None
    there = placed_part(host)
    across = 2 * min(section(there.shape, there.seat, min(0.9, max(0.1, part.seat.get("t", 0.5)))))
    return bare_end_mm(wire.gauge_mm, across) if across else None
