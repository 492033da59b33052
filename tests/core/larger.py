"""A seat × so many times, for the tests that hold a larger figure against a smaller one."""

from dataclasses import replace

from wembit.core.pose.placing import LENGTHS, Seat


def larger(seat: Seat, s: float) -> Seat:
    """Every length × s; shares of an axis and angles stay."""
    return replace(
        seat,
        sink_mm=seat.sink_mm * s,
        centre_mm=seat.centre_mm * s,
        bends=tuple((length * s, pitch) for length, pitch in seat.bends),
        copies=tuple({key: mm * s if key in LENGTHS else mm for key, mm in copy.items()} for copy in seat.copies),
        bead=replace(seat.bead, mm=seat.bead.mm * s),
        line=replace(seat.line, length_mm=seat.line.length_mm * s, width_mm=seat.line.width_mm * s),
    )
