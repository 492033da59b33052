"""What a project needs is what its begun makings took or hold and what the others take, whatever happened before."""

from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.enough import has_enough
from wembit.web.bench.actions.finish_making import finish_making
from wembit.web.bench.actions.give_back import give_back
from wembit.web.bench.actions.take import take
from wembit.web.bench.models import PieceLayer
from wembit.web.bench.queries import makings_of
from wembit.web.figures.actions.change_part import change_part
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Colourway, Part
from wembit.web.figures.queries import newest_version
from wembit.web.plan.actions.change_project import change_project
from wembit.web.plan.actions.stand_in import makings_left, stand_in
from wembit.web.plan.actions.take_back_stand_in import take_back_stand_in
from wembit.web.plan.actions.use_newest_version import use_newest_version
from wembit.web.plan.figure_needs import amounts_for
from wembit.web.plan.models import Project
from wembit.web.plan.queries import open_needs
from wembit.web.restock.actions.accept_answer import take_answer_back, use_instead
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.models import Entry, Item

STEP = D("0.002")  # what rounding each figure's grams to a thousandth may come to


@shared
def moss(owner):
    return make.lot(owner, "moss", "900")


@shared
def sand(owner):
    return make.lot(owner, "sand", "900", srgb="#cbb994")


@shared
def ball(owner, moss):
    return make.figure(owner, fibre=moss, length=60)


@shared
def project(owner, ball):
    return make.project(owner, ball, count=4)


def need(project, lot=None):
    rows = open_needs(project.studio, project=project, **({"item": lot.item_id} if lot else {}))
    return next(iter(rows), None)


def one(project) -> D:
    """What one takes, of the only wool of the figure, as the studio's hands take it by now."""
    (amount,) = amounts_for(Project(colourway=Colourway.objects.get(pk=project.colourway_id), count=1)).values()
    return amount["p50"]


def made(owner, project, lot, more="2"):
    """A finished making that took more than was planned."""
    making = begin_making(owner, project.pk)
    (layer,) = PieceLayer.objects.filter(piece__making=making)
    take(owner, layer.pk, lot.pk, one(project) + D(more), press=make.press())
    return finish_making(owner, making.pk, press=make.press())


def with_count(owner, project, count):
    return change_project(owner, project.pk, name=project.name, count=count, start=project.start, due=project.due)


def test_what_is_left_is_what_the_others_take(owner, project, moss):
    made(owner, project, moss)
    assert need(project).left == pytest.approx(3 * one(project), abs=STEP)
    made(owner, project, moss, more="-3")
    assert need(project).left == pytest.approx(2 * one(project), abs=STEP)
    assert float(need(project).rest.p50) == pytest.approx(float(2 * one(project)), abs=0.002)


def test_a_taking_back_after_the_finish_leaves_the_others_their_wool(
    owner, project, moss, django_capture_on_commit_callbacks
):
    made(owner, project, moss, more="30")
    entry = Entry.objects.filter(verb="pull").latest("recorded_at")
    with django_capture_on_commit_callbacks(execute=True):
        undo(owner, press=make.press(), entry_id=entry.pk)
    assert need(project).left == pytest.approx(3 * one(project), abs=STEP)
    assert need(project).promised == pytest.approx(3 * one(project), abs=STEP)
    made(owner, project, moss, more="30")
    layer = PieceLayer.objects.latest("piece__making__number")
    with django_capture_on_commit_callbacks(execute=True):
        give_back(owner, layer.pk, moss.pk, D("29"), press=make.press())
    assert need(project).left == pytest.approx(2 * one(project), abs=STEP), "put back after the finish"


def test_a_taking_for_one_in_hand_writes_no_need_anew(
    owner, project, moss, django_capture_on_commit_callbacks, django_assert_max_num_queries
):
    made(owner, project, moss)
    layer = PieceLayer.objects.get(piece__making=begin_making(owner, project.pk))
    with django_capture_on_commit_callbacks() as callbacks:
        take(owner, layer.pk, moss.pk, D(5), press=make.press())
    with django_assert_max_num_queries(1):  # whether it was for a finished one
        for callback in callbacks:
            callback()


def test_more_of_them_take_as_much_each_as_the_others(owner, project, moss):
    made(owner, project, moss)
    with_count(owner, project, 7)
    assert need(project).left == pytest.approx(6 * one(project), abs=STEP)
    with_count(owner, project, 2)
    assert need(project).left == pytest.approx(one(project), abs=STEP)


def test_the_newest_version_is_for_what_is_not_begun(client, owner, project, ball, moss):
    old = one(project)
    made(owner, project, moss)
    begin_making(owner, project.pk)
    post(client, f"figures/{ball.pk}/part/ball/", diameter_mm="30")
    project = use_newest_version(owner, project.pk)
    new = one(project)
    assert new < old / 6
    assert need(project).left == pytest.approx(old + 2 * new, abs=STEP), "one in hand as it was begun, two new ones"
    post(client, f"figures/{ball.pk}/part/ball/", diameter_mm="40")
    assert one(project) > new
    assert need(project).left == pytest.approx(old + 2 * one(project), abs=STEP), "a change of the new version"


