"""What the bench makes of a scale: only a steady weight moves anything; the page knows a bridge where there is one."""

import json

import pytest

from tests.web import factories as make
from tests.web.helpers import get, post, told
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import PieceLayer
from wembit.web.bench.scale import understood
from wembit.web.errors import Refusal
from wembit.web.stash.models import Entry


@shared
def layer(owner):
    begin_making(owner, make.project(owner, count=1).pk)
    return PieceLayer.objects.get()


@shared
def bag(layer):
    return layer.item.lots.get()


def reading(grams=1.0, stable=True, state="ok", **more):
    return json.dumps({"number": 7, "grams": grams, "stable": stable, "state": state, **more})


def test_a_steady_weight_is_taken(client, layer, bag):
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(bag.pk), amount="1.00", reading=reading())
    bag.refresh_from_db()
    assert bag.on_hand == 49


@pytest.mark.parametrize(
    ("said", "words"),
    [
        (reading(stable=False), "not steady"),
        (reading(None, False, "unplugged"), "shows nothing"),
        (reading(None, False, "overload"), "too much on the scale"),
        (reading(None), "shows nothing"),
        (reading("1"), "something odd"),
        (reading(True), "something odd"),
        (reading(1e9), "something odd"),
        (reading(1.0, "yes"), "something odd"),
        (reading(state="asleep"), "something odd"),
        ('{"grams": NaN, "stable": true, "state": "ok"}', "something odd"),
        ("[1]", "something odd"),
        ("{", "something odd"),
        ("[" * 190, "something odd"),
    ],
)
def test_a_scale_that_is_not_to_be_trusted_moves_nothing(client, layer, bag, said, words):
    before = Entry.objects.count()
    answer = post(client, f"bench/layer/{layer.pk}/take/", lot=str(bag.pk), amount="1.00", reading=said)
    assert words in told(answer)
    assert Entry.objects.count() == before


def test_a_reading_is_a_weight_or_a_refusal():
    assert understood(reading(-0.02)).weighed() == -0.02
    with pytest.raises(Refusal):
        understood(reading(1.0, False)).weighed()


def test_the_page_knows_a_bridge_only_where_there_is_one(client, layer, settings):
    address = f"bench/{layer.piece.making_id}/"
    assert "data-scale" not in get(client, address)
    settings.WEMBIT_SCALE = "http://127.0.0.1:8471"
    page = get(client, address)
    assert 'data-scale="http://127.0.0.1:8471"' in page
    assert "scale.js" in page
