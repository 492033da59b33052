"""What a difference between the book and the scale can mean."""

from __future__ import annotations

from .air import swing, times

SCALE_G = 0.2  # a kitchen scale's last digit, and what sticks to the pan; common practice
SCALE, NEAR = 0.01, 0.02  # of the weight that a scale may be off, and that what the room's air explains may be
TAKEN = "less than the book: something was taken and not written down, or the bag was split"
PUT_BACK = "more than the book: something was put back and not written down, or two bags became one"


def explained(book: float, found: float, *, kind: str | None = "wool", airs: tuple[float, float] | None = None) -> str:
    """In words for a person; '' where there is no difference. Amounts in g of a fibre of that kind, or (None) of what takes up
    no water; `airs`: the room's humidity in per cent when the book was right last, and now, where somebody told the room.
    """
    away = found - book
    if not away:
        return ""
    if kind is not None:
        if abs(away) <= max(SCALE_G, SCALE * book):
            return "that is the scale, not a loss"
        if airs:
            expected = book * times(kind, *airs)
            low, high = sorted((book, expected))
            if low - max(SCALE_G, NEAR * book) <= found <= high + max(SCALE_G, NEAR * book):
                return (
                    f"that is the air, not a loss: it was {airs[0]:.0f} % damp then and mostly is {airs[1]:.0f} % now"
                )
        elif book and 1 / (1 + swing(kind)) - SCALE <= found / book <= 1 + swing(kind) + SCALE:
            return (
                f"that can be the air, not a loss: {kind} weighs up to {100 * swing(kind):.0f} % more in a damp autumn than in"
                " a heated winter. Say on the walk’s page whether the room is heated, and it is reckoned by the month"
            )
    return TAKEN if away < 0 else PUT_BACK
