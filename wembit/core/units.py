"""Lengths and weights as people write them: mm, cm, m, inches; g, kg, oz; decimal comma or point; a pinch.

1 in = 25.4 mm exactly and 1 oz = 28.349523125 g exactly (international yard and pound agreement, 1959).
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4}
GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125}
WORDS = {
    "mm": "mm", "millimetre": "mm", "millimetres": "mm", "millimeter": "mm", "millimeters": "mm",
    "cm": "cm", "centimetre": "cm", "centimetres": "cm", "centimeter": "cm", "centimeters": "cm",
    "m": "m", "metre": "m", "metres": "m", "meter": "m", "meters": "m",
    "in": "in", "in.": "in", "inch": "in", "inches": "in", '"': "in", "”": "in", "″": "in", "''": "in",
    "g": "g", "gr": "g", "gram": "g", "grams": "g", "gramme": "g", "grammes": "g",
    "kg": "kg", "kilo": "kg", "kilos": "kg", "kilogram": "kg", "kilograms": "kg",
    "oz": "oz", "oz.": "oz", "ounce": "oz", "ounces": "oz",
}  # fmt: skip
GLYPHS = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
AMOUNT = re.compile(r"(?P<number>\d+\s*/\s*\d+|\d+\s+\d+\s*/\s*\d+|[\d.,]+)\s*(?P<unit>[^\d\s/&,;]*)")
HANDFUL = re.compile(
    r"(?:(?P<count>[\d.,/ ]+|a|one|half a|two|three|four)\s+)?(?P<what>pinch|palm|wisp|handful)(?:es|s|fuls?)?"
)
OF_A_BAG = re.compile(r"(?:(?P<share>.+?) )??(?:of )?(?:a|the|this) (?:whole )?bag")
COUNTS: dict[str, float] = {"a": 1, "one": 1, "half a": 0.5, "two": 2, "three": 3, "four": 4}
SHARE = re.compile(r"(?:(?P<count>a|an|one|two|three|four|five|six|seven|the) )?(?P<part>half|halves|thirds?|quarters?|fifths?"
                   r"|sixths?|eighths?|tenths?|whole|same|twice|double)")  # fmt: skip
SHARE_COUNTS = {
    None: 1,
    "a": 1,
    "an": 1,
    "the": 1,
    "one": 1,
    "two": 2,
    "three": 3,
    "four": 4,
    "five": 5,
    "six": 6,
    "seven": 7,
}
SHARE_PARTS = {
    "half": Fraction(1, 2), "halves": Fraction(1, 2), "whole": Fraction(1), "same": Fraction(1), "twice": Fraction(2),
    "double": Fraction(2),
    **{word + s: Fraction(1, n) for word, n in (("third", 3), ("quarter", 4), ("fifth", 5), ("sixth", 6), ("eighth", 8),
                                                ("tenth", 10)) for s in ("", "s")},
}  # fmt: skip
ALIKE = 0.03  # two ways of writing one length may differ by rounding: 3 in is written 7.6 cm
LARGEST = 1e6
DIGITS = 9  # a person writes no more on either side of the mark
PLAIN = re.compile(rf"[0-9]{{1,{DIGITS}}}(?:[.,][0-9]{{0,{DIGITS}}})?|[.,][0-9]{{1,{DIGITS}}}")
FRACTION = re.compile(
    rf"(?:(?P<whole>[0-9]{{1,{DIGITS}}}) )?(?P<over>[0-9]{{1,{DIGITS}}}) ?/ ?(?P<under>[0-9]{{1,{DIGITS}}})"
)


class Unreadable(ValueError):
    """The text is no measure; the message says what to write."""


class Disagree(ValueError):
    """Two measures that should be one and are not: both stand in `found`, as written and in mm."""

    def __init__(self, found: list[tuple[str, float]]) -> None:
        self.found = found
        first, second = found[0][0], found[1][0]
        super().__init__(f"{first} and {second} are not the same length. Which one is right?")


@dataclass(frozen=True)
class Measure:
    """A value in mm or g, and how it was understood."""

    value: float
    understood: str


def length(text: str, unit: str = "mm") -> Measure:
    """A length in mm; a bare number counts in `unit`. Raises `Unreadable`, or `Disagree` for "3 in / 9 cm"."""
    pieces = [piece for piece in re.split(r"\s*(?:(?<=[a-z\"”″'.])\s*/|=|\(|\))\s*", _plain(text)) if piece]
    found = [(piece.strip(), _one(piece, MM, unit, "a length, like 45 mm, 4.5 cm or 1 3/4 in")) for piece in pieces]
    if not found:
        raise Unreadable("Write a length, like 45 mm, 4.5 cm or 1 3/4 in.")
    first = found[0][1]
    for _, other in found[1:]:
        if abs(other - first) > ALIKE * max(first, other):
            raise Disagree(found)
    return Measure(first, f"{shown(first)} mm")


@dataclass(frozen=True)
class Hand:
    """What a pinch, a palm, a wisp and a handful of wool weigh, a metre of a strand, and what the bag in hand holds, in g.

    None where nobody has shown it yet.
    """

    pinch_g: float | None = None
    palm_g: float | None = None
    metre_g: float | None = None
    bag_g: float | None = None
    wisp_g: float | None = None
    handful_g: float | None = None


def weight(text: str, unit: str = "g", hand: Hand = Hand()) -> Measure:
    """A weight in g; a bare number counts in `unit`; pinches, palms and lengths of a strand count what the hand has shown,
    shares of the bag what it holds.

    Raises `Unreadable`.
    """
    plain = _plain(text)
    if match := HANDFUL.fullmatch(plain):
        what = match["what"]
        each = {"pinch": hand.pinch_g, "palm": hand.palm_g, "wisp": hand.wisp_g, "handful": hand.handful_g}[what]
        if each is None and what == "pinch":
            raise Unreadable("Show Wembit your pinch first: weigh ten of them together, on the page of your hand.")
        if each is None and what != "palm":
            raise Unreadable(
                f"Show Wembit your {what} first: lay three of them on the scale, on the page of your hand."
            )
        if each is None:
            raise Unreadable("Show Wembit a palm of this wool first: lay it on the scale, on the page of the fibre.")
        word = (match["count"] or "a").strip()
        count = COUNTS[word] if word in COUNTS else _number(word)
        return Measure(count * each, f"{shown(count * each)} g")
    if match := OF_A_BAG.fullmatch(plain):
        if hand.bag_g is None:
            raise Unreadable("Nobody knows what is in the bag. Weigh it first, or write grams.")
        grams = float(share(match["share"] or "whole")) * hand.bag_g
        return Measure(grams, f"{shown(grams)} g")
    match = AMOUNT.fullmatch(plain)
    if hand.metre_g and match and WORDS.get(match["unit"]) in MM:
        grams = length(plain).value / 1000 * hand.metre_g
        return Measure(grams, f"{shown(grams)} g")
    value = _one(plain, GRAMS, unit, "a weight, like 7.5 g, 0.2 kg or 1 oz")
    return Measure(value, f"{shown(value)} g")


def share(text: str) -> Fraction:
    """A share of something: half, a third, two thirds, 3/4, 0.5, 25 %. Raises `Unreadable`."""
    plain = _plain(text).removesuffix(" of it").strip()
    want = "Write a share, like half, a third, 3/4, 0.5 or 25 %."
    if match := SHARE.fullmatch(plain):
        return Fraction(SHARE_COUNTS[match["count"]]) * SHARE_PARTS[match["part"]]
    hundredth = plain.endswith(("%", "per cent"))
    plain = plain.removesuffix("%").removesuffix("per cent").strip()
    try:
        found = (
            Fraction(plain.replace(",", "."))
            if PLAIN.fullmatch(plain)
            else Fraction(_number(plain)).limit_denominator(10_000)
        )
    except (Unreadable, ValueError):
        raise Unreadable(f"“{text.strip()}” is no share. {want}" if text.strip() else want) from None
    found = found / 100 if hundredth else found
    if found <= 0:
        raise Unreadable(f"Nothing is no share. {want}")
    return found


SETS = {"pair": 2, "pairs": 2, "dozen": 12, "dozens": 12, "piece": 1, "pieces": 1, "pc": 1, "pcs": 1}


def pieces(text: str) -> Measure:
    """A whole number of pieces: 24, 24 pieces, 12 pairs, two dozen. Raises `Unreadable`."""
    word, _, what = _plain(text).rpartition(" ")
    if what in SETS:
        one = word.removesuffix(" of").strip() or "a"
        count = (COUNTS[one] if one in COUNTS else _number(one)) * SETS[what]
    else:
        count = number(text)
    if count != int(count):
        raise Unreadable("Write a whole number of pieces.")
    return Measure(count, f"{count:g} pieces")


def number(text: str) -> float:
    """A bare number with a decimal comma or point. Raises `Unreadable`."""
    return _number(_plain(text))


def shown(value: float) -> str:
    """At most two decimals, none that are zero."""
    return f"{value:.2f}".rstrip("0").rstrip(".")


def _plain(text: str) -> str:
    text = text.strip().lower().replace("\u202f", " ").replace("\u00a0", " ").replace("−", "-")
    for glyph, fraction in GLYPHS.items():
        text = text.replace(glyph, f" {fraction}")
    return re.sub(r"\s+", " ", text).strip()


def _one(text: str, units: dict[str, float], bare: str, want: str) -> float:
    if text.startswith("-"):
        raise Unreadable(f"{text} is below nothing. Write {want}.")
    match = AMOUNT.fullmatch(text.strip())
    if not match:
        raise Unreadable(f"“{text}” cannot be read. Write {want}." if text else f"Write {want}.")
    word = match["unit"] or bare
    unit = WORDS.get(word, word)
    if unit not in units:
        raise Unreadable(f"“{match['unit']}” is no unit here. Write {want}.")
    value = _number(match["number"]) * units[unit]
    if value > LARGEST:
        raise Unreadable(f"{text} is more than a studio can hold. Write {want}.")
    return value


def _number(text: str) -> float:
    """A plain decimal or a fraction, with at most nine digits a side and no exponent. Raises `Unreadable`."""
    text = text.strip()
    if match := FRACTION.fullmatch(text):
        if not int(match["under"]):
            raise Unreadable(f"{text} is no number. Write one like 3 1/2.")
        return float(int(match["whole"] or 0) + Fraction(int(match["over"]), int(match["under"])))
    if "/" in text:
        raise Unreadable(f"{_short(text)} is no number. Write one like 3 1/2.")
    if text.count(",") + text.count(".") > 1:
        raise Unreadable(f"{_short(text)} has two marks. Write one decimal mark and nothing between the thousands.")
    if not PLAIN.fullmatch(text):
        long = re.fullmatch(r"[0-9]*[.,]?[0-9]*", text) and text
        why = f"is out of range: at most {DIGITS} digits stand on a side" if long else "is no number"
        raise Unreadable(f"“{_short(text)}” {why}.")
    return float(text.replace(",", "."))


def _short(text: str) -> str:
    return text if len(text) <= 24 else f"{text[:20]} …"
