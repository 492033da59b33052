"""What rolling loosely costs: a piece that was once larger and softer, and the minutes that its part took."""

import pytest

from tests.web import factories as make
from tests.web.helpers import get, post, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Making, Piece, PieceLayer
from wembit.web.bench.records import loose_costs


@shared
def project(owner):
    ball = make.figure(owner, fibre=make.lot(owner, "oat", "900"), length=40)
    return make.project(owner, ball, count=8)


def worked(client, owner, project, minutes, *sizes):
    """One ball, measured at those sizes one after the other, done in so many minutes."""
    making = begin_making(owner, project.pk)
    layer = PieceLayer.objects.get(piece__making=making)
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount=f"{layer.rule_g:.3f}")
    for size in sizes:
        post(client, f"bench/piece/{layer.piece_id}/measure/", long=size, thick=size, layer=str(layer.pk))
    post(client, f"bench/piece/{layer.piece_id}/minutes/", minutes=str(minutes), layer=str(layer.pk))
    post(client, f"bench/{making.pk}/finish/", unweighed="nothing")
    return Making.objects.get(pk=making.pk)


def test_a_piece_that_was_larger_and_softer_stays_known_as_such(client, owner, project):
    worked(client, owner, project, 30, "48", "40")
    assert Piece.objects.get().was_loose
    assert Piece.objects.get().long_mm == 40


def test_one_of_its_size_was_not(client, owner, project):
    worked(client, owner, project, 30, "40")
    assert not Piece.objects.get().was_loose


def test_the_page_says_what_it_costs_when_enough_is_known(client, studio, owner, project):
    for minutes in (45, 60, 60):
        worked(client, owner, project, minutes, "49", "40")
    assert loose_costs(studio) is None
    assert "Rolled loosely" not in words(get(client, "bench/learnt/"))
    for minutes in (30, 40, 40):
        worked(client, owner, project, minutes, "40")
    times, count = loose_costs(studio)
    assert (times, count) == (pytest.approx(1.5, rel=0.01), 3)
    assert "Rolled loosely at first, a part took 1.5 times the minutes of the others; from 3." in words(
        get(client, "bench/learnt/")
    )
