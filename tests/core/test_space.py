"""A shelf as points: lengths are differences, and what can be left out is left out rightly."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial import cKDTree

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import ratios, xyz_rows_to_lab
from wembit.core.colour.difference import differences
from wembit.core.colour.mixture import M, f, reflectance
from wembit.core.colour.recovery import curves
from wembit.core.colour.search.linear_space import Space
from wembit.core.colour.search.neighbours import Neighbours
from wembit.core.colour.search.shortest import Shortest

SEEDS = st.integers(0, 2**31)


def shelf(chance, lots=40):
    return f(curves(np.array([ratios(f"#{n:06x}") for n in chance.integers(0x101010, 0xF0F0F0, lots)]))[0])


@settings(max_examples=20)
@given(SEEDS)
def test_near_its_middle_a_length_is_the_difference(seed):
    """A little of any lot in the middle's own mix: the space is straight there, CIEDE2000 by the formula itself."""
    chance = np.random.default_rng(seed)
    mixing = shelf(chance)
    middle = mixing[0]
    target = xyz_rows_to_lab(WEIGHTS @ reflectance(middle))
    space = Space(mixing, middle, target, M)
    share = 0.6 / np.linalg.norm(space.points[1:], axis=1).max()
    mixed = (1 - share) * middle + share * mixing[1:]
    really = differences(xyz_rows_to_lab(reflectance(mixed) @ WEIGHTS.T), target)
    lengths = np.sqrt(space.off + share**2 * space.own[1:])
    assert lengths == pytest.approx(really, abs=0.06)


@settings(max_examples=20)
@given(SEEDS, st.floats(0.0005, 1))
def test_no_recipe_within_reach_has_a_larger_share_than_is_said(seed, nearest):
    chance = np.random.default_rng(seed)
    mixing = shelf(chance)
    space = Space(mixing, mixing[:3].mean(axis=0), xyz_rows_to_lab(np.array([0.3, 0.3, 0.2])), M)
    shares = chance.dirichlet(np.full(40, 0.05), size=4000)
    lengths = np.linalg.norm(shares @ space.points, axis=1)
    reach = float(np.quantile(lengths, nearest))
    assert (shares[lengths <= reach].max(axis=0) <= space.largest_shares(reach) + 1e-4).all()


@given(SEEDS, st.floats(0.1, 5))
@settings(max_examples=30)
def test_all_that_is_within_reach_is_found(seed, reach):
    """scipy's k-d tree tells what is near."""
    chance = np.random.default_rng(seed)
    points, places = (chance.uniform(-20, 20, (n, 3)).astype(np.float32) for n in (200, 500))
    lots = np.flatnonzero(chance.random(200) < 0.7)
    near = Neighbours(points.T.copy(), lots, reach)
    some, starts, counts = near.beside(places.T.copy())
    found = set(zip(np.repeat(some, counts).tolist(), near.listed(starts, counts).tolist(), strict=True))
    truly = cKDTree(places).query_ball_tree(cKDTree(points[lots]), reach * 0.9999)
    assert {(place, int(lots[n])) for place, hits in enumerate(truly) for n in hits} <= found


@settings(max_examples=30)
@given(SEEDS, st.integers(1, 60), st.sampled_from([0.002, 0.5, 1.0]))
def test_the_shortest_of_what_can_be_are_kept(seed, most, often):
    chance = np.random.default_rng(seed)
    lengths, good = chance.random((300, 400)), chance.random((300, 400)) < often
    shortest = Shortest(0.8, most, lambda indices, _: good[indices[:, 0], indices[:, 1]])
    for start in (0, 100, 200):
        shortest.add(
            lengths[start : start + 100],
            lambda rows, columns, at=start: (np.column_stack([rows + at, columns]), np.ones((len(rows), 2), dtype=int)),
        )
    indices, _ = shortest.all()
    wanted = np.sort(lengths[good & (lengths < 0.8)])[:most]
    assert np.sort(lengths[indices[:, 0], indices[:, 1]]) == pytest.approx(wanted)
