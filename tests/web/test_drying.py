"""Glue and clay dry beside the work: from when on they are dry is said where it is worked, and at the bench."""

import datetime as dt

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, text, words
from tests.web.shared import shared
from wembit.core.work.spells import TURN_EVERY_MIN
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Drying
from wembit.web.bench.part_clock import lines_of
from wembit.web.studio.models import VIEWER


@shared
def making(maker, owner):
    """A body with an ear that is glued on."""
    figure = figure_with(maker, "Otter", ("body", 40), ("ear", 12))
    post(maker, f"figures/{figure.pk}/order/way/", question="attach", way="glue", holds="figure")
    oat = make.lot(owner, "oat", "99")
    for slot in figure.versions.get().slots.all():
        make.in_fibre(figure, slot.name, oat.item_id)
    return begin_making(owner, make.project(owner, figure).pk)


@shared
def step(making):
    return next(line.step for line in lines_of(making) if line.step.wait_hours)


def page(client, making):
    return words(get(client, f"bench/{making.pk}/"))


def test_a_step_dries_from_now_on_and_says_when_it_is_dry(client, studio, making, step):
    assert f"then {step.wait_hours:.0f} h." in page(client, making)
    post(client, f"bench/{making.pk}/dries/", step=step.id)
    drying = Drying.objects.get()
    assert drying.until - drying.begun_at == dt.timedelta(hours=step.wait_hours)
    hour = f"{drying.until.astimezone(clock.zone(studio)):%H:%M}"
    assert f"from {hour} on." in page(client, making)
    assert f"from {hour} on" in words(get(client, "bench/")), "the figures on the bench say it, too"
    with clock.as_of(drying.until + dt.timedelta(seconds=1)):
        assert "data-is-dry>dry by now." in get(client, f"bench/{making.pk}/")
    assert "data-is-dry hidden" in get(client, f"bench/{making.pk}/")


def test_it_is_dry_when_the_maker_says_so_and_z_takes_that_back(client, making, step):
    post(client, f"bench/{making.pk}/dries/", step=step.id)
    post(client, f"bench/drying/{Drying.objects.get().pk}/")
    assert Drying.objects.get().dry
    assert step.title not in page(client, making).split("Needles out")[0].split("Dries beside")[-1]
    post(client, "undo/")
    assert not Drying.objects.get().dry
    post(client, "undo/")
    assert not Drying.objects.exists()


def test_again_it_dries_from_the_start(client, making, step):
    with clock.as_of(clock.now() - dt.timedelta(hours=5)):
        post(client, f"bench/{making.pk}/dries/", step=step.id)
    first = Drying.objects.get().until
    post(client, f"bench/{making.pk}/dries/", step=step.id)
    assert Drying.objects.get().until - first >= dt.timedelta(hours=4.9)


def test_what_need_not_dry_is_told(client, making):
    answer = post(client, f"bench/{making.pk}/dries/", step="make:body")
    assert answer.status_code == 422
    assert "That step does not have to dry." in words(text(answer))


def test_a_viewer_and_a_stranger_do_not(client, studio, making, step):
    post(client, f"bench/{making.pk}/dries/", step=step.id)
    viewer = signed_in(make.member(studio, VIEWER))
    assert viewer.post(f"{client.base}bench/{making.pk}/dries/", {"step": step.id}).status_code == 403
    assert viewer.post(f"{client.base}bench/drying/{Drying.objects.get().pk}/").status_code == 403


def test_the_word_to_turn_it_over_comes_with_the_clock(client, making):
    assert "data-turn-every" not in get(client, f"bench/{making.pk}/")
    layer = making.pieces.first().layers.first()
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount="0.5")
    assert f'data-turn-every="{TURN_EVERY_MIN}" hidden' in get(client, f"bench/{making.pk}/?layer={layer.pk}")
