"""The drawn tuft: its colours are those of the blend, and run together with every pass."""

import numpy as np
import pytest

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import lab, ratios, xyz_to_lab
from wembit.core.colour.difference import delta_e_2000
from wembit.core.colour.mixture import blend
from wembit.core.colour.recovery import curves
from wembit.core.colour.tuft import HIGH_MM, LONG_MM, PASSES, STRANDS, tuft

PAIR = curves(np.array([ratios("#8c9b4a"), ratios("#34503d")]))[0]


def spread(strands):
    """How far the strands are from what the whole blend looks like, in the middle."""
    whole = xyz_to_lab(WEIGHTS @ blend(PAIR, [2, 1]))
    return np.mean([delta_e_2000(lab(strand.srgb), whole) for strand in strands])


def test_every_pass_makes_a_tuft_more_even_and_arms_length_too():
    close = [spread(tuft(PAIR, (2, 1), passes)) for passes in PASSES]
    far = [spread(tuft(PAIR, (2, 1), passes, close=False)) for passes in PASSES]
    assert close[0] > close[1] > close[2]
    assert all(one > other for one, other in zip(close, far, strict=True))
    assert far[-1] < 1, "the same to the eye"


def test_a_tuft_of_one_wool_is_of_its_colour_throughout():
    strands = tuft(PAIR[:1], (1,), 1)
    assert len(strands) == STRANDS
    assert {strand.srgb for strand in strands} == {"#8c9b4a"}


def test_the_same_recipe_gives_the_same_tuft():
    assert tuft(PAIR, (2, 1), 3, seed=7) == tuft(PAIR, (2, 1), 3, seed=7) != tuft(PAIR, (2, 1), 3, seed=8)


@pytest.mark.parametrize("parts", [(1, 1), (7, 1)])
def test_one_pass_shows_both_wools_in_their_shares(parts):
    first = [delta_e_2000(lab(strand.srgb), lab("#8c9b4a")) < 1 for strand in tuft(PAIR, parts, 1)]
    assert 0 < sum(first) < STRANDS


def test_a_tuft_lies_in_its_frame_its_middle_strands_the_longest():
    strands = tuft(PAIR, (2, 1), 3, seed=3)
    reach = np.array([strand.points[-1][0] for strand in strands])
    heights = np.array([strand.points[1][1] for strand in strands])
    assert all(strand.points[0][0] == -strand.points[-1][0] for strand in strands), "as far to the left as to the right"
    assert all(strand.points[2][0] == pytest.approx(strand.points[3][0] / 3, abs=0.06) for strand in strands)
    assert reach.min() > 0.5 * LONG_MM / 2 and reach.max() <= LONG_MM / 2
    edge, middle = np.abs(heights) > 0.35 * HIGH_MM, np.abs(heights) < 0.15 * HIGH_MM
    assert edge.sum() > 10 < middle.sum()
    assert reach[middle].mean() > 1.1 * reach[edge].mean(), "a tuft runs out to a point"
    assert heights.min() < -0.4 * HIGH_MM and heights.max() > 0.4 * HIGH_MM and np.abs(heights).max() < 0.75 * HIGH_MM
