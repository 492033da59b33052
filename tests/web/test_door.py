"""Editing a figure has one door; what is planned follows through it."""

import threading
from decimal import Decimal as D

import pytest
from django.db import connection

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, text, words
from wembit.core.grams.relations import WOOL
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Making, PieceLayer
from wembit.web.errors import Refusal
from wembit.web.figures.actions.add_layer import add_layer
from wembit.web.figures.actions.add_part import add_part
from wembit.web.figures.actions.change_part import change_part
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.remove_part import remove_part
from wembit.web.figures.editing.door import editing, figure_changed
from wembit.web.figures.models import Figure, Part, Version
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.plan.models import Need, Project
from wembit.web.plan.queries import open_needs
from wembit.web.stash.models import Promise


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


def grams_of(figure, key) -> float:
    version = newest_version(figure)
    plan = plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))
    part = next(other for other in plan.parts if other.part.key == key)
    return sum(layer.grams.middle for layer in part.layers) / part.part.count


def needed(project) -> dict[tuple[str, bool], D]:
    return {(need.item.name, need.seen): need.p50 for need in Need.objects.filter(project=project)}


# --- the door -------------------------------------------------------------------------------------------------------


def test_a_head_of_three_grams_keeps_them_when_ears_are_added(client, owner):
    figure = figure_with(client, "Hare", ("body", "60"), ("head", "30"))
    post(client, f"figures/{figure.pk}/part/head/follow/", size=WOOL, of="", share="3", grams="3")
    with editing(owner, figure.pk) as edit:
        edit.part("head").relations = [{"size": WOOL, "of": None, "of_size": WOOL, "share": 3.0}]
    assert grams_of(figure, "head") == pytest.approx(3, abs=1e-3)
    add_part(owner, figure.pk, "ear", 20.0)
    assert grams_of(figure, "head") == pytest.approx(3, abs=1e-3), (
        "ears hide some of the head: it grows to keep its wool"
    )
    remove_part(owner, figure.pk, "ear")
    assert grams_of(figure, "head") == pytest.approx(3, abs=1e-3)


def test_a_refused_change_of_a_frozen_figure_makes_no_version(owner):
    figure = make.figure(owner)
    Version.objects.filter(figure=figure).update(frozen_at="2026-01-01T00:00:00Z")
    with pytest.raises(Refusal):
        change_part(owner, figure.pk, "ball", {"shape": {"kind": "sphere", "diameter_mm": -3}})
    assert Version.objects.filter(figure=figure).count() == 1
    change_part(owner, figure.pk, "ball", {"count": 2})
    assert [part.count for part in Part.objects.filter(version__figure=figure).order_by("version__number")] == [1, 2]


def test_each_change_is_told_once_with_the_version_that_changed(owner):
    figure, heard = make.figure(owner), []

    def listen(sender, version, **_):
        heard.append(version.pk)

    figure_changed.connect(listen)
    try:
        change_part(owner, figure.pk, "ball", {"count": 2})
        add_layer(owner, figure.pk, "ball", "detail", "main")
        with pytest.raises(Refusal):
            add_layer(owner, figure.pk, "ball", "crust", "main")
    finally:
        figure_changed.disconnect(listen)
    assert heard == [newest_version(figure).pk] * 2


@pytest.mark.django_db(transaction=True)
def test_two_makers_who_change_one_figure_at_once_both_keep_their_change(owner):
    figure = make.figure(owner)
    ready = threading.Barrier(2)

    def change(changes):
        ready.wait()
        change_part(owner, figure.pk, "ball", changes)
        connection.close()

    threads = [threading.Thread(target=change, args=(each,)) for each in ({"count": 4}, {"firmness": "soft"})]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    part = Part.objects.get(version__figure=figure)
    assert (part.count, part.firmness) == (4, "soft")


def test_another_studios_figure_has_no_door(owner):
    other = make.studio_owner("Dune", "ana")
    figure = make.figure(other)
    from django.http import Http404

    with pytest.raises(Http404):
        change_part(owner, figure.pk, "ball", {"count": 2})


