"""What if: changes tried on a copy say what they would come to, change nothing, and are kept or dropped."""

import datetime as dt
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at, keep_hours
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.plan.models import Need, Project
from wembit.web.plan.queries import OpenFigures, shorts_by_project
from wembit.web.restock.queries import tide_lines, tides_now
from wembit.web.stash.models import Promise
from wembit.web.studio.models import VIEWER, Member
from wembit.web.what_if import trying
from wembit.web.what_if.trying import Change, moved, seen, tried


@shared
def moss(owner):
    return make.lot(owner, "moss", "8")


@shared
def project(owner, moss):
    make.offer(owner, moss.item, "25", "4.90", lead=11)
    return make.project(owner, make.figure(owner, "Pebble", fibre=moss), count=4, days=30, name="Stall")


def asked(*changes):
    return "plan/what-if/?" + "&".join(f"c={each.told}" for each in changes)


def change(project, days=0, more=0):
    return Change(project.pk, project.due + dt.timedelta(days), project.count + more)


def rows():
    needs, promises = Need.objects.order_by("pk").values_list(), Promise.objects.order_by("pk").values_list()
    return [list(each) for each in (Project.objects.order_by("pk").values_list(), needs, promises)]


def again(owner):
    return Member.objects.select_related("studio").get(pk=owner.pk)


def test_twenty_instead_of_four_is_told_and_nothing_is_changed(client, owner, project):
    before, plan = rows(), words(get(client, "plan/"))
    page = words(get(client, asked(change(project, more=16))))
    assert "20 instead of 4" in page
    assert "moss for Stall" in page, "what would be short"
    assert "To order moss" in page and "by" in page
    assert "EUR more" in page
    assert rows() == before
    assert words(get(client, "plan/")) == plan, "nothing of it was kept"


def test_what_is_told_is_what_comes_when_it_is_kept(client, owner, project):
    keep_hours(client, "0.2")
    mine = again(owner)
    outcome, _ = tried(mine, moved([change(project, days=-9, more=16)]), lambda studio: "")
    assert outcome.late and outcome.short and outcome.orders and outcome.cost_more > 0
    form = form_at(get(client, asked(change(project, days=-9, more=16))), "what-if/keep/")
    assert form.send(client).status_code == 302
    assert seen(again(owner).studio) == outcome.after
    stored = Project.objects.get()
    assert (stored.count, stored.due) == (20, project.due - dt.timedelta(9))
    post(client, "undo/")
    assert seen(again(owner).studio) == outcome.before


def test_what_somebody_plans_while_it_is_read_is_not_of_it_yet(owner, project, moss, monkeypatch):
    def read_late(studio):
        other = make.project(owner, make.figure(owner, "Boulder", fibre=moss), count=90, name="Quarry")
        found = tides_now(studio)
        assert other.pk in shorts_by_project(studio)
        return found

    monkeypatch.setattr(trying, "tides_now", read_late)
    assert {short.project for short in seen(again(owner).studio).short.values()} == {"Stall"}
    monkeypatch.undo()
    assert "Quarry" in str(seen(again(owner).studio))


def test_what_is_taken_off_the_plan_while_it_is_read_is_told_no_more(client, owner, project, monkeypatch):
    keep_hours(client, "0.1")
    make.project(owner, project.colourway.version.figure, count=4, days=2, name="Soon")
    assert "Soon" in seen(again(owner).studio).late
    monkeypatch.setattr(trying, "open_figures", lambda studio: OpenFigures([project], {}, {}))
    assert "Soon" not in seen(again(owner).studio).late


def test_the_cost_is_that_of_the_cheapest_packs_and_one_postage(client, owner, project):
    outcome, _ = tried(again(owner), moved([change(project, more=16)]), lambda studio: "")
    post(client, f"plan/{project.pk}/move/", count="20", was_count="4", was_due=project.due.isoformat())
    (tide,) = tide_lines(again(owner).studio)
    goods = sum((offer.price * count for offer, count in tide.packs), D(0))
    assert outcome.after.cost == goods + D("3.20")
    assert outcome.cost_more == outcome.after.cost - outcome.before.cost


def test_two_are_tried_at_once_and_each_can_be_left_as_it_is(client, owner, project, moss):
    other = make.project(owner, make.figure(owner, "Snail", fibre=moss), count=1, days=40, name="Race")
    page = get(client, asked(change(project, days=2), change(other, more=3)))
    assert "Stall" in words(page) and "4 instead of 1" in words(page)
    form_at(page, "what-if/keep/").send(client)
    assert set(Project.objects.values_list("name", "count")) == {("Stall", 4), ("Race", 4)}
    assert Project.objects.get(name="Stall").due == project.due + dt.timedelta(2)


