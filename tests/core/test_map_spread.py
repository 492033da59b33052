"""Marks of the map: none covers much of another, and each stays near to its own place."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from wembit.core.colour.map_spread import OVERLAP, spread


def worst(found: np.ndarray, radii: np.ndarray) -> float:
    """The largest share of the way between two middles, at which they would only touch, that is missing."""
    apart = np.linalg.norm(found[:, None] - found[None], axis=-1)
    touching = radii[:, None] + radii[None]
    missing = 1 - apart / touching
    return float(missing[np.triu_indices(len(found), 1)].max()) if len(found) > 1 else 0.0


@given(st.integers(1, 40).flatmap(lambda n: st.tuples(
    arrays(float, (n, 2), elements=st.floats(-250, 250)), arrays(float, n, elements=st.floats(8, 20)))))  # fmt: skip
def test_none_covers_more_of_another_than_the_share_wherever_they_belong(given_):
    places, radii = given_
    found = spread(places, radii)
    assert found.shape == places.shape
    assert worst(found, radii) <= OVERLAP + 1e-6


def test_what_has_room_stays_where_it_is():
    places = np.array([[0.0, 0.0], [100.0, 0.0], [0.0, 100.0]])
    assert spread(places, np.full(3, 20.0)) == pytest.approx(places, abs=0.01)
    assert spread(places[:1], np.array([20.0])) == pytest.approx(places[:1])
    assert spread(np.zeros((0, 2)), np.zeros(0)).shape == (0, 2)


def test_of_one_place_all_part_in_a_fixed_order():
    places, radii = np.zeros((24, 2)), np.full(24, 13.0)
    found = spread(places, radii)
    assert worst(found, radii) <= OVERLAP + 1e-6
    assert np.linalg.norm(found, axis=1).max() < 13 * 24**0.5 * 1.6, "no farther than they need"
    assert spread(places, radii) == pytest.approx(found)


def test_on_the_ladder_they_go_sideways_before_up_and_down_and_stay_on_it():
    places = np.array([[0.0, -230.0 + n % 5] for n in range(18)])
    radii = np.full(18, 13.0)
    found = spread(places, radii, stretch=(1.0, 0.35), within=(88, 300))
    assert worst(found, radii) <= OVERLAP + 0.02
    moved = np.abs(found - places)
    assert moved[:, 0].max() > moved[:, 1].max()
    assert (np.abs(found) <= (88, 300)).all()


@pytest.mark.parametrize("count", [400, 2000])
def test_thousands_are_laid_out_however_close_they_are(count):
    rng = np.random.default_rng(4)
    places = rng.normal(0, 90, (count, 2))
    radii = np.full(count, 13 * math.sqrt(80 / count))
    found = spread(places, radii)
    assert np.isfinite(found).all()
    assert worst(found, radii) < worst(places, radii)