# --- needs follow the figure ----------------------------------------------------------------------------------------


def test_the_needs_of_what_is_planned_follow_every_change_until_the_first_making(client, owner):
    figure = make.figure(owner, length=30.0, fibre=make.lot(owner, "moss", "100"))
    project = make.project(owner, figure, count=2)
    before = needed(project)["moss", True]
    change_part(owner, figure.pk, "ball", {"shape": {"kind": "sphere", "diameter_mm": 60.0}})
    after = needed(project)["moss", True]
    assert float(after) == pytest.approx(
        float(before) * 8, abs=0.01
    )  # a solid of twice the size takes eight times as much
    assert sum(promise.amount for promise in Promise.objects.filter(need__in=project.needs.values("pk"))) == after
    client.post(client.base + f"bench/begin/{project.pk}/")
    taken = sum(layer.rule_g * layer.bias for layer in PieceLayer.objects.filter(piece__making__project=project))
    assert 2 * taken == pytest.approx(float(after), abs=0.01), "the making takes what the plan has said"


def test_a_need_that_stays_keeps_its_identity_and_one_that_goes_frees_its_wool(owner):
    moss, fog = make.lot(owner, "moss", "100"), make.lot(owner, "fog", "100")
    figure = make.figure(owner, fibre=moss)
    project = make.project(owner, figure)
    need = project.needs.get().pk
    change_part(owner, figure.pk, "ball", {"count": 3})
    assert project.needs.get().pk == need
    choose_fibre(owner, figure.pk, "main", fog.item_id)
    assert [name for name, _ in needed(project)] == ["fog"]
    assert set(Promise.objects.values_list("lot__item__name", flat=True)) == {"fog"}


def test_a_slot_without_a_wool_waits_and_the_plan_says_so(client, owner):
    figure = make.figure(owner)
    project = make.project(owner, figure)
    add_layer(owner, figure.pk, "ball", "detail", "freckles")
    assert "No wool chosen yet for: freckles" in words(get(client, f"plan/{project.pk}/"))
    choose_fibre(owner, figure.pk, "freckles", make.lot(owner, "straw").item_id)
    assert "straw" in dict(needed(project).keys())
    assert "No wool chosen yet" not in get(client, f"plan/{project.pk}/")


def test_the_last_part_can_be_taken_off_a_planned_figure(owner):
    figure = make.figure(owner)
    project = make.project(owner, figure)
    remove_part(owner, figure.pk, "ball")
    assert not needed(project)
    assert not Promise.objects.exists()


def test_stand_ins_are_laid_over_the_new_needs(client, owner):
    from wembit.web.plan.actions.stand_in import stand_in

    moss, olive = make.lot(owner, "moss", "100"), make.lot(owner, "olive", "100")
    figure = make.figure(owner, fibre=moss)
    project = make.project(owner, figure, count=4)
    stand_in(owner, project.pk, moss.item_id, olive.item_id, seen=True, count=1)
    before = needed(project)
    assert before["olive", True] > 0
    change_part(owner, figure.pk, "ball", {"shape": {"kind": "sphere", "diameter_mm": 60.0}})
    after = needed(project)
    assert after["olive", True] / before["olive", True] == pytest.approx(D(8), rel=D("0.01"))
    assert after["moss", True] / after["olive", True] == pytest.approx(D(3), rel=D("0.01"))


def test_a_loose_end_kept_as_habit_reaches_every_plan(client, owner):
    figure = figure_with(client, "Hare", ("body", "60"), ("leg", "40"))
    moss = make.lot(owner, "moss", "500")
    for slot in ("core", "main"):
        choose_fibre(owner, figure.pk, slot, moss.item_id)
    project = make.project(owner, figure)
    other = make.project(owner, make.figure(owner, "Pebble", fibre=moss))
    before, still = needed(project), needed(other)
    post(client, f"figures/{figure.pk}/part/leg/", loose_end_mm="15", habit="on")
    assert sum(needed(project).values()) > sum(before.values())
    assert needed(other) == still


