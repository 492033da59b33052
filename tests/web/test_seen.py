"""A piece measured in a picture: beside a card or a coin, under the plan, mirrored; of a bad one nothing is kept."""

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.made_up_pictures import CARD, COIN, as_file, disc, picture
from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.piece_photo import Shown
from wembit.web.studio.models import VIEWER


@shared
def piece(owner):
    """A ball of 40 mm."""
    making = begin_making(
        owner, make.project(owner, make.figure(owner, fibre=make.lot(owner, "oat", "99"), length=40)).pk
    )
    return making.pieces.get()


def shot(*things):
    return SimpleUploadedFile("ear.png", as_file(picture(things, wide=900, high=700)), "image/png")


def seen(client, piece, photo, **fields):
    return post(client, f"bench/piece/{piece.pk}/seen/", photo=photo, **{"beside": "card", "coin": "", **fields})


BALL = (disc(150, 100, 44, 43, 0.4), "#8a3b2a")


def test_a_picture_says_how_long_and_wide_it_is(client, piece):
    assert "Lay the piece on plain ground" in words(get(client, f"bench/piece/{piece.pk}/seen/"))
    assert seen(client, piece, shot(CARD, BALL)).status_code == 302
    piece.refresh_from_db()
    assert piece.seen["long_mm"] == pytest.approx(44, abs=0.6)
    assert piece.seen["within"] < 1, "the plan is smaller"
    page = get(client, f"bench/piece/{piece.pk}/seen/")
    assert "Planned 40 mm × 40 mm" in words(page)
    assert 'class="plan-over"' in page
    post(
        client, f"bench/piece/{piece.pk}/measure/", long=str(piece.seen["long_mm"]), thick=str(piece.seen["thick_mm"]),
        layer=str(piece.layers.get().pk),
    )  # fmt: skip
    piece.refresh_from_db()
    assert piece.long_mm == piece.seen["long_mm"]


def test_beside_a_coin_of_which_the_width_is_told(client, piece):
    answer = seen(client, piece, shot(COIN, BALL), beside="coin")
    assert answer.status_code == 422
    assert "Write how wide the coin is." in words(text(answer))
    assert seen(client, piece, shot(COIN, BALL), beside="coin", coin="25.75").status_code == 302
    piece.refresh_from_db()
    assert piece.seen["long_mm"] == pytest.approx(44, abs=0.8)


@pytest.mark.parametrize(
    ("photo", "said"),
    [
        (lambda: shot(COIN, BALL), "No card is seen."),
        (lambda: shot(BALL), "Only one thing is seen."),
        (lambda: SimpleUploadedFile("x.png", b"no picture", "image/png"), "no picture that can be read"),
        (lambda: "", "Choose a picture first."),
    ],
)
def test_what_cannot_be_measured_is_told_and_nothing_is_kept(client, piece, photo, said):
    answer = seen(client, piece, photo())
    assert answer.status_code == 422
    assert said in words(text(answer))
    piece.refresh_from_db()
    assert (piece.seen, bool(piece.photo)) == ({}, False)


def test_it_is_looked_at_upside_down_and_mirrored(client, piece):
    seen(client, piece, shot(CARD, BALL))
    assert "translate(0 0) scale(1 1)" in get(client, f"bench/piece/{piece.pk}/seen/")
    assert "translate(900 700) scale(-1 -1)" in get(client, f"bench/piece/{piece.pk}/seen/?turn=1")
    assert "translate(900 0) scale(-1 1)" in get(client, f"bench/piece/{piece.pk}/seen/?mirror=1")
    piece.refresh_from_db()
    here, there = (Shown(piece.seen, False, mirrored).middle_x for mirrored in (False, True))
    assert here + there == pytest.approx(900), "the line stays with the piece"


def test_z_takes_the_picture_back(client, piece):
    seen(client, piece, shot(CARD, BALL))
    post(client, "undo/")
    piece.refresh_from_db()
    assert (piece.seen, bool(piece.photo)) == ({}, False)


def test_a_viewer_looks_and_keeps_none(client, studio, piece):
    viewer = signed_in(make.member(studio, VIEWER))
    assert "Measure it" not in get(viewer, f"bench/piece/{piece.pk}/seen/")
    assert viewer.post(f"{client.base}bench/piece/{piece.pk}/seen/", {"beside": "card"}).status_code == 403
