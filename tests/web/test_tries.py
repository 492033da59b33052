"""A set taken at once, a try given up, a coat cut off: nothing disappears from the ledger, and all of it goes back."""

import uuid
from decimal import Decimal as D

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.web import factories as make
from tests.web.built_once import in_fibre
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.core.grams.estimate import Range
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.take_set import shared_out
from wembit.web.bench.models import Piece, PieceLayer, Take, Trim, Try
from wembit.web.bench.queries import LayerLine, making_of
from wembit.web.figures.models import Slot
from wembit.web.figures.queries import newest_version
from wembit.web.plan.models import Need
from wembit.web.plan.queries import open_needs
from wembit.web.stash.models import Entry, Lot, Movement


@shared
def wool(owner):
    return make.lot(owner, "oat", "100", srgb="#d8c8a0")


@shared
def making(maker, owner, wool):
    """A body with two ears, in one wool."""
    figure = figure_with(maker, "Rabbit", ("body", "60"), ("ear", "24"))
    for slot in Slot.objects.filter(version=newest_version(figure)):
        in_fibre(figure, slot.name, wool.item_id)
    return begin_making(owner, make.project(owner, figure, count=1).pk)


@shared
def ear(making):
    return PieceLayer.objects.get(piece__name="ear 1")


def scrap(owner, name="warm scrap", srgb="#a98a6b", grams="5"):
    return make.lot(owner, name, grams, form="scrap", srgb=srgb)


def line(owner, making, name="ear 1"):
    return next(piece for piece in making_of(owner.studio, making.pk).pieces if piece.piece.name == name)


def take(client, layer, wool, amount, **more):
    return post(client, f"bench/layer/{layer.pk}/take/", lot=str(wool.pk), amount=amount, **more)


# --- a set


def test_one_amount_is_shared_out_over_the_set(client, owner, making, wool, ear):
    page = get(client, f"bench/{making.pk}/?layer={ear.pk}&all=1")
    assert "Take it for both" in words(page)
    key = str(uuid.uuid4())
    for _ in range(2):
        take(client, ear, wool, "1.001", all="1", key=key)
    assert [line(owner, making, f"ear {n}").taken for n in (1, 2)] == [D("0.501"), D("0.5")]
    wool.refresh_from_db()
    assert wool.on_hand == D("98.999")
    assert Entry.objects.filter(client_key=key).count() == 1
    assert set(Piece.objects.filter(part_key="ear").values_list("state", flat=True)) == {"weighed"}
    post(client, "undo/")
    assert line(owner, making).taken == 0


def test_who_has_less_gets_more_of_what_is_shared_out(client, owner, making, wool, ear):
    whole = line(owner, making).layers[0].grams.p50
    take(client, ear, wool, f"{whole / 2:.3f}")
    take(client, ear, wool, f"{whole * 1.5:.3f}", all="1")
    one, other = (float(line(owner, making, f"ear {n}").taken) for n in (1, 2))
    assert one == pytest.approx(other, abs=0.002)


def test_a_set_refuses_what_one_refuses(client, owner, making, wool, ear):
    assert "Take more than nothing" in told(take(client, ear, wool, "0", all="1"))
    assert "weigh the bag again" in told(take(client, ear, wool, "101", all="1"))
    assert "no oat" in told(take(client, ear, make.lot(owner, "pine"), "1", all="1"))
    assert line(owner, making).taken == 0


class _Layer:
    freed = D(0)


@given(st.lists(st.floats(0.02, 30), min_size=1, max_size=12), st.decimals("0.001", "200", places=3))
def test_shares_come_to_the_whole_and_are_as_what_is_wanted(middles, amount):
    lines = [LayerLine(_Layer(), Range(middle, middle, middle), D(0)) for middle in middles]
    shares = shared_out(amount, lines)
    assert sum(shares) == amount
    for share, middle in zip(shares, middles, strict=True):
        assert abs(float(share) - float(amount) * middle / sum(middles)) <= 0.0011


# --- a try


def test_a_try_goes_to_scrap_and_the_piece_is_planned_again(
    client, owner, making, wool, ear, django_capture_on_commit_callbacks
):
    bag, need = scrap(owner), Need.objects.get(pk=ear.need)
    planned = need.p50
    take(client, ear, wool, "1.2")
    answer = post(client, f"bench/piece/{ear.piece_id}/again/", where=str(bag.pk), reason="big")
    assert answer.status_code in (200, 302)
    bag.refresh_from_db()
    wool.refresh_from_db()
    assert (bag.on_hand, wool.on_hand) == (D("6.2"), D("98.8"))
    assert Movement.objects.get(lot=bag, kind="trimmed").amount == D("1.2")
    assert line(owner, making).taken == 0
    assert Piece.objects.get(pk=ear.piece_id).state == "planned"
    need.refresh_from_db()
    assert need.p50 == planned + D("1.2"), "what was given up is needed once more"
    assert "1.2 g, too big, to warm scrap" in words(get(client, f"bench/{making.pk}/?layer={ear.pk}"))
    with django_capture_on_commit_callbacks(execute=True):
        post(client, "undo/")
    bag.refresh_from_db()
    need.refresh_from_db()
    assert (bag.on_hand, need.p50, line(owner, making).taken) == (5, planned, D("1.2"))
    with django_capture_on_commit_callbacks(execute=True):
        post(client, "again/")
    bag.refresh_from_db()
    need.refresh_from_db()
    assert (bag.on_hand, need.p50, line(owner, making).taken) == (D("6.2"), planned + D("1.2"), 0)


