"""Lengths and weights as people write them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core import units
from wembit.core.units import Disagree, Hand, Unreadable, length, shown, weight


# 1 in = 25.4 mm, 1 oz = 28.349523125 g: international yard and pound agreement, 1959
@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ('3"', 76.2), ("3 1/2 in", 88.9), ("3.5in", 88.9), ("3½ inches", 88.9), ("1/2 in", 12.7), ("½\"", 12.7),
        ("7,5 cm", 75), ("7.5cm", 75), ("12", 12), ("1.2 m", 1200), ("45 mm", 45), ("3 in / 7.6 cm", 76.2),
        ("3 in (7.6 cm)", 76.2), ("2 in = 5.1 cm", 50.8), ("  12  MM ", 12), ("0", 0),
    ],
)  # fmt: skip
def test_a_length_is_read_as_written(text, mm):
    assert length(text).value == pytest.approx(mm)


def test_a_bare_number_counts_in_the_studios_unit():
    assert length("3", unit="in").value == pytest.approx(76.2)
    assert weight("1", unit="oz").value == pytest.approx(28.349523125)


def test_what_was_understood_is_shown_in_one_unit():
    assert length('3 1/2"').understood == "88.9 mm"
    assert weight("0,2 kg").understood == "200 g"


# craft: 3 in is 7.6 cm, not 9  # common practice
def test_two_lengths_that_disagree_are_asked_about():
    with pytest.raises(Disagree, match="Which one is right") as caught:
        length("3 in / 9 cm")
    assert [text for text, _ in caught.value.found] == ["3 in", "9 cm"]


@pytest.mark.parametrize(
    "text", ["1,234.5", "1.000,5", "1.2.3", "-3", "-3 cm", "", "three", "3 furlong", "1/0 in", "2 g", "99999 km", "1e5"]
)
def test_what_is_no_length_says_what_to_write(text):
    with pytest.raises(Unreadable, match=r"[A-Z“].*"):
        length(text)


@pytest.mark.parametrize(
    ("text", "grams"), [("7,5", 7.5), ("7.5 g", 7.5), ("0.2kg", 200), ("1 oz", 28.349523125), ("½ oz", 14.1747615625)]
)
def test_a_weight_is_read_as_written(text, grams):
    assert weight(text).value == pytest.approx(grams)


@pytest.mark.parametrize(("text", "pinches"), [("a pinch", 1), ("2 pinches", 2), ("half a pinch", 0.5), ("pinch", 1)])
def test_a_pinch_is_the_weight_the_maker_has_shown(text, pinches):
    assert weight(text, hand=Hand(pinch_g=0.04)).value == pytest.approx(0.04 * pinches)


def test_a_pinch_that_was_never_shown_is_asked_for():
    with pytest.raises(Unreadable, match="Show Wembit your pinch"):
        weight("a pinch")


@given(st.floats(0.01, 9000, allow_nan=False), st.sampled_from(["mm", "cm", "in"]), st.sampled_from([".", ","]))
def test_a_number_written_in_any_unit_comes_back(value, unit, mark):
    text = f"{value:.2f}".replace(".", mark) + f" {unit}"
    factor = {"mm": 1, "cm": 10, "in": 25.4}[unit]
    assert length(text).value == pytest.approx(round(value, 2) * factor)


@given(st.text(max_size=30))
def test_no_text_breaks_the_reader(text):
    for read in (length, weight):
        try:
            assert 0 <= read(text).value <= 1e6 * 1.01
        except (Unreadable, Disagree):
            pass


def test_shown_drops_zeros():
    assert [shown(value) for value in (7.5, 7.0, 0.125, 100)] == ["7.5", "7", "0.12", "100"]


def test_a_length_of_a_strand_and_a_palm_are_weights_once_the_scale_has_shown_them():
    hand = Hand(palm_g=0.5, metre_g=22)
    assert weight("20 cm", hand=hand).value == pytest.approx(4.4)
    assert weight("two palms", hand=hand).value == 1.0
    assert weight("1/2 palm", hand=hand).understood == "0.25 g"
    for text in ("20 cm", "a palm"):
        with pytest.raises(Unreadable):
            weight(text)


@pytest.mark.parametrize(
    ("text", "count"),
    [("24", 24), ("24 pieces", 24), ("12 pairs", 24), ("a pair", 2), ("pair", 2), ("two pairs of", None), ("three dozen", 36),
     ("1 pc", 1), ("2.5", None), ("1/2 pair", 1), ("half a dozen", 6), ("1.5 pairs", 3), ("some pairs", None), ("", None)],
)  # fmt: skip
def test_pieces_are_counted_in_pairs_and_dozens(text, count):
    if count is None:
        with pytest.raises(units.Unreadable):
            units.pieces(text)
    else:
        assert units.pieces(text) == units.Measure(count, f"{count} pieces")


@pytest.mark.parametrize(("text", "grams"), [
    ("half the bag", 20), ("half a bag", 20), ("a third of the bag", 40 / 3), ("two thirds of this bag", 80 / 3),
    ("the whole bag", 40), ("the bag", 40), ("3/4 of the bag", 30), ("25 % of the bag", 10),
])  # fmt: skip
def test_a_share_of_the_bag_is_a_weight(text, grams):
    assert weight(text, hand=Hand(bag_g=40)).value == pytest.approx(grams)
    with pytest.raises(Unreadable, match="Nobody knows what is in the bag"):
        weight(text)


@pytest.mark.parametrize("text", ["some of the bag", "bag", "half the drawer", "0 of the bag"])
def test_what_is_no_share_of_a_bag_is_told(text):
    with pytest.raises(Unreadable):
        weight(text, hand=Hand(bag_g=40))
