"""A finished making's numbers become the figure's next version in one press, and Z takes them back."""

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Piece, PieceLayer
from wembit.web.figures.models import Part
from wembit.web.figures.queries import newest_version, part_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.studio.models import VIEWER


@shared
def making(owner):
    """One firm ball of 40 mm."""
    ball = make.figure(owner, fibre=make.lot(owner, "oat", "99"), length=40)
    return begin_making(owner, make.project(owner, ball).pk)


def take_all(client, making, times):
    for layer in PieceLayer.objects.filter(piece__making=making):
        grams = f"{layer.rule_g * times:.3f}"
        post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount=grams)


def measure(client, piece, long, thick):
    post(client, f"bench/piece/{piece.pk}/measure/", long=long, thick=thick)


def finish(client, making):
    post(client, f"bench/{making.pk}/finish/", unweighed="nothing")
    making.refresh_from_db()
    assert making.finished_at


def planned(making):
    version = newest_version(making.colourway.version.figure)
    return version, version.parts.prefetch_related("layers").first()


def test_a_measured_piece_gives_its_size_and_firmness(client, making):
    take_all(client, making, 1.1)
    measure(client, Piece.objects.get(), "44", "44")
    finish(client, making)
    shown = words(get(client, f"bench/{making.pk}/"))
    assert "ball 44 mm × 44 mm instead of 40 mm × 40 mm, medium" in shown, "1.1 of the wool in 1.33 of the volume"
    answer = post(client, f"bench/{making.pk}/as-made/")
    version, part = planned(making)
    assert str(version.figure_id) in answer.url
    assert (version.number, version.frozen_at) == (2, None)
    assert part.shape["diameter_mm"] == pytest.approx(44)
    assert part.firmness == "medium"
    making.colourway.version.refresh_from_db()
    assert part_of(making.colourway.version, part.key).shape["diameter_mm"] == 40, "what was made stays as it was"


def test_a_piece_that_was_only_weighed_is_planned_with_its_weight(client, making):
    take_all(client, making, 1.25)
    finish(client, making)
    taken = float(PieceLayer.objects.get().rule_g * 1.25)
    assert f"ball {taken:.2f} g instead of" in words(get(client, f"bench/{making.pk}/"))
    post(client, f"bench/{making.pk}/as-made/")
    version, part = planned(making)
    plan = plan_figure(
        version, list(version.parts.prefetch_related("layers__slot")), Palette.of(version.colourways.get())
    )
    assert plan.all.p50 == pytest.approx(taken, abs=0.01)
    assert part.shape["diameter_mm"] > 40


@pytest.mark.parametrize("is_measured", [True, False])
def test_what_is_planned_with_it_already_is_not_offered_again(client, making, is_measured):
    take_all(client, making, 1.25)
    if is_measured:
        measure(client, Piece.objects.get(), "44", "44")
    finish(client, making)
    post(client, f"bench/{making.pk}/as-made/")
    assert "Plan the next as this one came out" not in words(get(client, f"bench/{making.pk}/"))
    answer = post(client, f"bench/{making.pk}/as-made/")
    assert "Nothing came out otherwise than planned." in words(answer.content.decode())


def test_z_takes_it_back(client, making):
    take_all(client, making, 1.1)
    measure(client, Piece.objects.get(), "44", "44")
    finish(client, making)
    post(client, f"bench/{making.pk}/as-made/")
    post(client, "undo/")
    assert planned(making)[1].shape["diameter_mm"] == 40


def test_what_came_out_as_planned_offers_nothing(client, making):
    take_all(client, making, 1.0)
    finish(client, making)
    assert "Plan the next as this one came out" not in words(get(client, f"bench/{making.pk}/"))
    answer = post(client, f"bench/{making.pk}/as-made/")
    assert "Nothing came out otherwise than planned." in words(answer.content.decode())
    assert planned(making)[0].number == 1


def test_one_in_hand_is_not_yet_as_made(client, making):
    take_all(client, making, 1.3)
    answer = post(client, f"bench/{making.pk}/as-made/")
    assert answer.status_code == 422
    assert planned(making)[0].number == 1


def test_pieces_of_a_part_give_their_mean(client, owner):
    figure = make.figure(owner, fibre=make.lot(owner, "oat", "99"), length=40)
    Part.objects.filter(version__figure=figure).update(count=2)
    making = begin_making(owner, make.project(owner, figure).pk)
    take_all(client, making, 1.0)
    for piece, size in zip(Piece.objects.all(), ("44", "52"), strict=True):
        measure(client, piece, size, "")
    finish(client, making)
    assert "ball 48 mm × 48 mm instead of 40 mm × 40 mm" in words(get(client, f"bench/{making.pk}/"))


def test_a_viewer_does_not(studio, client, making):
    take_all(client, making, 1.3)
    finish(client, making)
    viewer = signed_in(make.member(studio, VIEWER))
    assert "Plan with these" not in get(viewer, f"bench/{making.pk}/")
    assert viewer.post(f"{client.base}bench/{making.pk}/as-made/").status_code == 403
