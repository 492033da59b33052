"""Fields for numbers as people write them; all reading is the core's."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING, Any

from django import forms
from django.core.exceptions import ValidationError

from wembit.core import units
from wembit.web.decimals import to_step
from wembit.web.numbers import MILLIMETRES, PIECES

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Member, Studio


class MeasureField(forms.Field):
    """A length in mm or a weight in g, as a Decimal."""

    def __init__(
        self, *, measure: str, unit: str, hand: Any = units.Hand(), most: float = 1e6, least: float = 0, **options: Any
    ) -> None:
        super().__init__(**options)
        self.measure, self.unit, self.hand, self.most, self.least = measure, unit, hand, most, least

    @property
    def suffix(self) -> str:
        return {"length": " mm", "weight": " g"}.get(self.measure, "")

    def to_python(self, value: Any) -> Any:
        text = (value or "").strip()[:60]
        if not text:
            return None
        try:
            found = read(text, self.measure, self.unit, self.hand)
        except ValueError as fault:
            raise ValidationError(str(fault), code="unreadable") from None
        if found.value < self.least:
            raise ValidationError(f"Write at least {units.shown(self.least)}{self.suffix}.", code="least")
        if found.value > self.most:
            raise ValidationError(
                f"That is more than {units.shown(self.most)}{self.suffix}. Check the unit.", code="most"
            )
        return to_step(found.value)

    def validate(self, value: Any) -> None:
        if value is None and self.required:
            raise ValidationError("Write how much, like 7.5 g." if self.measure == "weight" else "Write a length.")


def read(text: str, measure: str, unit: str, hand: units.Hand = units.Hand()) -> units.Measure:
    """The core's reading of a text. Raises ValueError with a message for a person."""
    if measure == "length":
        return units.length(text, unit)
    if measure == "count":
        found = units.number(text)
        if found != int(found):
            raise units.Unreadable("Write a whole number of pieces.")
        return units.Measure(found, f"{found:g} pieces")
    return units.weight(text, unit, hand)


def signed(text: str) -> float | None:
    """A number that may be below zero; None when it cannot be read."""
    text = text.strip().replace("−", "-")
    try:
        return -units.number(text[1:]) if text.startswith("-") else units.number(text)
    except ValueError:
        return None


def number(text: str, what: str) -> float:
    """A plain number. Raises ValueError that says `what` to write."""
    try:
        return units.number(text)
    except ValueError:
        raise ValueError(f"Write {what} as a number.") from None


def unless_as_shown(given: float, now: float | None, step: float) -> float:
    """`now` where `given` is only how a field of that step shows it and sends it back, else `given`."""
    return now if now is not None and abs(given - now) <= 0.51 * step else given


def hand_of(member: Member, item: Item | None = None) -> units.Hand:
    """What a pinch, a palm and a metre weigh: of this item where the scale has shown it, else the member's own pinch."""
    pinch = (item.pinch_g if item else None) or member.pinch_g
    palm = item.palm_g if item else None
    return units.Hand(
        float(pinch) if pinch else None, float(palm) if palm else None, item.grams_a_metre if item else None
    )


def weight_field(member: Member, item: Item | None = None, **options: Any) -> MeasureField:
    """A weight in g, as the member writes it."""
    return MeasureField(measure="weight", unit=member.studio.weight_unit, hand=hand_of(member, item), **options)


def length_field(studio: Studio, **options: Any) -> MeasureField:
    """A length in mm, as the studio writes it."""
    return MeasureField(measure="length", unit=studio.length_unit, **options)


def amount_field(member: Member, unit: str, item: Item | None = None, **options: Any) -> MeasureField:
    """The field of an item's amount, by the item's unit; of wool also by what the scale has learnt of the item."""
    if unit == PIECES:
        return MeasureField(measure="count", unit="", **options)
    if unit == MILLIMETRES:
        return MeasureField(measure="length", unit=member.studio.length_unit, **options)
    return weight_field(member, item, **options)


class DayField(forms.DateField):
    """A date; ISO as the browser's own field gives it."""

    def __init__(self, **options: Any) -> None:
        options.setdefault("error_messages", {"invalid": "Write a day, like 2026-12-09.", "required": "Choose a day."})
        super().__init__(input_formats=["%Y-%m-%d", "%d.%m.%Y", "%d/%m/%Y"], **options)


def not_past(date: dt.date, today: dt.date, what: str) -> None:
    """Raises ValidationError when the date lies behind."""
    if date < today:
        raise ValidationError(f"{what} lies behind. Choose {today:%-d %B} or later.")
    if date > today + dt.timedelta(days=3660):
        raise ValidationError(f"{what} is more than ten years away. Check the year.")
