"""The demo figures and body plans as the order of work sees them, without a shelf.

Each layer is a gram, the core of the root four.
"""

from __future__ import annotations

from wembit.core.body_plans.every_plan import PLANS
from wembit.core.contract.requests import SHAPE
from wembit.core.grams.details import kind_of
from wembit.core.shape import sizes
from wembit.core.shape.solids import solid
from wembit.core.work.worked import Wool, Worked
from wembit.demo.figures import FIGURES

ROOT_G = 4.0
THICK = ("thickness_mm", "tube_diameter_mm", "diameter1_mm")


def _wool(layer: dict, slots: dict, seat: dict) -> Wool:
    grams = ROOT_G if layer["role"] == "core" and seat.get("on") is None else layer.get("grams", 1.0)
    how = "" if layer["role"] != "detail" else "line" if seat.get("line") == "spiral" else kind_of(layer)
    return Wool(
        layer["role"], slots[layer["slot"]], layer["slot"], grams, row_cm=30, area_cm2=20, pulled_mm=44, finished_mm=13,
        how=how, t=layer.get("t", 0.5), form="filling" if layer["slot"] == "filling" else "batt",
        share=layer.get("share", 1.0),
    )  # fmt: skip


def worked_part(part, slots: dict, number: int) -> Worked:
    shape, seat, told = part.shape, part.seat, part.armature
    lengths = {name: mm for name, mm in sizes.sizes(shape).items() if name != "wire_mm"}
    wired = shape["kind"] == "wrap" or bool(told)
    return Worked(
        part.name, part.name, part.kind, part.count, seat.get("on"), part.firmness or "",
        tuple(_wool(layer, slots, seat) for layer in part.layers), "1 mm wire" if wired else "", seat.get("bead_mm", 0.0),
        size=" × ".join(f"{mm:.4g}" for mm in lengths.values()), shape=shape["kind"],
        thick_mm=next((lengths[name] for name in THICK if name in lengths), min(lengths.values(), default=0.0)),
        long_mm=max(lengths.values(), default=seat.get("length_mm", 0.0)), through="through_mm" in told,
        cut_list=((part.count, solid(SHAPE(shape, "shape")).axis_mm),) if wired else (),
        bare_mm=told.get("bare_mm", 13.0) if wired else 0.0, doubled=told.get("doubled", False), line=seat.get("line", ""),
        at=seat.get("t", 0.5), round_=seat.get("angle"), hosts=(seat["on"],) if seat.get("on") else (), template=number,
        outline=str(shape.get("outline", "")),
    )  # fmt: skip


def worked_parts(parts, slots) -> list[Worked]:
    """Written parts, numbered."""
    return [worked_part(part, slots, number) for number, part in enumerate(parts, 1)]


BY_NAME = {figure.name: worked_parts(figure.parts, figure.slots) for figure in FIGURES}
BY_PLAN = {key: worked_parts(plan.parts, {slot: slot for slot in plan.colours}) for key, plan in PLANS.items()}
EVERY = {**BY_NAME, **BY_PLAN}
