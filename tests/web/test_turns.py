"""Out of turn, on the table, out of the house: nothing made is forgotten, what comes too early says what it waits for."""

import re

from tests.web import factories as make
from tests.web.built_once import in_fibre
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import PieceLayer
from wembit.web.bench.queries import making_of
from wembit.web.figures.models import Slot
from wembit.web.figures.queries import newest_version


@shared
def making(maker, owner):
    wool, figure = make.lot(owner, "oat", "400"), figure_with(maker, "Rabbit", ("body", "60"), ("ear", "24"))
    for slot in Slot.objects.filter(version=newest_version(figure)):
        in_fibre(figure, slot.name, wool.item_id)
    return begin_making(owner, make.project(owner, figure).pk)


def page(client, making, layer):
    return get(client, f"bench/{making.pk}/?layer={layer.pk}")


def take(client, layer):
    return post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount="0.3")


def test_a_cover_before_its_inside_is_out_of_turn(client, owner, making):
    inside, cover = PieceLayer.objects.filter(piece__name="body").order_by("position")
    assert (inside.role, cover.role) == ("core", "cover")
    line = making_of(owner.studio, making.pk)
    first = line.step_of(inside.piece, inside)
    said = re.search(r"Out of turn\. (?:First \d+ .*?)?First (\d+) ", words(page(client, making, cover)))
    assert said
    assert f"First {first} " in words(page(client, making, cover))
    assert "Out of turn" not in words(page(client, making, inside))
    for layer in PieceLayer.objects.exclude(pk=cover.pk):
        take(client, layer)
    assert "Out of turn" not in words(page(client, making, cover))


def test_what_is_made_waits_on_the_table_until_it_is_fitted(client, making):
    ear = PieceLayer.objects.filter(piece__name="ear 1").get()
    assert "waiting on the table" not in words(page(client, making, ear))
    take(client, ear)
    for state, there in (("made", True), ("waiting", True), ("fitted", False)):
        post(client, f"bench/piece/{ear.piece_id}/mark/", state=state)
        shown = page(client, making, PieceLayer.objects.filter(piece__name="body").first())
        assert ("Made, and waiting on the table ear 1" in words(shown)) is there, state


def test_a_finished_piece_is_in_stock_given_or_sold(client, owner, making):
    address = f"bench/{making.pk}/gone/"
    assert "Finish it first" in told(post(client, address, how="sold"))
    post(client, f"bench/{making.pk}/finish/", unweighed="nothing")
    assert "It is in stock" in words(get(client, f"bench/{making.pk}/"))
    post(client, address, how="sold", whom="the marsh market")
    assert "Sold to the marsh market on" in words(get(client, f"bench/{making.pk}/"))
    assert "sold to the marsh market" in words(get(client, "bench/"))
    assert "Choose what became" in told(post(client, address, how="eaten"))
    post(client, "undo/")
    assert "It is in stock" in words(get(client, f"bench/{making.pk}/"))
    post(client, address, how="given", whom="")
    post(client, address, how="", whom="nobody")
    making.refresh_from_db()
    assert (making.gone, making.whom, making.gone_on) == ("", "", None)
    viewer = signed_in(make.member(owner.studio, "viewer"))
    assert post(viewer, address, how="sold").status_code == 403
