"""Numbers as the studio writes them: its decimal mark, its unit, a narrow space between."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING

from wembit.core.grams.small_pieces import is_small
from wembit.core.units import GRAMS as WEIGHTS
from wembit.core.units import MM

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

GRAMS, PIECES, MILLIMETRES = "g", "pc", "mm"  # the units of items
NARROW = "\u202f"


def plain(value: float | Decimal, places: int = 2, mark: str = ".") -> str:
    """At most `places` decimals, none that are zero at the end."""
    text = f"{float(value):.{places}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return ("0" if text in ("-0", "") else text).replace("-", "−").replace(".", mark)


def grams(value: float | Decimal, studio: Studio) -> tuple[str, str]:
    """Number and unit of a weight in g: fewer decimals the heavier it is, kilograms from 1000 g on."""
    value = float(value)
    if studio.weight_unit == "oz":
        return plain(value / WEIGHTS["oz"], ounce_decimals(value), studio.decimal_mark), "oz"
    if abs(value) >= 1000:
        return plain(value / 1000, 2, studio.decimal_mark), "kg"
    return plain(value, decimals(value), studio.decimal_mark), "g"


def decimals(value: float) -> int:
    """Decimals of a weight in g: what matters of it, and of less than 0.01 g something at all."""
    size = abs(value)
    return 0 if size >= 100 else 1 if size >= 10 else 2 if size >= 0.01 or not size else 3


def ounce_decimals(value: float) -> int:
    """Decimals of a weight in g that is written in ounces: a pinch is some ten-thousandths of one."""
    size = abs(value) / WEIGHTS["oz"]
    return 2 if size >= 0.1 or not size else 3 if size >= 0.01 else 4


def strand(value: float | Decimal, studio: Studio) -> tuple[str, str]:
    """A length of wool in mm as a hand measures it: in cm, or in inches where the studio thinks in them."""
    if studio.length_unit == "in":
        return plain(float(value) / MM["in"], 1, studio.decimal_mark), "in"
    return plain(float(value) / 10, 0, studio.decimal_mark), "cm"


def span(low: float | Decimal, high: float | Decimal, studio: Studio) -> tuple[str, str]:
    """Both ends of a range of grams, written alike, and their unit."""
    unit, factor = ("oz", WEIGHTS["oz"]) if studio.weight_unit == "oz" else ("kg", 1000) if high >= 1000 else ("g", 1)
    places = decimals(float(high)) if factor == 1 else ounce_decimals(float(high)) if unit == "oz" else 2
    ends = [f"{float(end) / factor:.{places}f}".replace(".", studio.decimal_mark) for end in (low, high)]
    return "–".join(ends), unit


def length(value: float | Decimal, studio: Studio) -> tuple[str, str]:
    """Number and unit of a length in mm."""
    unit = studio.length_unit
    return plain(float(value) / MM[unit], {"mm": 1, "cm": 2, "in": 2}[unit], studio.decimal_mark), unit


def field_grams(value: float | Decimal, studio: Studio) -> str:
    """A weight in g as a field shows it before it is changed: with its unit where the studio's own is another."""
    text = plain(value, 3, studio.decimal_mark)
    return text if studio.weight_unit == "g" else f"{text} g"


def field_mm(value: float | Decimal, studio: Studio) -> str:
    """A length in mm as a field shows it, in the studio's unit."""
    return plain(float(value) / MM[studio.length_unit], 3, studio.decimal_mark)


def field_amount(value: float | Decimal, unit: str, studio: Studio) -> str:
    """An amount of an item as a field shows it, by its unit."""
    match unit:
        case "g":
            return field_grams(value, studio)
        case "mm":
            return field_mm(value, studio)
    return plain(value, 3, studio.decimal_mark)


def amount(value: float | Decimal, unit: str, studio: Studio) -> tuple[str, str]:
    """Number and unit of an amount in an item's unit."""
    if unit == GRAMS:
        return grams(value, studio)
    if unit == MILLIMETRES:
        return (
            (plain(float(value) / 1000, 2, studio.decimal_mark), "m")
            if abs(float(value)) >= 1000
            else length(value, studio)
        )
    told = plain(value, 0)
    return told, "piece" if told == "1" else "pieces"


def unknown(unit: str) -> str:
    """What is said of an amount in that unit that nobody has looked at."""
    return {GRAMS: "not weighed", MILLIMETRES: "not measured"}.get(unit, "not counted")


def find_out(unit: str) -> str:
    """What is to be done about an amount in that unit that nobody has looked at."""
    return {GRAMS: "weigh it first", MILLIMETRES: "measure it first"}.get(unit, "count it first")


def held(value: float | Decimal, unit: str, unweighed: int, studio: Studio, word: str = "") -> str:
    """What is there of an item, of which so many bags were never weighed: those are unknown, not nothing. A word like "free"
    follows the amount.
    """
    if unweighed and not value:
        return unknown(unit)
    there = " ".join([NARROW.join(amount(value, unit, studio)), *word.split()])
    bags = {0: "", 1: f", one {unknown(unit)}"}
    return there + bags.get(unweighed, f", {unweighed} {unknown(unit)}")


def exact(value: float | Decimal, unit: str, studio: Studio) -> tuple[str, str]:
    """Number and unit of an amount as a bag's book keeps it, so that its lines add up: to a hundredth of a gram."""
    if unit != GRAMS:
        return amount(value, unit, studio)
    if studio.weight_unit == "oz":
        return plain(float(value) / WEIGHTS["oz"], 4, studio.decimal_mark), "oz"
    size = abs(float(value))
    if size >= 1000:
        return plain(float(value) / 1000, 5, studio.decimal_mark), "kg"
    return plain(value, 3 if 0 < size < 0.01 else 2, studio.decimal_mark), "g"


def is_pinch(value: float | Decimal) -> bool:
    """Whether so many grams are a pinch."""
    return is_small(float(value))
