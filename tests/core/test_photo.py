"""Colours out of pictures, and out of an instrument's table."""

import warnings

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.basis import NM
from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000
from wembit.core.colour.instrument import Unreadable, read_spectra
from wembit.core.colour.photo import CARDS, NoCard, linear, main_colours, patch, read

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour as colour_science


def taken(colour, light=(1.0, 1.0, 1.0), exposure=1.0, many=400, grain=0.0, seed=1):
    """Pixels of a surface of that linear colour under a light, as a camera writes them."""
    chance = np.random.default_rng(seed)
    values = np.array(colour) * light * exposure * (1 + grain * chance.normal(size=(many, 3)))
    values = np.clip(values, 0, 1)
    return np.round(255 * np.where(values <= 0.0031308, values * 12.92, 1.055 * values ** (1 / 2.4) - 0.055)).astype(
        np.uint8
    )


def rgb(srgb):
    return linear(np.array([[int(srgb[i : i + 2], 16) for i in (1, 3, 5)]]))[0]


MOSS = "#6f7d43"
LAMPS = {"daylight": (1, 1, 1), "a warm lamp": (1.0, 0.78, 0.55), "a blue sky": (0.8, 0.92, 1.0)}


@pytest.mark.parametrize("lamp", LAMPS)
@pytest.mark.parametrize("card", CARDS)
def test_the_card_takes_the_lamp_and_the_exposure_out(lamp, card):
    for exposure in (0.5, 0.9):
        white = taken([CARDS[card]] * 3, LAMPS[lamp], exposure)
        found = read(taken(rgb(MOSS), LAMPS[lamp], exposure), white, card)
        assert delta_e_2000(found.lab, lab(MOSS)) < 1.5
        assert not found.warnings


def test_the_decoding_is_that_of_the_standard():
    # IEC 61966-2-1, as a reference library carries it
    values = np.arange(256)[:, None].repeat(3, axis=1)
    assert linear(values) == pytest.approx(colour_science.models.eotf_sRGB(values / 255), abs=1e-6)


@pytest.mark.parametrize(
    ("card", "said"),
    [
        (taken([1.2] * 3), "burnt out"),
        (taken([0.005] * 3), "too dark"),
        (taken(rgb("#a8502c")), "coloured"),
        (np.concatenate([taken([0.9] * 3, exposure=0.9), taken([0.1] * 3)]), "uneven"),
    ],
)
def test_what_is_no_card_is_told(card, said):
    with pytest.raises(NoCard, match=said):
        read(taken(rgb(MOSS)), card)


@pytest.mark.parametrize(
    ("wool", "said"),
    [
        (np.concatenate([taken(rgb(MOSS)), taken([0.8] * 3, many=60)]), "shines"),
        (np.concatenate([taken(rgb(MOSS)), taken([0.005] * 3, many=90)]), "shadow"),
        (np.concatenate([taken(rgb(MOSS), many=210), taken(rgb("#a8502c"), many=200)]), "more than one colour"),
        (taken([1.3] * 3), "burnt out"),
        (taken([0.95] * 3, exposure=1.0), "brighter than the card"),
    ],
)
def test_glare_shadow_and_clipping_are_told(wool, said):
    card = taken([0.9] * 3, exposure=0.5)
    assert any(said in warning for warning in read(wool, card).warnings)


def test_the_spread_grows_with_the_grain():
    card = taken([0.9] * 3, exposure=0.8)
    spreads = [read(taken(rgb(MOSS), exposure=0.8, grain=grain), card).spread for grain in (0, 0.05, 0.2)]
    assert spreads[0] < spreads[1] < spreads[2]


def test_a_patch_is_round_and_lies_within():
    picture = np.arange(40 * 30 * 3).reshape(30, 40, 3)
    assert len(patch(picture, 20, 15, 5)) == pytest.approx(np.pi * 25, rel=0.1)
    assert len(patch(picture, 0, 0, 5)) < 40
    with pytest.raises(ValueError, match="outside"):
        patch(picture, 40, 3, 5)


def test_the_main_colours_are_those_that_are_there():
    picture = np.zeros((120, 160, 3), dtype=np.uint8)
    for colour, rows in (("#6f7d43", slice(0, 70)), ("#d9c7a0", slice(70, 105)), ("#24211f", slice(105, 120))):
        picture[rows] = [int(colour[i : i + 2], 16) for i in (1, 3, 5)]
    found = main_colours(picture)
    assert [round(share, 2) for _, share in found] == [0.58, 0.29, 0.12]
    assert all(
        delta_e_2000(seen, lab(srgb)) < 0.5
        for (seen, _), srgb in zip(found, ("#6f7d43", "#d9c7a0", "#24211f"), strict=True)
    )


@given(st.integers(0, 0xFFFFFF))
def test_a_picture_of_one_colour_has_one(n):
    picture = np.full((20, 20, 3), [n >> 16, n >> 8 & 255, n & 255], dtype=np.uint8)
    assert [share for _, share in main_colours(picture)] == [pytest.approx(1)]


# --- an instrument's table --------------------------------------------------------------------------------------------

VALUES = {nm: round(0.2 + 0.3 * (nm - 400) / 300, 4) for nm in range(400, 701, 10)}
TABLES = {
    "a sample a row": "name," + ",".join(map(str, VALUES)) + "\nmoss," + ",".join(map(str, VALUES.values())),
    "percent and semicolons": "id;" + ";".join(f"R {nm} nm" for nm in VALUES) + "\n"
    + "moss;" + ";".join(str(round(v * 100, 2)).replace(".", ",") for v in VALUES.values()),
    "a sample a column": "nm\tmoss\n" + "\n".join(f"{nm}\t{v}" for nm, v in VALUES.items()),
}  # fmt: skip


@pytest.mark.parametrize("table", TABLES)
def test_a_table_is_read_as_instruments_write_it(table):
    [(name, curve)] = read_spectra(TABLES[table])
    assert name == "moss"
    assert curve.shape == (36,)
    assert curve[NM == 550][0] == pytest.approx(0.35, abs=1e-3)
    assert curve[0] == pytest.approx(0.2, abs=1e-3)
    assert curve[-1] == pytest.approx(0.5, abs=1e-3)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "empty"),
        ("a,b\n1,2", "No wavelengths"),
        ("name," + ",".join(map(str, range(500, 701, 10))) + "\nx," + ",".join(["0.5"] * 21), "420 to 680"),
        ("name," + ",".join(map(str, range(400, 701, 30))) + "\nx," + ",".join(["0.5"] * 11), "apart"),
        (TABLES["a sample a row"].replace("0.35", "?"), "lacks a number"),
        (TABLES["a sample a row"].replace("0.35", "-0.4"), "less than nothing"),
        (TABLES["a sample a row"].split("\n")[0], "no sample"),
        (TABLES["a sample a row"].replace("410", "390"), "do not rise"),
    ],
)
def test_what_is_no_spectrum_is_told(text, said):
    with pytest.raises(Unreadable, match=said):
        read_spectra(text)


@given(st.text(max_size=200))
def test_no_text_breaks_the_reading(text):
    try:
        read_spectra(text)
    except Unreadable as trouble:
        assert str(trouble)
