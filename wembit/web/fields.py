"""Fields for numbers as people write them; all reading is the core's."""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Iterable
from decimal import Decimal
from fractions import Fraction
from typing import TYPE_CHECKING, Any

from django import forms
from django.core.exceptions import ValidationError
from django.core.validators import ProhibitNullCharactersValidator

from wembit.core import units
from wembit.web.decimals import to_cent, to_step
from wembit.web.numbers import MILLIMETRES, PIECES

if TYPE_CHECKING:
    from wembit.web.stash.models import Item, Lot
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
            measure = read(text, self.measure, self.unit, self.hand)
        except ValueError as fault:
            raise ValidationError(str(fault), code="unreadable") from None
        if measure.value < self.least:
            raise ValidationError(f"Write at least {units.shown(self.least)}{self.suffix}.", code="least")
        if measure.value > self.most:
            raise ValidationError(
                f"That is more than {units.shown(self.most)}{self.suffix}. Check the unit.", code="most"
            )
        return to_step(measure.value)

    def validate(self, value: Any) -> None:
        if value is None and self.required:
            raise ValidationError("Write how much, like 7.5 g." if self.measure == "weight" else "Write a length.")


def read(text: str, measure: str, unit: str, hand: units.Hand = units.Hand()) -> units.Measure:
    """The core's reading of a text. Raises ValueError with a message for a person."""
    if measure == "length":
        return units.length(text, unit)
    if measure == "count":
        return units.pieces(text)
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


def hand_of(member: Member, item: Item | None = None, lot: Lot | None = None) -> units.Hand:
    """What a pinch, a palm and a metre weigh, of this item where the scale has shown it, else the member's own pinch; the
    member's wisp and handful; and what this bag holds.
    """
    pinch = (item.pinch_g if item else None) or member.hand.get("pinch") or member.pinch_g
    palm = item.palm_g if item else None
    return units.Hand(
        float(pinch) if pinch else None, float(palm) if palm else None, item.grams_a_metre if item else None,
        float(lot.on_hand) if lot is not None and lot.weighed else None,
        member.hand.get("wisp"), member.hand.get("handful"),
    )  # fmt: skip


def weight_field(member: Member, item: Item | None = None, lot: Lot | None = None, **options: Any) -> MeasureField:
    """A weight in g, as the member writes it."""
    return MeasureField(measure="weight", unit=member.studio.weight_unit, hand=hand_of(member, item, lot), **options)


def length_field(studio: Studio, **options: Any) -> MeasureField:
    """A length in mm, as the studio writes it."""
    return MeasureField(measure="length", unit=studio.length_unit, **options)


def amount_field(
    member: Member, unit: str, item: Item | None = None, lot: Lot | None = None, **options: Any
) -> MeasureField:
    """The field of an item's amount, by the item's unit; of wool also by what the scale has learnt of the item, and by shares
    of the bag.
    """
    if unit == PIECES:
        return MeasureField(measure="count", unit="", **options)
    if unit == MILLIMETRES:
        return MeasureField(measure="length", unit=member.studio.length_unit, **options)
    return weight_field(member, item, lot, **options)


class TextField(forms.CharField):
    """Words of at most `most` characters, without NUL, which nobody types and no database takes."""

    def __init__(self, most: int, *, words: str = "Write something here.", required: bool = False) -> None:
        long = f"That is longer than {most} characters. Shorten it."
        super().__init__(max_length=most, required=required, error_messages={"required": words, "max_length": long})

    def to_python(self, value: Any) -> str:
        return super().to_python(value.replace("\0", "") if isinstance(value, str) else value) or ""


class ChosenField(forms.ChoiceField):
    """One of a list, by its key; `words` say what to choose. Not required, it may be left empty."""

    def __init__(self, choices: Iterable[Any], words: str, *, required: bool = False) -> None:
        pairs = [choice if isinstance(choice, tuple) else (choice, choice) for choice in choices]
        super().__init__(choices=pairs, required=required, error_messages={"required": words, "invalid_choice": words})


class PatternField(forms.RegexField):
    """Words of one pattern; `words` are its only fault."""

    def __init__(self, pattern: str, words: str, *, required: bool = False) -> None:
        super().__init__(pattern, required=required, error_messages={"required": words, "invalid": words})
        self.validators = [
            validator for validator in self.validators if not isinstance(validator, ProhibitNullCharactersValidator)
        ]


class IdField(forms.UUIDField):
    """The id of a thing of the studio; `words` say what to choose."""

    def __init__(self, words: str, *, required: bool = True) -> None:
        super().__init__(required=required, error_messages={"required": words, "invalid": words})


