"""Cover: the least wool that hides what is under it."""

import math
import warnings

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from wembit.core.__main__ import answer
from wembit.core.colour.conversions import lab, ratios, xyz_rows_to_lab, xyz_to_lab
from wembit.core.colour.difference import delta_e_2000, differences
from wembit.core.colour.show_through import bare_fraction, cover, hiding_power

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour as colour_science

HEX = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")
MICRON = st.floats(12, 40)


def test_a_mean_of_one_fibre_over_every_spot_leaves_one_in_e_bare():
    # Kallmes & Corte (1960): the number of fibres over a spot of a random sheet is Poisson; mean 1 leaves 36.8 % bare
    area = 4 / (math.pi * 20e-6 * 1.31e6)  # m² that a gram of fibres 20 µm thick shades, laid side by side
    assert area == pytest.approx(0.0486, abs=5e-5)
    assert bare_fraction(1 / area, 20, tau=1) == pytest.approx(0.368, abs=5e-4)
    assert bare_fraction(2 / area, 20, tau=0.5) == pytest.approx(0.368, abs=5e-4)


@given(HEX, HEX, MICRON, st.floats(0.25, 1))
def test_the_weight_is_the_smallest_that_hides(own, under, micron, tau):
    found = cover(own, under, micron, tau)
    assert 60 <= found.g_m2 <= 400
    if found.capped:
        assert found.g_m2 == 400
        assert found.de00 > 2
    else:
        assert found.de00 <= 2
        thinner = cover(own, under, micron, tau, least_g_m2=0, most_g_m2=max(60, found.g_m2 - 0.01))
        assert found.g_m2 == 60 or thinner.capped


@given(HEX, HEX, MICRON, st.floats(0.5, 3))
def test_weight_goes_with_the_fibres_thickness_and_against_its_hiding(own, under, micron, times):
    open_ = {"least_g_m2": 0, "most_g_m2": 1e6}
    once = cover(own, under, micron, **open_).g_m2
    assume(once > 0)
    assert cover(own, under, micron * times, **open_).g_m2 == pytest.approx(once * times, rel=1e-6)
    assert cover(own, under, micron, 0.5 * times, **open_).g_m2 == pytest.approx(once / times, rel=1e-6)


@given(HEX, st.floats(0, 400))
def test_wool_over_itself_never_shows(own, least):
    assert cover(own, own, 22, least_g_m2=least).g_m2 == least


@given(st.integers(0, 2**32 - 1), st.floats(0, 1))
def test_the_seen_colour_is_that_of_the_mixed_reflectances(seed, bare):
    # CIE 1931 2° observer and D65 by a reference library: mixing curves and mixing tristimulus values is the same
    observer = colour_science.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"]
    light = colour_science.SDS_ILLUMINANTS["D65"]
    waves = np.arange(380, 740, 10)
    weights = np.array([observer[int(w)] for w in waves]) * np.array([light[int(w)] for w in waves])[:, None]
    own, under = np.random.default_rng(seed).uniform(0.01, 0.99, (2, 36))
    own_xyz, under_xyz, seen_xyz = (
        curve @ weights / weights.sum(axis=0) for curve in (own, under, (1 - bare) * own + bare * under)
    )
    mixed = [(1 - bare) * mine + bare * below for mine, below in zip(own_xyz, under_xyz, strict=True)]
    assert delta_e_2000(xyz_to_lab(seen_xyz), xyz_to_lab(mixed)) < 1e-6


@pytest.mark.parametrize(
    ("own", "over", "limit", "weight"), [("#fc5efe", "#20bb5f", 17.886, 17.98), ("#808080", "#808080", 1, 1)]
)
def test_the_first_crossing_is_taken_where_there_are_several(own, over, limit, weight):
    found = cover(own, over, 24, limit_de00=limit, least_g_m2=1, most_g_m2=600)
    assert found.g_m2 == pytest.approx(weight, abs=0.005)
    assert not found.capped


@given(HEX, HEX, MICRON, st.floats(0.25, 1), st.floats(1, 25), st.sampled_from([1, 60]))
def test_nothing_lighter_hides(own, under, micron, tau, limit, least):
    """Against 20,000 weights tried one by one: a difference that dips and rises again is found in its first dip."""
    found = cover(own, under, micron, tau, limit_de00=limit, least_g_m2=least, most_g_m2=600)
    weights = np.linspace(least, 600, 20_000)
    bare = np.exp(-tau * 4 / (math.pi * micron * 1.31) * weights)[:, None]
    seen = (1 - bare) * np.array(ratios(own)) + bare * np.array(ratios(under))
    hides = np.flatnonzero(differences(xyz_rows_to_lab(seen), np.array(lab(own))) <= limit - 1e-9)
    if len(hides):
        assert not found.capped
        assert found.g_m2 <= weights[hides[0]] + 1e-6


def test_dark_wool_hides_more_than_pale_wool():
    assert hiding_power("#f1ede3") == 0.25
    assert hiding_power("#24211f") == 1
    assert hiding_power("#777777") == pytest.approx(1 - 0.75 * (lab("#777777")[0] - 30) / 50)


def test_the_answer_on_the_command_line():
    asked = b'{"srgb":"#6F7D43","over":"#e9e2d2","micron_um":22}'
    found = answer("cover", asked)
    assert set(found) == {"cover_g_m2", "bare", "de00"}
    assert found["de00"] == pytest.approx(2, abs=1e-6)
    assert found["bare"] == pytest.approx(bare_fraction(found["cover_g_m2"], 22))
    thin = answer("cover", b'{"srgb":"#000000","over":"#ffffff","micron_um":22,"most_g_m2":100}')
    assert thin["capped"] is True
    assert thin["cover_g_m2"] == 100
    assert thin["de00"] > 2


def test_the_first_weight_that_hides_counts_where_a_heavier_one_shows_again():
    # this blue over this green comes within 21 at 24 g/m², turns greener again up to 38 and comes back at 41
    own, under, micron = "#ab2dbf", "#33af68", 22

    def seen(g_m2):
        bare = bare_fraction(g_m2, micron)
        mixed = [(1 - bare) * mine + bare * below for mine, below in zip(ratios(own), ratios(under), strict=True)]
        return delta_e_2000(xyz_to_lab(mixed), lab(own))

    weights = np.linspace(5, 400, 3951)
    within = np.array([seen(weight) for weight in weights]) <= 21
    first = int(np.argmax(within))
    assert not within[first:].all(), "the case is one that shows again"
    found = cover(own, under, micron, limit_de00=21, least_g_m2=5)
    assert found.g_m2 == pytest.approx(weights[first], abs=0.11)
