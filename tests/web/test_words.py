"""How numbers and days are written, and what finding finds."""

import datetime as dt
import re
from types import SimpleNamespace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.web import factories as make
from tests.web.helpers import get, post, words
from wembit.core import units
from wembit.core.shape.solids import KINDS, SOLIDS
from wembit.web import numbers
from wembit.web.dates import spoken
from wembit.web.figures.size_words import SHAPES, WORDS

GRAMS = SimpleNamespace(weight_unit="g", length_unit="mm", decimal_mark=".")
OUNCES = SimpleNamespace(weight_unit="oz", length_unit="in", decimal_mark=",")
WEDNESDAY = dt.date(2026, 11, 25)


@pytest.mark.parametrize(
    ("value", "shown"),
    [(0, "0 g"), (0.004, "0.004 g"), (0.05, "0.05 g"), (7.5, "7.5 g"), (9.999, "10 g"), (15.61, "15.6 g"), (110.3, "110 g"),
     (1000, "1 kg"), (3684, "3.68 kg"), (-2.5, "−2.5 g")],
)  # fmt: skip
def test_grams_show_what_matters_of_them(value, shown):
    assert " ".join(numbers.grams(value, GRAMS)) == shown


def test_other_units_and_marks_are_the_studios():
    assert numbers.grams(28.349523125, OUNCES) == ("1", "oz")
    assert numbers.grams(100, OUNCES) == ("3,53", "oz")
    assert numbers.length(25.4, OUNCES) == ("1", "in")
    assert numbers.length(12.5, GRAMS) == ("12.5", "mm")
    assert numbers.amount(1, "pc", GRAMS) == ("1", "piece")
    assert numbers.amount(12, "pc", GRAMS) == ("12", "pieces")
    assert numbers.amount(3500, "mm", GRAMS) == ("3.5", "m")


def test_both_ends_of_a_range_are_written_alike():
    assert numbers.span(16.434, 29.04, GRAMS) == ("16.4–29.0", "g")
    assert numbers.span(0.6, 1.13, GRAMS) == (
        "0.60–1.13",
        "g",
    )
    assert numbers.span(800, 1200, GRAMS) == ("0.80–1.20", "kg")
    assert numbers.span(0.002, 0.004, GRAMS)[0] == "0.002–0.004"


@given(st.floats(0.001, 900), st.sampled_from([GRAMS, OUNCES]))
def test_a_weight_in_a_field_is_read_back_as_it_was(value, studio):
    text = numbers.field_grams(value, studio)
    assert units.weight(text, studio.weight_unit).value == pytest.approx(value, abs=0.0006)


@given(st.floats(0.5, 2000), st.sampled_from(["mm", "cm", "in"]), st.sampled_from([".", ","]))
def test_a_length_in_a_field_is_read_back_as_it_was(value, unit, mark):
    studio = SimpleNamespace(length_unit=unit, decimal_mark=mark)
    assert units.length(numbers.field_mm(value, studio), unit).value == pytest.approx(value, abs=0.014)


@pytest.mark.parametrize(
    ("days", "shown"),
    [
        (0, "today"),
        (1, "tomorrow"),
        (-1, "yesterday"),
        (2, "Fri"),
        (3, "Sat"),
        (13, "8 Dec"),
        (-20, "5 Nov"),
        (100, "5 Mar"),
        (320, "11 Oct 2027"),
    ],
)
def test_days_are_said_as_a_person_says_them(days, shown):
    assert spoken(WEDNESDAY + dt.timedelta(days), WEDNESDAY) == shown


def test_finding_looks_everywhere_and_only_here(client, owner):
    make.project(owner, make.figure(owner, "Moss hare", fibre=make.lot(owner, "moss")), name="Mossy market")
    make.lot(make.studio_owner("Dune", "ana"), "moss of another")
    found = words(get(client, "find/?words=moss"))
    assert all(each in found for each in ("Moss hare", "Mossy market", "moss"))
    assert "another" not in found
    assert "moss" in words(get(client, "find/?words=MOSS", headers={"HX-Request": "true"}))
    assert "Moss hare" not in words(get(client, "find/?words=zzz"))
    assert get(client, "find/?words=%25")


def test_before_a_letter_is_written_what_was_touched_last_is_found(client, owner):
    rust, moss = make.lot(owner, "rust"), make.lot(owner, "moss")
    make.lot(make.studio_owner("Dune", "ana"), "of another")
    make.figure(owner, "Hare", fibre=moss)
    assert re.findall(r"<b>(\w+)</b> <span>[^<]+</span></a>", get(client, "find/")) == ["moss", "rust", "Hare"]
    post(client, f"stash/lot/{rust.pk}/take/", amount="2")
    page = get(client, "find/")
    assert page.index(f"lot/{rust.pk}") < page.index(f"lot/{moss.pk}")
    assert "of another" not in page


def test_every_shape_and_every_size_has_its_words():
    assert set(SHAPES) == set(KINDS)
    assert {name for cls in SOLIDS for name in cls.SIZES} <= set(WORDS)


@pytest.mark.parametrize(
    ("grams", "said"),
    [("412.5", "412.5 g"), ("370.86", "370.86 g"), ("1234.56", "1.23456 kg"), ("0.004", "0.004 g"), ("6", "6 g")],
)
def test_a_bag_says_what_its_book_says(client, owner, grams, said):
    lot = make.lot(owner, grams=grams)
    assert said in words(get(client, f"stash/lot/{lot.pk}/"))
