"""Wire that carries, feet from one wire, and what mends a figure that tips, as a maker reads it."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, words
from wembit.core.pose.carrying import carries_g
from wembit.demo.figures import FIGURES
from wembit.demo.loader import load_figure
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.figures.to_core.wiring import cuts_of, wires


@pytest.fixture
def loaded(owner):
    wools = {}

    def load(name):
        demo = next(figure for figure in FIGURES if figure.name == name)
        for fibre in {*demo.slots.values(), *(fibre for way in demo.ways.values() for fibre in way.values())} - set(
            wools
        ):
            wools[fibre] = make.lot(owner, fibre).item
        return load_figure(owner.studio, demo, wools).version.figure

    return load


def test_a_herons_feet_are_one_wire_each_and_no_millimetre_is_lost(client, loaded):
    heron = loaded("Heron")
    parts = parts_of(newest_version(heron))
    cuts = cuts_of(parts)
    toes = next(cut for cut in cuts if "toes" in cut.part)
    assert (toes.pieces, toes.cut_mm) == (2, 148)
    assert sum(cut.pieces * cut.cut_mm for cut in cuts) == pytest.approx(sum(wire.total_mm for wire in wires(parts)))
    page = words(get(client, f"figures/{heron.pk}/"))
    assert "toes of the leg, one wire" in page
    step = words(get(client, f"figures/{heron.pk}/order/", data={"step": "wire:front-toe"}))
    assert "Cut 2 × 148 mm of 1 mm wire, one a foot" in step
    assert "wire:back-toe" not in get(client, f"figures/{heron.pk}/order/")


def test_a_leg_says_what_it_carries_and_when_it_gives_way(client, loaded):
    heron = loaded("Heron")
    said = words(get(client, f"figures/{heron.pk}/"))
    load, times = re.search(r"Leg: 1.5 mm wire carries its ([\d.]+) g; at ([\d.]+) times", said).groups()
    assert float(load) < carries_g(1.5, 88)
    assert float(times) > 1
    post(client, f"figures/{heron.pk}/part/leg/", wire_mm="0.4")
    post(client, f"figures/{heron.pk}/part/leg/wire/", gauge_mm="0.4", bare_mm="30")
    said = words(get(client, f"figures/{heron.pk}/"))
    assert re.search(r"Leg: 0.4 mm wire gives way under [\d.]+ g each; take [\d.]+ mm", said)


def test_a_figure_that_tips_gets_offers_with_numbers(client, loaded):
    crab = loaded("Hermit crab")
    said = words(get(client, f"figures/{crab.pk}/"))
    assert "It tips" in said
    assert re.search(
        r"What would mend it: feet that reach [\d.]+ mm further backward, [\d.]+ g of weight in its base, or leaning",
        said,
    )
    stands = words(get(client, f"figures/{loaded('Otter, upright').pk}/"))
    assert "What would mend it" not in stands


def test_the_wire_of_a_part_says_how_much_of_it_its_hole_takes(client, owner):
    figure = figure_with(client, "Stilt", ("body", "60"), ("leg", "40"))
    post(client, f"figures/{figure.pk}/part/leg/wire/", gauge_mm="1", bare_mm="13")
    page = words(get(client, f"figures/{figure.pk}/", data={"part": "leg"}))
    assert "In its hole about 13 mm of bare wire hold" in page


def test_how_big_says_where_the_wire_of_a_leg_gives_way(client, loaded):
    heron = loaded("Heron")
    at = float(re.search(r"at ([\d.]+) times the size", words(get(client, f"figures/{heron.pk}/")))[1])
    said = {
        times: words(get(client, f"figures/{heron.pk}/size/", data={"way": "times", "times": f"{times:.2f}"}))
        for times in (at - 0.1, at + 0.1)
    }
    assert "1.5 mm wire carries its" in said[at - 0.1]
    assert re.search(r"1.5 mm wire gives way under [\d.]+ g each; take [\d.]+ mm", said[at + 0.1])
