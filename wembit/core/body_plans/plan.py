"""A body plan: a figure of no one in particular, to begin from. And plans as parts that can be stored.

Proportions are common practice of the trade; each can be changed afterwards.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from wembit.core.contract.requests import SHAPE
from wembit.core.pose.placing import PlacedPart, Seat, settle
from wembit.core.shape.solids import solid

from .writing import PlanPart

LONG, HIGH = "long", "high"
LIKE_ENOUGH = 18.0  # ΔE00 from the colour that a slot is thought of in: farther off the maker chooses the wool; assumed


@dataclass(frozen=True)
class BodyPlan:
    """`key` names it in addresses, `name` for makers; `colours`: each slot with the colour it is thought of in, the core
    first; `measure`: what a maker says of its size, LONG or HIGH, and `usual_mm` how much that mostly is. `written`: its parts
    from a word, where it is one; `letters`: the word that is shown first.
    """

    key: str
    name: str
    group: str
    measure: str
    usual_mm: float
    colours: dict[str, str]
    parts: list[PlanPart]
    feet: tuple[str, ...] = ()  # the parts that stand on the ground together
    written: Callable[[str], list[PlanPart]] | None = None
    letters: str = ""


def stored(parts: Sequence[PlanPart]) -> list[dict[str, Any]]:
    """The parts as they are stored: keys from their names, seats turned from the standing pose to what they sit on."""
    keys = {part.name: re.sub(r"[^a-z0-9]+", "-", part.name.lower()).strip("-") for part in parts}
    placed = settle(
        [PlacedPart(part.name, part.count, solid(SHAPE(part.shape, "shape")), Seat.of(part.seat)) for part in parts]
    )
    return [
        {
            "key": keys[part.name],
            "name": part.name,
            "kind": part.kind,
            "count": part.count,
            "shape": part.shape,
            "firmness": part.firmness or "",
            "seat": _seat(part.seat, there.seat, keys),
            "armature": part.armature,
            "relations": [{**relation, "of": keys[relation["of"]]} for relation in part.relations],
            "layers": [
                {
                    "role": layer["role"],
                    "slot": layer["slot"],
                    "over": layer.get("over"),
                    "rule": {key: value for key, value in layer.items() if key not in ("role", "slot", "over")},
                }
                for layer in part.layers
            ],
        }
        for part, there in zip(parts, placed, strict=True)
    ]


def _seat(given: dict, seat: Seat, keys: dict[str, str]) -> dict:
    """The seat as it is kept: angles of the settled seat, the part it sits on by its key."""
    kept = {**given, "pitch": seat.pitch, "yaw": seat.yaw}
    if seat.on:
        kept["on"] = keys[seat.on]
    if seat.bends:
        kept["bends"] = [list(bend) for bend in seat.bends]
    if seat.copies:
        kept["copies"] = [{**copy, **({"on": keys[copy["on"]]} if "on" in copy else {})} for copy in seat.copies]
    return kept
