"""The bench drawn: the figure as far as it is, the piece at its size, its column, its pair on the balance, its set."""

import re
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.built_once import in_fibre
from tests.web.helpers import figure_with, get, post, words
from tests.web.shared import shared
from wembit.core.grams.estimate import Range
from wembit.core.work.alike import alike_within
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.making_picture import HERE, TO_COME, WOOL, side_of, standing
from wembit.web.bench.piece_chart import COLUMN_PX, FOOT_Y, MM_PX, PiecePicture, column, piece_picture
from wembit.web.bench.queries import making_of
from wembit.web.bench.set_chart import CELL_PX, set_of
from wembit.web.figures.actions.choose_way import choose_way
from wembit.web.figures.models import Part, Slot
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette
from wembit.web.stash.queries import colours
from wembit.web.studio.models import Member, Studio

HTMX = {"HX-Request": "true"}


@shared
def rabbit(maker, owner):
    """A body with two ears, all in one wool of 100 g."""
    return begun(maker, owner, "Rabbit", ("body", "60"), ("head", "30"), ("ear", "24"))


def begun(client, owner, name, *parts):
    """A making of one figure of such parts, all in one wool, with that wool."""
    wool, figure = make.lot(owner, "oat", "100", srgb="#d8c8a0"), figure_with(client, name, *parts)
    for slot in Slot.objects.filter(version=newest_version(figure)):
        in_fibre(figure, slot.name, wool.item_id)
    return begin_making(owner, make.project(owner, figure, count=1).pk), wool


def line_of(owner, making):
    return making_of(owner.studio, making.pk)


def layer_named(line, name):
    return next(layer for piece in line.pieces if piece.piece.name == name for layer in piece.layers)


def drawn(owner, making, here=None):
    line = line_of(owner, making)
    way = making.colourway
    seen = colours(owner.studio, {layer.layer.item_id for piece in line.pieces for layer in piece.layers})
    return standing(line, side_of(way, parts_of(way.version), Palette.of(way)), seen, here)


def take(client, layer, wool, amount):
    return post(client, f"bench/layer/{layer.layer.pk}/take/", lot=str(wool.pk), amount=amount)


def test_each_piece_is_drawn_as_far_as_it_is(client, owner, rabbit):
    making, wool = rabbit
    assert {each.state for each in drawn(owner, making)} == {TO_COME}
    second = layer_named(line_of(owner, making), "ear 2")
    take(client, second, wool, "1")
    states = {(each.shape.key, each.shape.nth): each for each in drawn(owner, making, second.layer.piece_id)}
    assert states["ear", 1].state == HERE
    assert states["ear", 1].fill == "#d8c8a0"
    assert states["ear", 0].state == states["body", 0].state == TO_COME
    assert not states["ear", 0].fill
    assert {each.state for each in drawn(owner, making)} == {TO_COME, WOOL}
    assert states["ear", 0].layer == layer_named(line_of(owner, making), "ear 1").layer.pk, (
        "a touch leads to its own layer"
    )


def test_a_piece_touched_on_the_figure_comes_into_the_hand(client, owner, rabbit):
    making, _ = rabbit
    page = get(client, f"bench/{making.pk}/")
    leads = re.findall(r'<a href="([^"]+)"[^>]*\s+hx-get="[^"]+"[^>]*\s+tabindex="-1" aria-label="ear"', page)
    assert len(leads) == 2
    names = {re.search(r"<h1>([^<]+)<", client.get(lead, headers=HTMX).content.decode())[1].strip() for lead in leads}
    assert names == {"ear 1 of 2, inside", "ear 2 of 2, inside"}


def test_the_column_tells_one_story():
    grams = Range(4.0, 5.0, 6.25)
    bare, half, over = (column(grams, taken) for taken in (0.0, 2.0, 9.0))
    assert bare.taken == 0
    assert bare.to_take == pytest.approx(FOOT_Y - bare.middle_y)
    assert half.taken / half.to_take == pytest.approx(2 / 3, rel=0.02)
    assert half.low_y - half.high_y == pytest.approx(2.25 / (6.25 * 1.1) * COLUMN_PX, abs=0.2)
    assert over.to_take == 0
    assert over.taken <= COLUMN_PX
    narrow = column(Range(0.999, 1.0, 1.001), 0.0)
    assert narrow.low_words_y - narrow.high_words_y >= 15, "its two ends can be read"


@pytest.mark.parametrize(("wide", "halvings"), [(20, 0), (63, 0), (64, 1), (126, 1), (300, 3)])
def test_a_piece_is_drawn_at_its_true_size_or_halved_until_it_has_room(wide, halvings):
    piece = PiecePicture(wide, 10, 4, [], "")
    assert piece.halvings == halvings
    assert piece.wide_px == pytest.approx((wide + 2) * MM_PX / 2**halvings, abs=0.1)
    assert piece.size == ("true size" if not halvings else f"1 : {2**halvings}")


