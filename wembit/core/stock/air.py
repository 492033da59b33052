"""How much water a fibre holds in the air of a room: why a bag weighs more in a damp autumn than in a heated winter.

Regain is the water in hundredths of the dry weight. Sorption of wool, silk, cotton and polyester after the curves in W. E.
Morton & J. W. S. Hearle, Physical Properties of Textile Fibres; from memory, between the branches of wetting and drying.
"""

from __future__ import annotations

import datetime as dt

import numpy as np

HUMIDITY = (20.0, 30.0, 40.0, 50.0, 60.0, 65.0, 70.0, 80.0, 90.0)  # relative, in per cent
REGAIN = {
    "wool": (6.5, 8.4, 10.2, 12.0, 14.2, 15.3, 16.4, 19.0, 23.5),
    "silk": (4.6, 5.8, 7.0, 8.3, 9.8, 10.7, 11.6, 14.0, 18.0),
    "plant": (2.9, 3.8, 4.6, 5.5, 6.6, 7.3, 8.1, 10.4, 14.5),
    "polyester": (0.1, 0.2, 0.2, 0.3, 0.4, 0.4, 0.4, 0.5, 0.6),
}
OF_BREED = {"silk": "silk", "polyester": "polyester"}  # all others are wool, or hair that takes up as much
HEATED, UNHEATED = "heated", "unheated"
ROOMS = {HEATED: "heated in winter", UNHEATED: "not heated"}
# Relative humidity indoors in per cent, January to December in a mild climate of the north; common practice
BY_MONTH = {
    HEATED: (35, 36, 40, 45, 52, 58, 60, 60, 58, 52, 43, 37),
    UNHEATED: (80, 78, 75, 70, 68, 68, 68, 70, 74, 80, 82, 82),
}
DRIEST, DAMPEST = 30.0, 80.0  # where nobody has said in which room the wool lies
SOUTH = ("Australia/", "Antarctica/", "Pacific/Auckland", "Africa/Johannesburg", "America/Argentina", "America/Montevideo",
         "America/Santiago", "America/Sao_Paulo")  # fmt: skip


def kind_of(breed: str) -> str:
    """Wool, silk or polyester."""
    return OF_BREED.get(breed, "wool")


def regain(kind: str, humidity: float) -> float:
    """Water as a share of the dry weight, at that relative humidity in per cent."""
    return float(np.interp(humidity, HUMIDITY, REGAIN[kind])) / 100


def humidity_in(room: str, day: dt.date, timezone: str = "") -> float:
    """How damp such a room mostly is in that month, in per cent; half a year later where it is the south."""
    south = timezone.startswith(SOUTH)
    return float(BY_MONTH[room][(day.month - 1 + 6 * south) % 12])


def times(kind: str, then: float, now: float) -> float:
    """How many times as much the same wool weighs in another air."""
    return (1 + regain(kind, now)) / (1 + regain(kind, then))


def swing(kind: str) -> float:
    """The largest such change, up, from a heated winter to a damp autumn, as a share."""
    return times(kind, DRIEST, DAMPEST) - 1