class WholeField(forms.IntegerField):
    """A whole number from `least` to `most`; `words` are its only fault."""

    def __init__(self, least: int, most: int, words: str, *, required: bool = True) -> None:
        keys = ("required", "invalid", "min_value", "max_value")
        super().__init__(min_value=least, max_value=most, required=required, error_messages=dict.fromkeys(keys, words))


class NumberField(forms.Field):
    """A number as people write one, also below zero, from `least` to `most`; None for an empty field."""

    def __init__(
        self, least: float = -1e12, most: float = 1e12, *, words: str = "", required: bool = True, whole: bool = False
    ) -> None:
        super().__init__(required=required)
        self.least, self.most, self.whole = least, most, whole
        self.words = words or f"Write a number between {units.shown(least)} and {units.shown(most)}."

    def to_python(self, value: Any) -> float | None:
        text = (value or "").strip()[:60]
        if not text:
            return None
        found = signed(text)
        if found is None or not self.least <= found <= self.most:
            raise ValidationError(self.words, code="invalid")
        if self.whole and found % 1:
            raise ValidationError("Write a whole number.", code="whole")
        return found

    def validate(self, value: float | None) -> None:
        if value is None and self.required:
            raise ValidationError(self.words, code="required")


class ShareField(forms.Field):
    """A share of a whole, like 1/3, 25 % or 0.25, as a Fraction; None for an empty field that is not required."""

    def to_python(self, value: Any) -> Fraction | None:
        if not (value or "").strip() and not self.required:
            return None
        try:
            return units.share(value or "")
        except ValueError as fault:
            raise ValidationError(str(fault), code="unreadable") from None

    def validate(self, value: Fraction | None) -> None:
        """What is empty has been refused where it was read."""


SIGNS = {"€": "EUR", "£": "GBP", "$": "USD AUD CAD NZD SGD HKD MXN", "¥": "JPY CNY"}  # whose sign it is
MONEY = re.compile(r"(?P<before>[^\W\d_]{3}|[€£$¥])?\s*(?P<number>[\d.,'’ \u202f-]+?)\s*(?P<after>[^\W\d_]{3}|[€£$¥])?")


class PriceField(forms.Field):
    """Money with two decimals, comma or point; its currency may stand beside it, where it is the studio's (`currency`, which
    forms of a studio set).
    """

    def __init__(self, currency: str = "", **options: Any) -> None:
        super().__init__(**options)
        self.currency = currency

    def to_python(self, value: Any) -> Decimal:
        text = self._of_ours((value or "").strip()) or ("" if self.required else "0")
        try:
            found = to_cent(units.number(text))
        except ValueError:
            raise ValidationError("Write the price as a number, like 4.90.", code="invalid") from None
        if found >= 1_000_000:
            raise ValidationError("That is more than a million. Check the number.", code="most")
        return found

    def _of_ours(self, text: str) -> str:
        """The number without its currency. Raises `ValidationError` for another one than the studio's."""
        told = MONEY.fullmatch(text[:60])
        marks = [mark for mark in (told["before"], told["after"]) if mark] if told else []
        if not told or not self.currency or not marks:
            return text
        for mark in marks:
            if self.currency not in SIGNS.get(mark, mark.upper()).split():
                words = f"This studio reckons in {self.currency}. Write what it comes to in {self.currency}."
                raise ValidationError(words, code="currency")
        return told["number"]

    def validate(self, value: Decimal) -> None:
        """What is empty has been refused where it was read."""


def tick_field() -> forms.BooleanField:
    """A tick that may be left out."""
    return forms.BooleanField(required=False)


class DayField(forms.DateField):
    """A date; ISO as the browser's own field gives it."""

    def __init__(self, **options: Any) -> None:
        options.setdefault("error_messages", {"invalid": "Write a day, like 2026-12-09.", "required": "Choose a day."})
        super().__init__(input_formats=["%Y-%m-%d", "%d.%m.%Y", "%d/%m/%Y"], **options)


def not_past(date: dt.date, today: dt.date, what: str) -> None:
    """Raises ValidationError when the date lies behind."""
    if date < today:
        raise ValidationError(f"{what} lies behind. Choose {today:%-d %B} or later.")
    not_far(date, today, what)


def not_far(date: dt.date, today: dt.date, what: str) -> None:
    """Raises ValidationError when the date is more than ten years away."""
    if date > today + dt.timedelta(days=3660):
        raise ValidationError(f"{what} is more than ten years away. Check the year.")
