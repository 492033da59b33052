"""A clock that runs by itself and does not believe a night."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.work.spells import Spell, asks, ends_at, minutes

NOON = dt.datetime(2026, 3, 1, 12, tzinfo=dt.UTC)
LENGTHS = st.lists(st.floats(0, 200), max_size=5)


def at(after):
    return NOON + dt.timedelta(minutes=after)


def spells(lengths, sure=False):
    return [Spell(at(1000 * n), at(1000 * n + length), sure) for n, length in enumerate(lengths)]


@given(LENGTHS, st.floats(1, 300))
def test_nobody_works_longer_than_nine_in_ten_do_unless_it_is_said(lengths, most):
    assert minutes(spells(lengths), at(9000), most) == pytest.approx(min(sum(lengths), most), abs=1e-4)
    assert minutes(spells(lengths, sure=True), at(9000), most) == pytest.approx(sum(lengths), abs=1e-4)


def test_the_one_that_goes_on_counts_until_now():
    going = [*spells([10]), Spell(at(2000))]
    assert minutes(going, at(2007), 60) == pytest.approx(17)
    assert minutes(going, at(3000), 60) == 60, "a night is no work"


def test_it_asks_once_past_what_nine_in_ten_take():
    going = [*spells([10]), Spell(at(2000))]
    assert not asks(going, at(2049), 60)
    assert asks(going, at(2051), 60)
    assert not asks([*spells([10]), Spell(at(2000), sure=True)], at(2051), 60), "it was answered"
    assert not asks(spells([90]), at(9000), 60), "nobody is at it"


@given(LENGTHS, st.floats(1, 300), st.floats(0, 500))
def test_where_nobody_was_at_it_any_more_it_ended_with_the_most(lengths, most, since):
    going, now = [*spells(lengths), Spell(at(9000))], at(9000 + since)
    end = ends_at(going, now, most)
    assert at(9000) <= end <= now
    ended = [*spells(lengths), Spell(at(9000), end)]
    assert minutes(ended, at(99_000), most) == pytest.approx(minutes(going, now, most), abs=1e-3)
