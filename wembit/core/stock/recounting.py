"""What a difference between the book and the scale can mean."""

from __future__ import annotations

# Wool takes up water from the air: its regain is 14–18 % of its dry weight from a dry to a damp room (W. E. Morton & J. W. S.
# Hearle, Physical Properties of Textile Fibres, regain curves), so the same bag weighs up to 3–4 % more or less.
AIR = 0.04
SCALE_G = 0.2  # a kitchen scale's last digit, and what sticks to the pan; common practice


def explained(book: float, found: float, *, wool: bool = True) -> str:
    """In words for a person; '' where there is no difference. Amounts in the item's unit, g for wool."""
    away = found - book
    if not away:
        return ""
    if wool and abs(away) <= max(SCALE_G, AIR * book):
        return "that is the air or the scale, not a loss: wool weighs up to 4 % more in a damp room"
    if away < 0:
        return "less than the book: something was taken and not written down, or the bag was split"
    return "more than the book: something was put back and not written down, or two bags became one"