def test_what_is_left_of_the_need_stays_whole_after_a_try(client, owner, making, wool, ear):
    before = sum(need.left for need in open_needs(owner.studio))
    take(client, ear, wool, "1.2")
    post(client, f"bench/piece/{ear.piece_id}/again/", where="waste", reason="")
    assert sum(need.left for need in open_needs(owner.studio)) == before
    assert Try.objects.get().lot is None
    assert not Movement.objects.filter(kind="trimmed").exists()


def test_a_new_bag_of_scrap_has_the_colour_of_the_wool(client, owner, making, wool, ear):
    take(client, ear, wool, "0.8")
    post(client, f"bench/piece/{ear.piece_id}/again/", where="new", reason="soft")
    bag = Lot.objects.get(item__form="scrap")
    assert (bag.item.name, bag.srgb, bag.on_hand) == ("oat scrap", "#d8c8a0", D("0.8"))


def test_the_same_press_gives_up_once_and_later_wool_counts(client, owner, making, wool, ear):
    take(client, ear, wool, "1")
    given = {"where": "waste", "reason": "flat", "key": str(uuid.uuid4())}
    for _ in range(2):
        post(client, f"bench/piece/{ear.piece_id}/again/", **given)
    take(client, ear, wool, "0.4")
    assert Try.objects.count() == 1
    assert line(owner, making).taken == D("0.4")


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"where": "waste"}, "Nothing was taken"),
        ({"where": ""}, "Choose where"),
        ({"where": "moon"}, "Choose where"),
        ({"where": "waste", "reason": "bored"}, "Choose a reason"),
    ],
)
def test_what_cannot_be_given_up_is_told(client, making, ear, fields, said):
    assert said in told(post(client, f"bench/piece/{ear.piece_id}/again/", **fields))
    assert not Try.objects.exists()


def test_only_scrap_takes_felted_wool_and_a_viewer_gives_nothing_up(client, owner, making, wool, ear):
    take(client, ear, wool, "1")
    assert "no bag of scrap" in told(post(client, f"bench/piece/{ear.piece_id}/again/", where=str(wool.pk)))
    viewer = signed_in(make.member(owner.studio, "viewer"))
    for address, fields in (
        (f"bench/piece/{ear.piece_id}/again/", {"where": "waste"}),
        (f"bench/layer/{ear.pk}/trim/", {"trimmed": "0.1", "where": "waste"}),
    ):
        assert post(viewer, address, **fields).status_code == 403
    assert not Try.objects.exists()
    assert not Trim.objects.exists()


# --- a cut


def test_what_is_cut_off_goes_to_scrap_and_never_more_than_is_there(client, owner, making, wool, ear):
    bag = scrap(owner)
    take(client, ear, wool, "1")
    post(client, f"bench/layer/{ear.pk}/trim/", trimmed="0.3", where=str(bag.pk))
    bag.refresh_from_db()
    assert bag.on_hand == D("5.3")
    assert line(owner, making).taken == 1, "the ear took it all the same"
    assert "Cut off so far: 0.3 g" in words(get(client, f"bench/{making.pk}/?layer={ear.pk}"))
    assert "Only 0.7 g" in told(post(client, f"bench/layer/{ear.pk}/trim/", trimmed="0.8", where=str(bag.pk)))
    assert "more than nothing" in told(post(client, f"bench/layer/{ear.pk}/trim/", trimmed="0", where="waste"))
    post(client, "undo/")
    bag.refresh_from_db()
    assert bag.on_hand == 5
    assert "Cut off so far" not in words(get(client, f"bench/{making.pk}/?layer={ear.pk}"))
    post(client, "again/")
    assert "Cut off so far: 0.3 g" in words(get(client, f"bench/{making.pk}/?layer={ear.pk}"))


def test_scrap_is_offered_the_nearest_colour_first(client, owner, making, wool, ear):
    scrap(owner, "dark scrap", "#4d4640")
    scrap(owner, "pale scrap", "#d9cba6")
    take(client, ear, wool, "1")
    page = words(get(client, f"bench/{making.pk}/?layer={ear.pk}"))
    assert page.index("pale scrap") < page.index("dark scrap") < page.index("a new bag of scrap")


def test_a_finished_making_is_not_cut_and_not_given_up(client, owner, making, wool, ear):
    take(client, ear, wool, "1")
    post(client, f"bench/{making.pk}/finish/", unweighed="planned")
    assert Take.objects.filter(measured=False).count() == 3, "the body, its skin and the other ear: as planned"
    assert "finished" in told(post(client, f"bench/layer/{ear.pk}/trim/", trimmed="0.1", where="waste"))
    answer = post(client, f"bench/piece/{ear.piece_id}/again/", where="waste")
    assert not Try.objects.exists()
    assert answer.status_code in (302, 422)
