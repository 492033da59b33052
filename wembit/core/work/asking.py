"""How much the bench asks for: what is left, a little more where nothing is; and what on the scale is a bag and no tuft."""

from __future__ import annotations

A_LITTLE = 0.1  # of what a layer takes: what is added where it has all; common practice
BAG_FROM = 3.0  # times what is asked for


def asked_g(left_g: float, whole_g: float, taken_g: float) -> float:
    """What to take next of what is left of the whole, in g."""
    return left_g or (A_LITTLE * whole_g if taken_g else whole_g)


def bag_from_g(asked: float, most_g: float) -> float:
    """From what weight on, in g, something is a bag: far more than is asked for and than nine in ten take."""
    return BAG_FROM * max(asked, most_g)
