"""The hours at the bench say by when each project has to be begun, when it is done, and how full the weeks are."""

import datetime as dt

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import forms_of, keep_hours
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import PieceLayer
from wembit.web.caches import by_content
from wembit.web.plan import figure_work as kept
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.figure_work import figure_work
from wembit.web.plan.models import MakerHours
from wembit.web.plan.queries import open_figures
from wembit.web.stash.models import Item, Lot, OwnBreed
from wembit.web.studio.models import VIEWER, Studio


@shared
def project(owner):
    return make.project(owner, make.figure(owner, fibre=make.lot(owner, "oat", "900"), length=60), count=4, days=20)


def plan(owner):
    return bench_plan(Studio.objects.get(pk=owner.studio_id))


def minutes_asked(owner):
    return sum(sum(stretch.minutes.values()) + stretch.over for stretch in plan(owner).stretches.values())


def test_nobody_has_said_and_it_is_asked(client, owner, project):
    assert not plan(owner).rows
    assert "Say how many hours a day there are at the bench" in words(get(client, "plan/"))
    assert "Begin it by" not in words(get(client, f"plan/{project.pk}/"))


def test_hours_say_when_to_begin_and_when_it_is_done(client, owner, project):
    assert keep_hours(client).status_code == 302
    row = plan(owner).rows[project.pk]
    assert row.late_days == 0
    assert clock.today(owner.studio) <= row.finish <= project.due
    assert "Begin it by" in words(get(client, f"plan/{project.pk}/"))
    minutes = minutes_asked(owner)
    assert minutes > 0
    days = minutes / 120
    assert (project.due - row.latest_start).days == pytest.approx(days, abs=1.1)


def test_less_hours_and_more_to_make_are_later(client, owner, project):
    keep_hours(client, "2")
    first = plan(owner).rows[project.pk]
    keep_hours(client, "0.25")
    slower = plan(owner).rows[project.pk]
    assert slower.finish > first.finish
    assert slower.latest_start < first.latest_start
    post(client, f"plan/{project.pk}/change/", name="Market", count="12", due=project.due.isoformat(), start="")
    more = plan(owner).rows[project.pk]
    assert more.late_days > 0
    assert "late" in words(get(client, f"plan/{project.pk}/")).split("At your hours")[1][:60]
    assert plan(owner).stretches[project.pk].over > 0


def test_what_is_worked_at_the_bench_is_done(client, owner, project):
    keep_hours(client)
    before = minutes_asked(owner)
    making = begin_making(owner, project.pk)
    for layer in PieceLayer.objects.filter(piece__making=making):
        post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount="3")
    assert minutes_asked(owner) == pytest.approx(before * 3 / 4, rel=0.02)


def work_of(owner, project):
    studio = Studio.objects.get(pk=owner.studio_id)
    found = open_figures(studio)
    way = project.colourway
    return figure_work(studio, way.version, found.parts[way.version_id], found.palettes[way.pk])


def test_what_is_kept_of_a_figure_s_work_follows_each_thing_that_it_hangs_on(client, owner, project, monkeypatch):
    made = []
    real = kept._worked_out
    monkeypatch.setattr(kept, "_worked_out", lambda *given: made.append(1) or real(*given))
    by_content.clear()
    before = work_of(owner, project)
    assert work_of(owner, project) == before
    assert len(made) == 1, "kept while nothing changes"
    part = project.colourway.version.parts.get()
    part.firmness = "very_firm"
    part.save()
    firmer = work_of(owner, project)
    assert sum(minutes for minutes, _ in firmer.steps) > sum(minutes for minutes, _ in before.steps)
    Lot.objects.update(srgb="#102030")
    assert work_of(owner, project).colour == "#102030"
    own = OwnBreed.objects.create(studio=owner.studio, name="Marsh", micron_um=18)
    Item.objects.update(own_breed=own)
    work_of(owner, project)
    own.micron_um = 45
    own.save()
    work_of(owner, project)
    studio = Studio.objects.get(pk=owner.studio_id)
    studio.habits = {**studio.habits, "loose_end_mm": 20}
    studio.save()
    work_of(owner, project)
    assert len(made) == 6, "anew after each change"


def test_a_day_without_hours_is_no_day(client, owner, project):
    keep_hours(client, "0", sat="4")
    row = plan(owner).rows[project.pk]
    assert row.finish.weekday() == 5
    assert row.latest_start.weekday() == 5


def test_none_at_all_is_nobody_says(client, owner, project):
    keep_hours(client)
    keep_hours(client, "0")
    assert not plan(owner).rows


@pytest.mark.parametrize("given", ["16", "-1", "much"])
def test_what_cannot_be_is_told_and_stays(client, owner, project, given):
    answer = keep_hours(client, "2", wed=given)
    assert answer.status_code == 422
    assert "Write hours, 0 to 15." in words(text(answer))
    assert f'value="{given}"' in text(answer)
    assert not plan(owner).rows


def test_z_takes_the_hours_back_and_a_viewer_gives_none(client, studio, owner, project):
    keep_hours(client, "2")
    keep_hours(client, "1")
    post(client, "undo/")
    assert MakerHours.objects.get(member=owner).hours["mon"] == 2
    viewer = signed_in(make.member(studio, VIEWER))
    assert post(viewer, "plan/hours/", **{f"mon_{owner.pk}": "3"}).status_code == 403
    assert "Hours at the bench" not in words(get(viewer, "plan/"))


def test_two_projects_share_the_bench_the_urgent_one_first(client, owner, project):
    keep_hours(client, "1")
    other = make.project(
        owner, make.figure(owner, "Small", fibre=make.lot(owner, "sea", "90"), length=40), count=1, days=2, name="Gift"
    )
    rows = plan(owner).rows
    assert rows[other.pk].start <= rows[project.pk].finish
    assert rows[other.pk].finish - clock.today(owner.studio) <= dt.timedelta(2)


def test_a_start_that_is_too_late_for_the_hours_is_told_and_moved_in_one_press(client, owner, project):
    keep_hours(client, "0.5")
    studio = Studio.objects.get(pk=owner.studio_id)
    begin_by = plan(owner).begin_by(project, clock.today(studio))
    project.start = project.due
    project.save()
    studio.pressed()
    page = get(client, f"plan/{project.pk}/")
    assert "too late for your hours" in words(page)
    form = next(each for each in forms_of(page) if ("start", begin_by.isoformat()) in each.buttons)
    form.send(client, start=begin_by.isoformat())
    project.refresh_from_db()
    assert (project.start, project.due, project.count) == (begin_by, project.due, 4)
    assert "too late for your hours" not in words(get(client, f"plan/{project.pk}/"))
    post(client, "undo/")
    project.refresh_from_db()
    assert project.start == project.due
