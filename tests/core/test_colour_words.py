"""What makers call a colour: every colour has a word, and it is the one that they would say."""

import warnings

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.colour_words import _TABLE, HUED, MANY, ORDER, colour_word, hue_names
from wembit.core.colour.conversions import lab

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    from colour.notation import CSS_COLOR_3

# Keywords of the W3C's CSS Color Module Level 3, as colour-science ships them, whose names are words of makers, too
KEYWORDS = {
    "white": "white", "black": "black", "gray": "grey", "darkgray": "grey", "ivory": "cream", "beige": "cream",
    "linen": "cream", "tan": "beige", "wheat": "beige", "saddlebrown": "brown", "red": "red", "crimson": "red",
    "firebrick": "red", "maroon": "wine", "coral": "coral", "salmon": "coral", "orange": "orange",
    "darkorange": "orange", "gold": "yellow", "yellow": "yellow", "olive": "olive", "green": "green",
    "forestgreen": "green", "lime": "green", "teal": "teal", "turquoise": "teal", "skyblue": "sky blue",
    "navy": "blue", "royalblue": "blue", "purple": "violet", "violet": "violet", "pink": "pink", "lightpink": "pink",
    "hotpink": "pink",
}  # fmt: skip
# What felters call the wools of a shelf; common practice
WOOLS = {
    "#e8e0d0": "cream", "#f1ede3": "white", "#e9e2d2": "cream", "#24211f": "black", "#b9bfc2": "grey", "#7d8790": "grey",
    "#4a382b": "brown", "#6b4a32": "brown", "#a8502c": "brown", "#b08a5e": "brown", "#d9c7a0": "beige", "#6f7d43": "green",
    "#a33a2a": "red", "#d79a93": "pink", "#7a4860": "wine", "#3f6f78": "teal", "#2f5a73": "blue", "#c9a253": "yellow",
    "#5b1a1f": "wine", "#ff7f6a": "coral", "#e6b8c0": "pink",
}  # fmt: skip


@pytest.mark.parametrize(("keyword", "word"), KEYWORDS.items())
def test_a_keyword_is_called_by_its_name(keyword, word):
    assert colour_word(*lab(str(CSS_COLOR_3[keyword]).lower())) == word


@pytest.mark.parametrize(("srgb", "word"), WOOLS.items())
def test_a_wool_is_called_what_a_felter_says(srgb, word):
    assert colour_word(*lab(srgb)) == word


@given(st.floats(0, 100), st.floats(-120, 120), st.floats(-120, 120))
def test_every_colour_has_one_word_and_every_word_a_plural_and_a_place(light, a, b):
    word = colour_word(light, a, b)
    assert word in ORDER
    assert MANY[word]


def test_every_word_is_said_of_some_colour_of_a_screen():
    chance = np.random.default_rng(0)
    said = {colour_word(*lab(f"#{n:06x}")) for n in chance.integers(0, 1 << 24, 20_000)}
    assert said == set(ORDER) == set(MANY) == {row.word for row in _TABLE}
    assert set(HUED) < set(ORDER)
    assert all(len(word) <= 8 for word in ORDER), "as the database keeps them"


def test_round_the_hues_each_name_stands_once_and_where_it_holds():
    names = hue_names()
    assert {"red", "orange", "yellow", "green", "teal", "blue", "violet"} <= set(names)
    middles = [names[word] for word in ("red", "yellow", "green", "blue")]
    assert middles == sorted(middles)
    assert 80 < names["yellow"] < 110, "b* is yellow"  # CIE 15: hue angle 90 degrees is +b*
    assert 240 < names["blue"] < 310
