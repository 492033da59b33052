"""A piece that is measured says whether it came out as planned, how firm it is, and what its pair has to be like."""

import re

import pytest

from tests.web import factories as make
from tests.web.built_once import in_fibre
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Piece, PieceLayer
from wembit.web.figures.models import Slot
from wembit.web.figures.queries import newest_version


@shared
def making(owner):
    """One firm ball of 40 mm."""
    return begin_making(
        owner, make.project(owner, make.figure(owner, fibre=make.lot(owner, "oat", "99"), length=40)).pk
    )


@shared
def layer(making):
    return PieceLayer.objects.get()


def take(client, layer, grams):
    return post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount=f"{grams:.3f}")


def measure(client, layer, long, thick=""):
    return post(client, f"bench/piece/{layer.piece_id}/measure/", long=long, thick=thick, layer=str(layer.pk))


def page(client, making, layer):
    return get(client, f"bench/{making.pk}/?layer={layer.pk}")


def test_as_planned_and_too_soft(client, making, layer):
    assert "Does it fit" not in words(page(client, making, layer)), "nothing is taken yet"
    take(client, layer, layer.rule_g)
    measure(client, layer, "40", "40")
    shown = page(client, making, layer)
    assert "As planned." in words(shown)
    assert "firm: 0.17 g/cm³" in words(shown)
    ring = re.search(r'<circle cx="([\d.]+)" cy="26" r="8"', shown)[1]
    assert f'd="M{ring} 20l' in shown, "what was reached lies at the ring"
    measure(client, layer, "46", "46")
    assert "felt on, it shrinks" in words(page(client, making, layer))


def test_what_is_to_be_added_is_what_makes_it_as_planned(client, making, layer):
    take(client, layer, layer.rule_g / 2)
    measure(client, layer, "40")
    more = float(re.search(r"let it be soft. About ([\d.]+) g", words(page(client, making, layer)))[1])
    assert more == pytest.approx(layer.rule_g / 2, abs=0.06)
    take(client, layer, more)
    assert "As planned." in words(page(client, making, layer))


def test_what_was_cut_off_is_not_in_it(client, making, layer):
    take(client, layer, layer.rule_g * 1.5)
    post(client, f"bench/layer/{layer.pk}/trim/", trimmed=f"{layer.rule_g / 2:.3f}", where="waste")
    measure(client, layer, "4 cm")
    assert "As planned." in words(page(client, making, layer))


@pytest.mark.parametrize(
    ("long", "thick", "said"),
    [("0.1", "", "half a millimetre"), ("", "4", "its length, too"), ("x", "", "Write"), ("99 m", "", "more than")],
)
def test_what_cannot_be_measured_is_told_and_kept(client, making, layer, long, thick, said):
    take(client, layer, 1)
    answer = measure(client, layer, long, thick)
    assert said in told(answer)
    assert Piece.objects.get().long_mm is None
    if long:
        assert f'value="{long}"' in answer.content.decode()


def test_z_takes_a_measure_back_and_a_viewer_measures_nothing(client, owner, making, layer):
    take(client, layer, 1)
    measure(client, layer, "40")
    assert Piece.objects.get().long_mm == 40
    post(client, "undo/")
    assert Piece.objects.get().long_mm is None
    viewer = signed_in(make.member(owner.studio, "viewer"))
    assert measure(viewer, layer, "40").status_code == 403


def test_the_second_of_a_pair_is_held_against_the_first(client, owner):
    wool, figure = make.lot(owner, "oat", "100"), figure_with(client, "Rabbit", ("body", "60"), ("ear", "24"))
    for slot in Slot.objects.filter(version=newest_version(figure)):
        in_fibre(figure, slot.name, wool.item_id)
    making = begin_making(owner, make.project(owner, figure, count=1).pk)
    one, two = PieceLayer.objects.filter(piece__part_key="ear").order_by("piece__position")
    take(client, one, 0.5)
    measure(client, one, "23", "11")
    take(client, two, 0.5)
    take(client, one, 0.2)
    assert "ear 1: 0.5 g + 0.2 g; came out 23 mm long, 11 mm thick." in words(page(client, making, two))
    assert "ear 2: 0.5 g." in words(page(client, making, one))
    assert "ear 2: 0.5 g; came out" not in words(page(client, making, one))


def test_a_figure_made_larger_after_a_false_start_is_at_the_bench_as_it_is_now(client, owner):
    ball = make.figure(owner, fibre=make.lot(owner, "oat", "99"), length=30)
    project = make.project(owner, ball)
    begun = begin_making(owner, project.pk)
    assert "30 mm" in words(get(client, f"bench/{begun.pk}/"))
    post(client, f"bench/{begun.pk}/not-begun/")
    post(client, f"figures/{ball.pk}/part/ball/", diameter_mm="36")
    again = begin_making(owner, project.pk)
    assert again.colourway.version_id == begun.colourway.version_id, "the same version, thawed and frozen once more"
    page = words(get(client, f"bench/{again.pk}/"))
    assert "36 mm" in page and "30 mm" not in page
