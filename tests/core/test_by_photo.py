"""Pieces measured in made-up pictures: within a millimetre at a hundred."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.made_up_pictures import CARD, COIN, PX_MM, WIDE, block, disc, picture
from wembit.core.work.by_photo import CARD_MM, NoScale, measured, otsu, smallest_rectangle
from wembit.core.work.laid_over import laid_over


@settings(max_examples=settings.default.max_examples // 5)
@given(turned=st.floats(0, math.pi), long=st.floats(40, 110), tilt=st.floats(0, 0.2), seed=st.integers(0, 99))
def test_beside_a_card_within_a_millimetre_at_a_hundred(turned, long, tilt, seed):
    piece = (disc(112 + 0.62 * long, 90, long, 0.55 * long, turned), "#8a3b2a")
    found = measured(picture([CARD, piece], tilt=tilt, seed=seed, fuzz=60))
    assert found.long_mm == pytest.approx(long, abs=1.0)
    assert found.wide_mm == pytest.approx(0.55 * long, abs=1.0)


@pytest.mark.sampled("coins", 1)
@pytest.mark.parametrize("coin", [16.25, 25.75, 30.0])
def test_beside_a_coin(coin):
    piece = (disc(170, 110, 100, 48, 0.7), "#5a6a40")
    found = measured(picture([(disc(40, 50, coin), "#b08d57"), piece]), coin_mm=coin)
    assert found.long_mm == pytest.approx(100, abs=1.0)
    assert found.wide_mm == pytest.approx(48, abs=1.0)


def test_a_coin_seen_aslant_is_still_a_disc():
    flat = lambda ring: ring * [1, 0.93]  # noqa: E731 (the whole table is seen from aside)
    piece = (flat(disc(170, 110, 100, 48, 0.7)), "#5a6a40")
    found = measured(picture([(flat(COIN[0]), COIN[1]), piece]), coin_mm=25.75)
    assert found.long_mm == pytest.approx(100, abs=1.0)


def test_pale_wool_on_dark_ground_and_a_lamp_aside():
    shot = picture([(CARD[0], "#f5f5f5"), (disc(180, 110, 80, 60), "#f2ece0")], ground="#3a3633")
    lamp = np.linspace(0.75, 1.15, WIDE)[None, :, None]
    lit = np.clip(shot * lamp, 0, 255).astype(np.uint8)
    assert measured(lit).long_mm == pytest.approx(80, abs=0.8)


def test_a_square_piece_is_no_card_and_a_ball_beside_a_coin_is_the_right_one():
    found = measured(picture([CARD, (block(180, 110, 60, 58, 0.3), "#8a3b2a")]))
    assert found.long_mm == pytest.approx(60, abs=0.8)
    ball = measured(picture([COIN, (disc(170, 110, 40), "#8a3b2a")]), coin_mm=25.75)
    assert ball.long_mm == pytest.approx(40, abs=0.6)


@pytest.mark.sampled("pictures that cannot be measured", 2)
@pytest.mark.parametrize(
    ("things", "coin", "said"),
    [
        ([], None, "Only one thing"),
        ([CARD], None, "Only one thing"),
        ([COIN, (disc(170, 110, 90, 50), "#8a3b2a")], None, "No card"),
        ([CARD, (disc(170, 110, 90, 50), "#8a3b2a")], 25.75, "No round coin"),
        ([(block(0, 60, *CARD_MM), "#4f6f8f"), (disc(170, 110, 90, 50), "#8a3b2a")], None, "Only one thing"),
    ],
)
def test_what_cannot_be_measured_says_what_to_do(things, coin, said):
    with pytest.raises(NoScale, match=said):
        measured(picture(things), coin_mm=coin)


def test_the_plan_is_laid_over_the_piece_the_right_way_round():
    around = np.radians(np.linspace(-140, 140, 90))
    drop = np.vstack(
        [np.column_stack([np.cos(around), np.sin(around)]) * 25, [[-45, 4], [-45, -4]]]
    )  # thick at one end
    turn = np.array([[0, -1], [1, 0]])
    piece = (drop @ turn.T + [180, 110], "#8a3b2a")
    found = measured(picture([CARD, piece]))
    rings, within = laid_over(found, [[tuple(each) for each in drop.tolist()]])
    assert within > 0.97
    wanted = (drop @ turn.T + [180, 110]) * PX_MM
    assert rings[0].min(axis=0) == pytest.approx(wanted.min(axis=0), abs=6)
    assert rings[0].max(axis=0) == pytest.approx(wanted.max(axis=0), abs=6)
    _, half = laid_over(found, [[tuple(each) for each in (drop / 2).tolist()]])
    assert half < 0.5


def test_the_smallest_rectangle_of_a_turned_one_is_it():
    for turned in np.linspace(0, math.pi, 13):
        middle, angle, long, wide = smallest_rectangle(block(7, -3, 40, 15, float(turned)))
        assert (middle, long, wide) == (
            pytest.approx((7, -3), abs=1e-3),
            pytest.approx(40, abs=1e-3),
            pytest.approx(15, abs=1e-3),
        )
        assert math.sin(angle - turned) == pytest.approx(0, abs=1e-5)


def test_otsu_parts_two_heaps_between_them():
    chance = np.random.default_rng(1)
    values = np.concatenate([chance.normal(10, 2, 4000), chance.normal(90, 6, 1500)])
    assert 25 < otsu(values) < 75
