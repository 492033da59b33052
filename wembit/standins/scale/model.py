"""How a bench scale behaves: what lies on it, and what it shows of that from moment to moment."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from threading import Lock

OK, OVERLOAD, UNPLUGGED = "ok", "overload", "unplugged"
STEP_G = 0.01
CAPACITY_G = 500.0
SETTLES_S = 1.1  # from a change until it is shown as stable
RISE_S = 0.18  # in which two thirds of a change are shown
SWING_SHARE, SWING_S, SWING_HZ = 0.06, 0.3, 3.0  # of a change it swings beyond, how fast that dies, how often
DRIFT_G_MIN = 0.3  # when it drifts


@dataclass(frozen=True)
class Reading:
    """One reading: `grams` net of the tare, None while nothing can be weighed."""

    number: int
    grams: float | None
    stable: bool
    state: str


class Scale:
    """A scale and what lies on it. Safe for threads; `now` gives seconds that only grow."""

    def __init__(self, now: Callable[[], float], capacity_g: float = CAPACITY_G) -> None:
        self.now, self.capacity_g = now, capacity_g
        self._lock = Lock()
        self._load = self._shown_from = self._tare = 0.0
        self._changed = now() - SETTLES_S
        self._drifts_since: float | None = None
        self._drifted = 0.0
        self._plugged = True
        self._number = 0

    def lay(self, grams: float) -> None:
        """Lay so much on it, or take it off where that is below zero; nothing is less than empty. Raises ValueError."""
        if not math.isfinite(grams) or abs(grams) > 100 * self.capacity_g:
            raise ValueError("grams must be a weight")
        with self._lock:
            self._shown_from, self._load = self._shown(), max(0.0, self._load + grams)
            self._changed = self.now()

    def clear(self) -> None:
        """Take everything off."""
        self.lay(-self._load)

    def tare(self) -> None:
        """What lies on it counts as nothing."""
        with self._lock:
            self._tare = self._load + self._drift()
            self._shown_from, self._changed = self._load, self.now() - SETTLES_S

    def drift(self, on: bool) -> None:
        """Whether it wanders by itself."""
        with self._lock:
            self._drifted, self._drifts_since = self._drift(), self.now() if on else None

    def plug(self, on: bool) -> None:
        """Whether it has power; it comes back with nothing tared."""
        with self._lock:
            if on and not self._plugged:
                self._tare, self._drifted, self._changed = 0.0, 0.0, self.now()
                self._shown_from = 0.0
            self._plugged = on

    def read(self) -> Reading:
        """What it shows now."""
        with self._lock:
            self._number += 1
            if not self._plugged:
                return Reading(self._number, None, False, UNPLUGGED)
            if self._load > self.capacity_g:
                return Reading(self._number, None, False, OVERLOAD)
            net = self._shown() + self._drift() - self._tare
            stable = self.now() - self._changed >= SETTLES_S
            return Reading(self._number, round(round(net / STEP_G) * STEP_G, 2) + 0.0, stable, OK)

    @property
    def load_g(self) -> float:
        """What lies on it."""
        return self._load

    def _shown(self) -> float:
        """The weight before tare and drift: on its way from what was shown to what lies there, with a swing that dies."""
        since, change = self.now() - self._changed, self._load - self._shown_from
        if since >= SETTLES_S:
            return self._load
        swing = SWING_SHARE * change * math.exp(-since / SWING_S) * math.sin(2 * math.pi * SWING_HZ * since)
        return self._load - change * math.exp(-since / RISE_S) + swing

    def _drift(self) -> float:
        wandering = 0.0 if self._drifts_since is None else (self.now() - self._drifts_since) / 60 * DRIFT_G_MIN
        return self._drifted + wandering
