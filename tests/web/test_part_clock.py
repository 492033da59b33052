"""The clock of a part runs by itself from the first taking until it is made, asks once, can be corrected, and teaches."""

import datetime as dt
import re

import pytest

from tests.web import factories as make
from tests.web.built_once import in_fibre
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.learn import learn
from wembit.web.bench.models import Making, PieceLayer, Spell
from wembit.web.bench.part_clock import lines_of, part_clock, planned_minutes
from wembit.web.figures.models import Slot
from wembit.web.figures.queries import newest_version
from wembit.web.studio.models import Studio

NOON = (clock.now() + dt.timedelta(days=1)).replace(hour=12, minute=0, second=0, microsecond=0)  # after the beginning


@shared
def making(maker, owner):
    wool, figure = make.lot(owner, "oat", "400"), figure_with(maker, "Rabbit", ("body", "60"), ("ear", "24"))
    for slot in Slot.objects.filter(version=newest_version(figure)):
        in_fibre(figure, slot.name, wool.item_id)
    return begin_making(owner, make.project(owner, figure, count=2).pk)


def layer(making, name):
    return PieceLayer.objects.filter(piece__making=making, piece__name=name).order_by("position").first()


def take(client, of, amount="0.3"):
    return post(client, f"bench/layer/{of.pk}/take/", lot=str(of.item.lots.get().pk), amount=amount)


def at(minutes):
    return clock.as_of(NOON + dt.timedelta(minutes=minutes))


def shown(client, making, of):
    return words(get(client, f"bench/{making.pk}/?layer={of.pk}"))


def test_it_runs_from_the_taking_to_the_made_and_one_part_at_a_time(client, making):
    body, ear = layer(making, "body"), layer(making, "ear 1")
    with at(0):
        take(client, body)
    with at(4):
        assert "4 min and on" in shown(client, making, body)
        take(client, body)
    with at(7):
        take(client, ear)
    with at(9):
        assert "7 min, of" in shown(client, making, body)
        assert "2 min and on" in shown(client, making, ear)
        post(client, f"bench/piece/{ear.piece_id}/mark/", state="made")
    with at(10):
        assert "3 min and on" in shown(client, making, ear), "the other ear is not made yet"
        post(client, f"bench/piece/{layer(making, 'ear 2').piece_id}/mark/", state="made")
    with at(30):
        assert "3 min, of" in shown(client, making, ear)
    assert Spell.objects.filter(ended_at=None).count() == 0


def test_two_makers_have_two_clocks(client, owner, making):
    tove = signed_in(make.member(owner.studio))
    with at(0):
        take(client, layer(making, "body"))
        take(tove, layer(making, "ear 1"))
    assert Spell.objects.filter(ended_at=None).count() == 2


def test_it_asks_once_and_believes_the_answer(client, making):
    body = layer(making, "body")
    high = part_clock(making, "body", lines_of(making)).high
    address = f"bench/piece/{body.piece_id}/still/"
    with at(0):
        take(client, body)
    with at(high - 1):
        assert re.search(r"data-asks hidden", get(client, f"bench/{making.pk}/?layer={body.pk}"))
    with at(high + 600):
        assert not re.search(r"data-asks hidden", get(client, f"bench/{making.pk}/?layer={body.pk}"))
        assert f"{high:.0f} min and on" in shown(client, making, body), "a night is no work"
        post(client, address, still="")
        spell = Spell.objects.get()
        assert (spell.ended_at - spell.begun_at).total_seconds() / 60 == pytest.approx(high, abs=0.01)
        post(client, "undo/")
        assert Spell.objects.get().ended_at is None
        post(client, address, still="1")
        assert f"{high + 600:.0f} min and on" in shown(client, making, body)
    with at(high + 700):
        assert re.search(r"data-asks hidden", get(client, f"bench/{making.pk}/?layer={body.pk}")), "it asks once"


def test_what_it_took_can_be_said_and_taken_back(client, owner, making):
    body = layer(making, "body")
    address = f"bench/piece/{body.piece_id}/minutes/"
    take(client, body)
    post(client, address, minutes="42")
    assert "42 min, of" in shown(client, making, body)
    assert "as you said" in shown(client, making, body)
    for odd in ("-1", "soon", "99999"):
        assert "Write minutes" in told(post(client, address, minutes=odd))
    post(client, address, minutes="")
    assert "as you said" not in shown(client, making, body)
    post(client, "undo/")
    assert Making.objects.get().minutes == {"body": 42}
    viewer = signed_in(make.member(owner.studio, "viewer"))
    for path in ("minutes", "still"):
        assert post(viewer, f"bench/piece/{body.piece_id}/{path}/", minutes="1").status_code == 403


def test_a_press_that_comes_twice_runs_one_clock(client, making):
    body = layer(making, "body")
    for _ in range(2):
        post(client, f"bench/layer/{body.pk}/take/", lot=str(body.item.lots.get().pk), amount="0.3", key="once")
    assert Spell.objects.count() == 1


def test_finished_work_teaches_how_long_things_take(client, owner, making):
    body, before = layer(making, "body"), planned_minutes(lines_of(making), "body")
    take(client, body, f"{body.rule_g:.3f}")
    post(client, f"bench/piece/{body.piece_id}/minutes/", minutes=f"{before * 1.5:.1f}")
    post(client, f"bench/{making.pk}/finish/", unweighed="planned")
    making.refresh_from_db()
    assert making.took["body"] == pytest.approx([before, before * 1.5], abs=0.1)
    learn(owner.studio)
    bias, _, n = Studio.objects.get(pk=owner.studio_id).hands[""]["minutes"]
    assert n == 1
    assert 1.03 < bias < 1.5
    again = Making.objects.get(pk=making.pk)
    assert planned_minutes(lines_of(again), "body") == pytest.approx(before * bias, rel=0.003)
    second = begin_making(owner, making.project_id)
    assert f"of {part_clock(second, 'body', lines_of(second)).low:.0f}" in shown(client, second, layer(second, "body"))
    assert "minutes" in words(get(client, "bench/learnt/"))


def test_the_clock_of_a_finished_figure_stands_still(client, making):
    body = layer(making, "body")
    with at(0):
        take(client, body)
    with at(5):
        post(client, f"bench/{making.pk}/finish/", unweighed="planned")
    assert Spell.objects.get().ended_at == NOON + dt.timedelta(minutes=5)


def test_a_taking_that_is_taken_back_runs_no_clock(client, making):
    body, ear = layer(making, "body"), layer(making, "ear 1")
    with at(0):
        take(client, body)
        post(client, "undo/")
    with at(5):
        assert "0 min, of" in shown(client, making, body)
        post(client, "again/")
        assert "and on" in shown(client, making, body)
        post(client, "undo/")
        take(client, ear)
    with at(8):
        assert "3 min and on" in shown(client, making, ear)
        assert "0 min, of" in shown(client, making, body)
        take(client, body)
    assert Spell.objects.filter(ended_at=None).count() == 1


def test_what_was_said_does_not_tick_on(client, making):
    body = layer(making, "body")
    take(client, body)
    assert "data-running" in get(client, f"bench/{making.pk}/?layer={body.pk}")
    post(client, f"bench/piece/{body.piece_id}/minutes/", minutes="42")
    page = get(client, f"bench/{making.pk}/?layer={body.pk}")
    assert "data-running" not in page
    assert "42 min, of" in words(page)
