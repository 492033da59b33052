"""The scale of the bench, behind one interface: any bridge that answers as docs/formats.md says can take its place."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass
from typing import Any

from django.conf import settings

from wembit.web.errors import Refusal

OK, OVERLOAD, UNPLUGGED = "ok", "overload", "unplugged"
MOST_G = 100_000.0


@dataclass(frozen=True)
class ScaleReading:
    """What a bridge says of its scale: `grams` net of the tare, None while nothing can be weighed."""

    grams: float | None
    stable: bool
    state: str

    def weighed(self) -> float:
        """The weight in g. Raises `Refusal` where the scale is not steady, not there, or too heavily laden."""
        if self.state == OVERLOAD:
            raise Refusal("There is too much on the scale. Take some off.", "amount")
        if self.state != OK or self.grams is None:
            raise Refusal("The scale shows nothing. Look whether it has power, or write the weight.", "amount")
        if not self.stable:
            raise Refusal("The scale is not steady yet. Wait a moment, then press again.", "amount")
        return self.grams


def bridge_address() -> str:
    """Where the browser finds the bridge, without a slash at its end; empty where there is none."""
    return settings.WEMBIT_SCALE


def understood(text: str) -> ScaleReading:
    """A reading as a bridge sends it. Raises `Refusal` for anything else."""
    try:
        row: Any = json.loads(text)
        grams, stable, state = row["grams"], row["stable"], row["state"]
    except (ValueError, TypeError, KeyError, RecursionError):
        raise Refusal("The scale said something odd. Write the weight instead.", "amount") from None
    is_weight = grams is None or (type(grams) in (int, float) and math.isfinite(grams) and abs(grams) <= MOST_G)
    if not (is_weight and type(stable) is bool and state in (OK, OVERLOAD, UNPLUGGED)):
        raise Refusal("The scale said something odd. Write the weight instead.", "amount")
    return ScaleReading(None if grams is None else float(grams), stable, state)