def test_what_had_enough_stays_free(client, owner, project, ball, moss):
    making = begin_making(owner, project.pk)
    (layer,) = PieceLayer.objects.filter(piece__making=making)
    take(owner, layer.pk, moss.pk, D(10), press=make.press())
    has_enough(owner, layer.pk)
    assert need(project).left == pytest.approx(3 * one(project), abs=STEP)
    with_count(owner, project, 5)
    assert need(project).left == pytest.approx(4 * one(project), abs=STEP)
    post(client, f"figures/{ball.pk}/part/ball/", diameter_mm="50")
    project = use_newest_version(owner, project.pk)
    assert need(project).left == pytest.approx(4 * one(project), abs=STEP)


def test_a_stand_in_is_for_the_last_of_them_whatever_their_number(owner, project, moss, sand):
    each = one(project)
    use_instead(owner, project.pk, moss.item_id, sand.item_id, seen=True, count=2)
    with_count(owner, project, 8)
    assert need(project, sand).p50 == pytest.approx(2 * each, abs=STEP)
    assert need(project, moss).p50 == pytest.approx(6 * each, abs=STEP)
    with_count(owner, project, 1)
    assert need(project, sand).p50 == pytest.approx(each, abs=STEP)
    assert need(project, moss).p50 == 0
    with_count(owner, project, 3)
    for _ in range(3):
        begin_making(owner, project.pk)
    assert need(project, sand).p50 == pytest.approx(2 * each, abs=STEP), "begun or not"
    assert need(project, moss).p50 == pytest.approx(each, abs=STEP)
    items = [layer.layer.item_id for line in makings_of(project) for piece in line.pieces for layer in piece.layers]
    assert items == [moss.item_id, sand.item_id, sand.item_id]


def test_an_answer_is_for_as_many_as_are_left_whatever_the_first_one_took(client, owner, project, moss, sand):
    made(owner, project, moss, more="60")
    moss.refresh_from_db()
    recount(owner, moss.pk, D(10), press=make.press())
    page = words(get(client, f"restock/project/{project.pk}/{moss.item_id}/"))
    assert "For 62.3 g That is the last 3 of 4" in page
    assert makings_left(need(project)) == 3


def test_a_stand_in_for_all_is_taken_back_after_the_figure_changed(client, owner, project, ball, moss, sand):
    answer = use_instead(owner, project.pk, moss.item_id, sand.item_id, seen=True, count=4)
    post(client, f"figures/{ball.pk}/part/ball/", diameter_mm="40")
    assert need(project, moss).p50 == 0
    take_answer_back(owner, answer.pk)
    assert need(project, moss).p50 == pytest.approx(4 * one(project), abs=STEP)
    assert need(project, sand) is None


def test_what_a_begun_one_has_taken_of_a_stand_in_stays_with_it(owner, project, moss, sand):
    each = one(project)
    answer = use_instead(owner, project.pk, moss.item_id, sand.item_id, seen=True, count=4)
    first, second = (begin_making(owner, project.pk) for _ in range(2))
    layer = PieceLayer.objects.get(piece__making=first)
    take(owner, layer.pk, sand.pk, D(5), press=make.press())
    take_answer_back(owner, answer.pk)
    assert need(project, sand).p50 == pytest.approx(each, abs=STEP), "the one for which some was taken"
    assert need(project, moss).p50 == pytest.approx(3 * each, abs=STEP)
    layer = PieceLayer.objects.get(piece__making=second)
    assert (layer.item_id, layer.need) == (moss.item_id, need(project, moss).pk)


def test_the_plan_alone_moves_and_moves_back(owner, project, moss, sand):
    each = one(project)
    answer = stand_in(owner, project.pk, moss.item_id, sand.item_id, seen=True, count=1)
    assert (need(project, moss).p50, need(project, sand).p50) == pytest.approx((3 * each, each), abs=STEP)
    take_back_stand_in(owner, answer.pk)
    assert need(project, moss).p50 == pytest.approx(4 * each, abs=STEP)
    assert need(project, sand) is None


def test_what_is_counted_whole_is_counted_over_all_of_them(client, owner):
    stems = make.notion_lot(owner, "grey stems", "9", notion="pipe_cleaner")
    Item.objects.filter(pk=stems.item_id).update(size_mm=None)
    figure = figure_with(client, "Hare", ("body", "60"), ("head", "30"))
    choose_fibre(owner, figure.pk, "core", make.lot(owner).item_id)
    choose_fibre(owner, figure.pk, "main", make.lot(owner).item_id)
    post(client, f"figures/{figure.pk}/part/body/wire/", gauge="1", bare="13")
    Part.objects.filter(key="body", version=newest_version(figure)).update(
        armature={"gauge_mm": 1.0, "kind": "pipe_cleaner"}
    )
    change_part(owner, figure.pk, "head", {"name": "the head"})
    project = make.project(owner, figure, count=3)
    assert need(project, stems).p50 == 1, "three short lengths from one piece"
    with_count(owner, project, 6)
    assert need(project, stems).p50 == 2