def test_what_cannot_be_is_told_beside_it(client, owner, project):
    begin_making(owner, project.pk)
    begin_making(owner, project.pk)
    page = words(get(client, asked(change(project, more=-3))))
    assert "2 are begun already" in page
    gone = Change(project.pk, clock.today(owner.studio) - dt.timedelta(3), 4)
    assert "The due date lies behind" in words(get(client, asked(gone)))


def test_what_was_changed_since_is_not_kept(client, owner, project):
    form = form_at(get(client, asked(change(project, more=2))), "what-if/keep/")
    post(client, f"plan/{project.pk}/move/", count="5", was_count="4", was_due=project.due.isoformat())
    answer = form.send(client)
    assert answer.status_code == 302
    assert "changed meanwhile" in words(get(client, answer["Location"].split("/s/saltgrass/")[1]))
    assert Project.objects.get().count == 5


@pytest.mark.parametrize(
    "given", ["", "c=", "c=soon:2026-01-01:3", "c=%00", "c={pk}:soon:4", "c={pk}:2026-12-30:0", "c={pk}"]
)
def test_what_cannot_be_read_is_not_tried(client, project, given):
    answer = client.get(f"/s/saltgrass/plan/what-if/?{given.format(pk=project.pk)}")
    assert answer.status_code == 200
    assert "Nothing is tried" in words(answer.content.decode())


def test_a_project_of_nobody_is_not_there_and_a_viewer_tries_nothing(client, studio, owner, project):
    assert client.get(f"/s/saltgrass/{asked(Change(owner.pk, project.due, 3))}").status_code == 404
    viewer = signed_in(make.member(studio, VIEWER))
    assert viewer.get(f"/s/saltgrass/{asked(change(project))}").status_code == 403
    given = {"tried": change(project, 2).told, "was": change(project).told}
    assert viewer.post("/s/saltgrass/plan/what-if/keep/", given).status_code == 403
    assert "What if it" not in get(viewer, f"plan/{project.pk}/")
    post(client, f"plan/{project.pk}/drop/")
    assert client.get(f"/s/saltgrass/{asked(change(project))}").status_code == 404


def test_its_figures_lead_to_being_tried_too(client, owner, project, moss):
    other = make.project(owner, make.figure(owner, "Snail", fibre=moss), count=1, days=40, name="Race")
    page = get(client, asked(change(project, days=2)))
    assert f"c={other.pk}%3A{other.due.isoformat()}%3A1" in page
    assert "data-tries" in page


def previewed(client, **given):
    return client.get("/s/saltgrass/plan/what-if/new/", {"count": "12", "name": "Stall", "start": "", **given})


def test_a_new_project_says_what_it_would_come_to_while_it_is_written(client, owner, project, moss):
    before = rows()
    way = str(project.colourway_id)
    page = words(text(previewed(client, colourway=way, due=project.due.isoformat())))
    assert "So it would stand" in page and "Stall × 12" in page
    assert "moss for Stall" in page and "EUR more" in page
    assert rows() == before


def test_what_is_told_of_a_new_one_is_what_comes_when_it_is_planned(client, owner, project, moss):
    given = {"colourway": str(project.colourway_id), "due": project.due.isoformat(), "count": "12", "start": ""}
    given["name"] = "Fair"
    page = words(text(previewed(client, **given)))
    post(client, "plan/new/", **given)
    short = sum(each.amount for each in seen(again(owner).studio).short.values() if each.project == "Fair")
    assert f"{short:.3g} g" in page


@pytest.mark.parametrize("given", [{}, {"colourway": "x"}, {"due": "soon"}, {"due": "2020-01-01"}, {"count": "0"}])
def test_a_form_that_cannot_be_read_yet_says_nothing(client, project, given):
    whole = {"colourway": str(project.colourway_id), "due": project.due.isoformat(), **given}
    answer = previewed(client, **(whole if given else {}))
    assert (answer.status_code, answer.content) == (200, b"")


def test_what_cannot_be_planned_says_why_and_who_may_not_sees_nothing(client, studio, owner, project):
    given = {"colourway": str(project.colourway_id), "due": project.due.isoformat()}
    late = (project.due + dt.timedelta(3)).isoformat()
    assert "start" in words(text(previewed(client, **given, start=late)))
    viewer = signed_in(make.member(studio, VIEWER))
    assert previewed(viewer, **given).status_code == 403
    assert previewed(client, **{**given, "colourway": str(owner.pk)}).status_code == 404
