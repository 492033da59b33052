"""What a difference on the scale can mean, and how much water the air puts into a bag."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.air import BY_MONTH, HEATED, REGAIN, UNHEATED, humidity_in, kind_of, regain, swing, times
from wembit.core.stock.recounting import explained

KINDS = sorted(REGAIN)
HUMID = st.floats(20, 90)
# Commercial moisture regain at 65 % and 20 °C in per cent, ASTM D1909; from memory
STANDARD = {"wool": 13.6, "silk": 11.0, "plant": 7.0, "polyester": 0.4}


@pytest.mark.parametrize("kind", KINDS)
def test_at_the_standard_humidity_it_holds_about_what_trade_reckons(kind):
    assert 100 * regain(kind, 65) == pytest.approx(STANDARD[kind], abs=1.8)


def test_wool_holds_what_the_handbook_says():
    # W. E. Morton & J. W. S. Hearle: about 8 % at 30 % humidity, 15–16 % at 65 %, about 19 % at 80 %; from memory
    assert 100 * regain("wool", 30) == pytest.approx(8, abs=0.6)
    assert 15 <= 100 * regain("wool", 65) <= 16
    assert 100 * regain("wool", 80) == pytest.approx(19, abs=0.6)


@given(st.sampled_from(KINDS), HUMID, HUMID)
def test_damper_air_is_heavier_and_the_way_back_is_the_way_there(kind, one, two):
    assert (times(kind, one, two) >= 1) == (regain(kind, two) >= regain(kind, one))
    assert times(kind, one, two) * times(kind, two, one) == pytest.approx(1)
    if one < two:
        assert regain(kind, one) <= regain(kind, two)


def test_wool_moves_most_and_filling_hardly():
    assert 0.05 <= swing("wool") <= 0.10
    assert swing("polyester") < 0.005
    assert swing("wool") > swing("silk") > swing("plant") > swing("polyester")
    assert (kind_of("merino"), kind_of("mohair"), kind_of("silk"), kind_of("polyester")) == (
        "wool",
        "wool",
        "silk",
        "polyester",
    )


def test_the_south_has_its_winter_in_july():
    for room in BY_MONTH:
        assert humidity_in(room, dt.date(2026, 1, 9), "Europe/Oslo") == BY_MONTH[room][0]
        assert humidity_in(room, dt.date(2026, 7, 9), "Pacific/Auckland") == BY_MONTH[room][0]
    assert humidity_in(HEATED, dt.date(2026, 1, 9)) < humidity_in(HEATED, dt.date(2026, 8, 9))
    assert humidity_in(UNHEATED, dt.date(2026, 11, 9)) > 75


@pytest.mark.parametrize(
    ("book", "found", "word"),
    [
        (100, 100, ""), (100, 99.1, "the scale"), (3, 2.81, "the scale"), (100, 95, "can be the air"),
        (100, 107, "can be the air"), (100, 110.6, "can be the air"), (100, 112, "more than"), (100, 89, "less than"),
        (3, 2, "less than"), (0, 5, "more than"),
    ],
)  # fmt: skip
def test_where_nobody_told_the_room_a_years_swing_is_no_loss(book, found, word):
    assert word in explained(book, found)
    assert bool(explained(book, found)) == bool(word)


@pytest.mark.parametrize(
    ("found", "word"),
    [
        (106.6, "the air"),
        (103, "the air"),
        (107.5, "the air"),
        (109.5, "more than"),
        (97, "less than"),
        (98.5, "the air"),
    ],
)
def test_where_the_room_is_told_only_what_its_air_does_is_explained(found, word):
    dry, damp = 36.0, 60.0
    assert 100 * times("wool", dry, damp) == pytest.approx(104.3, abs=0.2)
    airs = (dry, 68.0)  # 105.9 g
    assert word in explained(100, found, airs=airs)
    assert "can be" not in explained(100, found, airs=airs)


def test_what_takes_up_no_water_is_not_explained_by_it():
    assert "less than" in explained(100, 98, kind=None)
    assert "less than" in explained(100, 96, kind="polyester")
    assert "can be the air" in explained(100, 96, kind="silk")
    assert explained(7, 7) == ""
