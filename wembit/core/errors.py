"""The one error that the core raises for input it cannot use."""

from __future__ import annotations

import json
import math

RING = "ring"  # parts that sit on, or follow, each other; `names`: their keys


class BadInput(ValueError):
    """A value that breaks a rule: where it stands, what the rule asks, what was got.

    `code` and `names` tell programs what `what` tells people, where one of them has to know.
    """

    def __init__(
        self, where: str, what: str, got: object = None, *, code: str = "", names: tuple[str, ...] = ()
    ) -> None:
        super().__init__(f"{where}: {what}")
        self.where, self.what, self.got, self.code, self.names = where, what, got, code, names

    def as_json(self) -> dict:
        return {"error": {"where": self.where, "what": self.what, "got": _shown(self.got)}}


def _shown(value: object) -> object:
    """The value as JSON can carry it: no NaN, nothing longer than a line."""
    if isinstance(value, float) and not math.isfinite(value):
        return "NaN" if math.isnan(value) else ("Infinity" if value > 0 else "-Infinity")
    if isinstance(value, str):
        return value if len(value) <= 200 else value[:200] + "…"
    if value is None or isinstance(value, bool | float):
        return value
    if isinstance(value, int):
        return value if abs(value) < 10**18 else "a whole number of more than 18 digits"
    try:
        text = json.dumps(value)
    except (ValueError, RecursionError):
        return "…"
    return value if len(text) <= 200 and "NaN" not in text and "Infinity" not in text else text[:200] + "…"