# --- the next version -----------------------------------------------------------------------------------------------


@pytest.fixture
def changed(client, owner):
    """A project of three, one begun, and then the figure made twice as large: version 2."""
    figure = make.figure(owner, fibre=make.lot(owner, "moss", "60"))
    project = make.project(owner, figure, count=3)
    client.post(client.base + f"bench/begin/{project.pk}/")
    change_part(owner, figure.pk, "ball", {"shape": {"kind": "sphere", "diameter_mm": 60.0}})
    return project


def test_a_frozen_version_keeps_its_needs_and_the_newest_is_offered(client, owner, changed):
    whole = needed(changed)["moss", True]
    page = words(get(client, f"plan/{changed.pk}/"))
    assert "Make the rest by version 2?" in page
    shown = words(get(client, f"plan/{changed.pk}/newest-version/"))
    assert "the one begun stays as it is" in shown
    assert "promised" in shown
    assert needed(changed)["moss", True] == whole, "looking changes nothing"
    assert Project.objects.get(pk=changed.pk).colourway.version.number == 1
    answer = client.post(client.base + f"plan/{changed.pk}/newest-version/", follow=True)
    assert "newest version from now on" in text(answer)
    assert float(needed(changed)["moss", True]) == pytest.approx(float(whole) / 3 * (1 + 2 * 8), abs=0.02)
    client.post(client.base + f"bench/begin/{changed.pk}/")
    first, second = Making.objects.filter(project=changed).order_by("number")
    assert (first.colourway.version.number, second.colourway.version.number) == (1, 2)
    assert "Make the rest" not in words(get(client, f"plan/{changed.pk}/"))


def test_what_is_shown_before_is_what_comes(client, owner, changed):
    from wembit.web.plan.actions.use_newest_version import use_newest_version, what_the_newest_changes

    shown = {(change.item.name, change.seen): change for change in what_the_newest_changes(owner, changed.pk)}
    use_newest_version(owner, changed.pk)
    for need in open_needs(owner.studio, project=changed):
        change = shown[need.item.name, need.seen]
        assert (change.then, change.promised_then) == (need.p50, need.promised)
        assert change.short_then == max(need.left - need.promised, 0)


def test_a_wool_that_stays_as_it_is_is_no_change(owner):
    from wembit.web.plan.actions.use_newest_version import what_the_newest_changes

    figure = make.figure(owner, fibre=make.lot(owner, "moss", "60"))
    add_layer(owner, figure.pk, "ball", "weighed", "freckles")
    soot = make.lot(owner, "soot", "20").item
    choose_fibre(owner, figure.pk, "freckles", soot.pk)
    project = make.project(owner, figure, count=3)
    begin_making(owner, project.pk)
    change_part(owner, figure.pk, "ball", {"shape": {"kind": "sphere", "diameter_mm": 60.0}})
    changes = what_the_newest_changes(owner, project.pk)
    assert [(change.item.name, change.differs) for change in changes] == [("moss", True), ("soot", False)]
    assert changes[0].more == changes[0].then - changes[0].now > 0


def test_the_newest_version_is_refused_without_its_wool_and_without_being_newer(client, owner, changed):
    figure = Figure.objects.get()
    add_layer(owner, figure.pk, "ball", "detail", "freckles")
    answer = client.post(client.base + f"plan/{changed.pk}/newest-version/", follow=True)
    assert "Choose a fibre first for: freckles." in text(answer)
    fresh = make.project(owner, make.figure(owner, "Fresh"))
    answer = client.post(client.base + f"plan/{fresh.pk}/newest-version/", follow=True)
    assert "There is no newer version of this figure." in text(answer)
    viewer = signed_in(make.member(owner.studio, "viewer", "vera"))
    assert "Make the rest" not in get(viewer, f"plan/{changed.pk}/")
    assert "Use version" not in get(viewer, f"plan/{changed.pk}/newest-version/")
    assert viewer.post(viewer.base + f"plan/{changed.pk}/newest-version/").status_code == 403