def test_a_pair_lies_on_a_balance_which_says_what_the_lighter_needs(client, owner, rabbit):
    making, wool = rabbit
    one, other = (layer_named(line_of(owner, making), name) for name in ("ear 1", "ear 2"))
    address = f"bench/{making.pk}/?layer={one.layer.pk}"
    assert "needs" not in words(get(client, address))
    take(client, one, wool, "2")
    take(client, other, wool, "1")
    page = words(get(client, address))
    assert "The second needs 1 g more" in page
    line = line_of(owner, making)
    piece = next(each for each in line.pieces if each.piece.name == "ear 1")
    pair = set_of(line, piece, piece.layers[0], "ear")
    assert pair.pans[0].y > pair.pans[1].y, "the heavier pan is lower"
    assert pair.pans[0].heap > pair.pans[1].heap
    take(client, other, wool, "0.9")
    page = words(get(client, address))
    assert "Alike: within 20 %" in page
    assert set_of(line_of(owner, making), piece, piece.layers[0], "leg").lacks == D("0.1"), (
        "a leg bears, it has to match"
    )


def test_a_set_fills_its_cells_by_what_each_has(client, owner):
    making, wool = begun(client, owner, "Flower", ("body", "60"), ("petal", "30"))
    petals = [layer_named(line_of(owner, making), f"petal {n}") for n in range(1, 7)]
    take(client, petals[0], wool, f"{petals[0].grams.p50 / 2:.3f}")
    line = line_of(owner, making)
    piece = next(each for each in line.pieces if each.piece.name == "petal 2")
    found = set_of(line, piece, piece.layers[0], "petal")
    assert not found.pair
    assert [cell.fills > 0 for cell in found.cells] == [True, *[False] * 5]
    assert found.cells[0].fills == pytest.approx(CELL_PX / 2, abs=0.5)
    assert [cell.here for cell in found.cells] == [False, True, *[False] * 4]


def test_where_all_is_in_it_nothing_more_is_asked_for(client, owner, rabbit):
    making, wool = rabbit
    ear = layer_named(line_of(owner, making), "ear 1")
    take(client, ear, wool, f"{ear.grams.p50 + 0.01:.3f}")
    page = words(get(client, f"bench/{making.pk}/?layer={ear.layer.pk}"))
    assert "enough" in page
    assert "0 g more; whole" in page
    assert "0.00–0.00" not in page


def test_a_dome_lies_on_its_flat_side():
    rock = Part(
        key="rock",
        count=1,
        shape={"kind": "dome", "diameter_mm": 66, "height_mm": 26},
        seat={"on": None, "centre_mm": 13},
    )
    picture = piece_picture(rock, 8.0, "tops")
    assert (picture.wide, picture.high) == pytest.approx((66, 26), abs=0.5)


def test_step_and_number_say_the_same_in_the_hand_of_who_makes_it(client, owner):
    """A maker who takes less than the others reads what that hand takes, in the words of the step, too."""
    wool = make.lot(owner, "oat", "400")
    figure = make.figure(owner, fibre=wool, length=60)
    choose_way(owner, figure.pk, "amounts", "small")
    Studio.objects.update(hands={"": {"firm": [1.2, 0.2, 9]}, str(owner.pk): {"firm": [0.8, 0.2, 9]}})
    owner = Member.objects.get(pk=owner.pk)
    making = begin_making(owner, make.project(owner, figure, count=1).pk)
    page = words(get(client, f"bench/{making.pk}/"))
    whole = making_of(owner.studio, making.pk).pieces[0].layers[0].grams.p50
    first = float(re.search(r'name="amount"[^>]*value="([\d.]+)"', get(client, f"bench/{making.pk}/"))[1])
    assert first == pytest.approx(0.75 * whole, abs=0.01)
    assert float(re.search(r"([\d.]+) g first, then add", page)[1]) == pytest.approx(first, rel=0.01)
    assert float(re.search(r"First, then add: ([\d.]+) g in all", page)[1]) == pytest.approx(whole, rel=0.01)


def test_what_bears_has_to_match_and_an_ear_may_differ():
    assert alike_within("leg") == alike_within("horn") == 0.05  # common practice
    assert alike_within("ear") > alike_within("head") > alike_within("leg")


def test_the_bench_stands_in_rows_what_is_in_hand_what_waits_what_is_done(client, owner, rabbit):
    making, wool = rabbit
    figure = make.figure(owner, fibre=wool, length=60)
    make.project(owner, figure, count=2, name="Later")
    page = get(client, "bench/")
    text = words(page)
    assert re.search(r"Rabbit 1 of 1 0/4 weighed; next: body, oat", text)
    assert "Pebble: 2 to begin, due" in text
    assert "Finished lately" not in text
    post(client, f"bench/{making.pk}/finish/", unweighed="nothing")
    text = words(get(client, "bench/"))
    assert "Finished lately" in text
    assert "weighed; next" not in text
