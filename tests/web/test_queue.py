"""What a device kept while there was no line: its pulls arrive once, by the key and the time of their press."""

import datetime as dt
from decimal import Decimal as D

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, text, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import PieceLayer
from wembit.web.stash.models import Entry, Lot


@shared
def layer(owner):
    begin_making(owner, make.project(owner, make.figure(owner, fibre=make.lot(owner, "oat", "30"))).pk)
    return PieceLayer.objects.get()


def arrives(client, layer, amount="0.5", key="6f0a", **more):
    given = {"lot": str(layer.item.lots.get().pk), "amount": amount, "key": key, **more}
    return client.post(f"{client.base}bench/layer/{layer.pk}/take/", given, headers={"HX-Request": "true"})


def test_a_pull_whose_answer_was_lost_arrives_again_and_counts_once(client, layer):
    moment = clock.now() - dt.timedelta(minutes=50)
    for more in ({}, {"happened_at": moment.isoformat()}):
        assert arrives(client, layer, **more).status_code == 200
    assert Lot.objects.get(item=layer.item).on_hand == D("29.5")


def test_it_happened_when_it_was_pressed(client, layer):
    moment = clock.now() - dt.timedelta(minutes=50)
    arrives(client, layer, happened_at=moment.isoformat())
    entry = Entry.objects.get(verb="pull")
    assert entry.happened_at == moment
    assert entry.recorded_at - moment > dt.timedelta(minutes=49)


def test_several_of_one_layer_do_not_stop_each_other(client, layer):
    for n in range(5):
        assert arrives(client, layer, key=f"pull-{n}").status_code == 200
    assert Lot.objects.get(item=layer.item).on_hand == D("27.5")


def test_more_than_there_is_is_told_and_nothing_moves(client, layer):
    answer = arrives(client, layer, amount="31")
    assert answer.status_code == 422
    assert "fault" in text(answer)
    assert Lot.objects.get(item=layer.item).on_hand == 30


def test_without_a_session_it_is_asked_to_sign_in(client, layer):
    client.post("/sign-out/")
    assert arrives(client, layer).status_code == 401


def test_the_keeper_of_pages_is_served_below_the_bench(client, studio, layer):
    answer = client.get(f"{client.base}bench/worker.js")
    assert answer["Content-Type"].startswith("text/javascript")
    assert answer["Cache-Control"] == "no-cache"
    page = get(client, f"bench/{layer.piece.making_id}/")
    assert f'data-worker="{client.base}bench/worker.js"' in page
    assert "wait on this device" not in words(page)
    stranger = signed_in(make.studio_owner("Reedmoor", "una"))
    assert stranger.get(f"{client.base}bench/worker.js").status_code == 404
