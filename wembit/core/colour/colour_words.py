"""What makers call a colour: one word for every CIELAB colour, from lightness, chroma and hue.

Borders are common practice of shade cards; words that are also keywords of the W3C's CSS Color Module Level 3 agree with
those (the tests say which).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from .conversions import chroma_hue


@dataclass(frozen=True)
class ColourWord:
    """A word, how it is said of many, and where it holds: L*, C*, and the hue in degrees, which may run through 0."""

    word: str
    many: str
    light: tuple[float, float] = (-1.0, 101.0)
    chroma: tuple[float, float] = (0.0, 200.0)
    hue: tuple[float, float] = (0.0, 360.0)

    def holds(self, light: float, chroma: float, hue: float) -> bool:
        """Whether a colour lies in the ranges."""
        low, high = self.hue
        turned = low <= hue <= high if low <= high else hue >= low or hue <= high
        return self.light[0] <= light < self.light[1] and self.chroma[0] <= chroma < self.chroma[1] and turned


# The first that holds; every colour comes to one.
_TABLE = (
    ColourWord("black", "blacks", (-1, 22), (0, 9)),
    ColourWord("white", "whites", (89, 101), (0, 5.6)),
    ColourWord("cream", "creams", (84, 101), (4, 20), (55, 116)),
    ColourWord("grey", "greys", chroma=(0, 8)),
    ColourWord("beige", "beiges", (64, 93), (8, 28), (45, 105)),
    ColourWord("brown", "browns", (-1, 66), (8, 40), (38, 92)),
    ColourWord("brown", "browns", (-1, 50), (40, 62), (44, 78)),
    ColourWord("coral", "corals", (55, 80), (32, 80), (22, 49)),
    ColourWord("orange", "oranges", (-1, 101), (40, 200), (45, 74)),
    ColourWord("yellow", "yellows", (62, 101), (8, 200), (70, 112)),
    ColourWord("olive", "olives", (-1, 62), (8, 200), (88, 113)),
    ColourWord("green", "greens", hue=(112, 176)),
    ColourWord("sky blue", "sky blues", (66, 101), hue=(212, 288)),
    ColourWord("teal", "teals", hue=(176, 236)),
    ColourWord("blue", "blues", hue=(236, 309)),
    ColourWord("violet", "violets", hue=(309, 334)),
    ColourWord("wine", "wines", (-1, 38), hue=(334, 40)),
    ColourWord("pink", "pinks", (60, 101), (8, 60), (334, 40)),
    ColourWord("pink", "pinks", (50, 101), hue=(334, 10)),
    ColourWord("beige", "beiges", (66, 101), (8, 40), (40, 70)),
    ColourWord("red", "reds", hue=(334, 46)),
    ColourWord("brown", "browns"),
)
ORDER = (
    "white", "cream", "beige", "yellow", "orange", "coral", "pink", "red", "wine", "violet", "blue", "sky blue", "teal",
    "green", "olive", "brown", "grey", "black",
)  # fmt: skip
MANY = {row.word: row.many for row in _TABLE}
HUED = (
    "yellow",
    "orange",
    "red",
    "pink",
    "violet",
    "blue",
    "teal",
    "green",
    "brown",
)  # a shelf with none of one misses it


STRONG = 45.0  # a chroma at which a hue has its name
MIDDLE, SWING, LIGHTEST = 42.0, 36.0, 100.0  # strong yellows are light, strong blues dark: about, in degrees; assumed


def hue_names() -> dict[str, float]:
    """What strong colours are called round the hues, each word with the middle of its hues in degrees."""
    found: dict[str, list[float]] = {}
    for degrees in range(0, 360, 2):
        turn = math.radians(degrees)
        light = MIDDLE + SWING * math.cos(turn - math.radians(LIGHTEST))
        found.setdefault(colour_word(light, STRONG * math.cos(turn), STRONG * math.sin(turn)), []).append(turn)
    return {
        word: math.degrees(math.atan2(sum(map(math.sin, turns)), sum(map(math.cos, turns)))) % 360
        for word, turns in found.items()
    }


def colour_word(light: float, a: float, b: float) -> str:
    """The word of a CIELAB colour."""
    chroma, hue = chroma_hue(a, b)
    return next(row.word for row in _TABLE if row.holds(light, chroma, hue))
