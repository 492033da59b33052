"""Two makers: whose hours, who is away, who makes what, what comes before what, and for whom it is."""

import datetime as dt

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at, forms_of, keep_hours
from tests.web.helpers import get, post, told, words
from tests.web.shared import shared
from tests.web.test_bench_hours import plan
from wembit.core.contract.requests import WEEK
from wembit.web import clock
from wembit.web.plan.models import Away, LeftToOthers, MakerHours, Project
from wembit.web.stash.models import Lot, Promise
from wembit.web.stash.queries import promises_broken_by
from wembit.web.studio.models import VIEWER


@pytest.fixture
def tove(studio):
    return make.member(studio)


@shared
def project(owner):
    return make.project(owner, make.figure(owner, fibre=make.lot(owner, "oat", "900"), length=60), count=8, days=20)


def away(client, maker, first, last=""):
    form = form_at(get(client, "plan/"), "plan/away/")
    return form.send(client, maker=str(maker.pk), first=str(first), last=str(last))


def test_the_makers_share_a_project_by_their_hours(client, owner, tove, project):
    assert keep_hours(client, "3", owner).status_code == 302
    keep_hours(client, "1", tove)
    assert {row.member: row.hours["mon"] for row in MakerHours.objects.all()} == {owner: 3, tove: 1}
    shares = dict(plan(owner).whose[project.pk])
    assert shares == {"Mira": pytest.approx(6), "Tove": pytest.approx(2)}
    assert "To make: Mira 6, Tove 2." in words(get(client, f"plan/{project.pk}/"))


def test_a_maker_alone_is_not_named(client, owner, project):
    keep_hours(client, "3")
    page = get(client, f"plan/{project.pk}/")
    assert "To make:" not in page
    assert "makes it" not in page
    assert 'class="whose"' not in page


def test_the_sill_draws_the_hours_of_each(client, owner, tove, project):
    keep_hours(client, "2")
    page = get(client, "plan/")
    wide = page[page.index('class="sill wide"') : page.index('class="sill upright"')]
    assert wide.count('class="there part"') == 1
    assert wide.count('class="there"') == 1
    assert "of 28 h" in words(wide)


def test_who_is_away_works_on_other_days(client, owner, tove, project):
    keep_hours(client, "2")
    today = clock.today(owner.studio)
    before = plan(owner)
    assert away(client, owner, today, today + dt.timedelta(9)).status_code == 302
    row = Away.objects.get()
    assert (row.member, row.first, row.last) == (owner, today, today + dt.timedelta(9))
    after = plan(owner)
    mine = next(hours for hours in after.hours if hours.name == "Mira")
    assert list(mine.minutes[:11]) == [0.0] * 10 + [120.0]
    assert dict(after.whose[project.pk])["Tove"] > dict(before.whose[project.pk])["Tove"]
    page = get(client, "plan/")
    assert "Mira, today to" in words(page)
    assert form_at(page, f"{row.pk}/back/").send(client).status_code == 302
    assert plan(owner).rows == before.rows


def test_away_on_one_day_and_z_takes_it_back(client, owner, project):
    keep_hours(client, "2")
    tomorrow = clock.today(owner.studio) + dt.timedelta(1)
    away(client, owner, tomorrow)
    assert (Away.objects.get().first, Away.objects.get().last) == (tomorrow, tomorrow)
    post(client, "undo/")
    assert not Away.objects.exists()
    post(client, "again/")
    row = Away.objects.get()
    post(client, f"plan/away/{row.pk}/back/")
    post(client, "undo/")
    assert Away.objects.get() == row


@pytest.mark.parametrize(
    ("first", "last", "fault"),
    [
        (2, 1, "It ends before it begins. Choose a later last day."),
        (-5, -2, "These days lie behind. Choose today or later."),
        (0, 400, "That is more than a year. Take hours off the week instead."),
    ],
)
def test_days_that_cannot_be_are_told_and_stay(client, owner, project, first, last, fault):
    today = clock.today(owner.studio)
    days = [(today + dt.timedelta(each)).isoformat() for each in (first, last)]
    answer = away(client, owner, *days)
    assert told(answer) == fault
    assert f'value="{days[1]}"' in answer.content.decode()
    assert not Away.objects.exists()


def test_sixty_times_away_are_enough(client, owner, project):
    today = clock.today(owner.studio)
    row = {"studio": owner.studio, "member": owner}
    Away.objects.bulk_create(
        Away(**row, first=today + dt.timedelta(n), last=today + dt.timedelta(n)) for n in range(60)
    )
    Away.objects.create(**row, first=today - dt.timedelta(9), last=today - dt.timedelta(8))
    assert told(away(client, owner, today)) == "More than 60 times away are not kept. Take one back first."
    assert Away.objects.count() == 61


def test_a_day_that_is_none_is_told(client, owner, project):
    assert told(away(client, owner, "tomorrow")) == "Write a day, like 2026-12-09."
    assert told(away(client, owner, "9026-12-09")).startswith("The first day")


def press_who(client, project, maker):
    page = get(client, f"plan/{project.pk}/")
    form = next(each for each in _who_forms(page, project) if each.fields["maker"] == str(maker.pk))
    return form.send(client)


def _who_forms(page, project):
    return [form for form in forms_of(page) if form.action.endswith(f"{project.pk}/who/")]


def test_a_maker_leaves_a_figure_to_the_other(client, owner, tove, project):
    keep_hours(client, "2")
    press_who(client, project, tove)
    assert dict(plan(owner).whose[project.pk]) == {"Mira": pytest.approx(8)}
    assert "Tove leaves it" in words(get(client, f"plan/{project.pk}/"))
    press_who(client, project, owner)
    assert LeftToOthers.objects.count() == 1, "somebody has to make it"
    assert "Nobody would be left who makes Pebble." in words(get(client, "plan/"))
    press_who(client, project, tove)
    assert not LeftToOthers.objects.exists()
    post(client, "undo/")
    assert LeftToOthers.objects.get().member == tove


def test_a_viewer_changes_none_of_it_and_other_studios_are_not_there(client, studio, owner, tove, project):
    keep_hours(client, "2")
    other = make.studio_owner("Elsewhere", "wenna")
    today = clock.today(studio).isoformat()
    row = Away.objects.create(studio=studio, member=owner, first=today, last=today)
    viewer, stranger = signed_in(make.member(studio, VIEWER, "ilse")), signed_in(other)
    for address, given in [
        ("plan/away/", {"maker": str(owner.pk), "first": today}),
        (f"plan/away/{row.pk}/back/", {}),
        (f"plan/{project.pk}/who/", {"maker": str(owner.pk)}),
    ]:
        assert post(viewer, address, **given).status_code == 403, address
        assert post(stranger, address, **given).status_code == 404, address
    assert post(client, "plan/away/", maker=str(other.pk), first=today).status_code == 404
    assert post(client, f"plan/{project.pk}/who/", maker=str(other.pk)).status_code == 404
    assert post(stranger, "plan/hours/", **{f"{day}_{owner.pk}": "9" for day in WEEK}).status_code == 302
    assert MakerHours.objects.get(member=owner).hours["mon"] == 2, "her form has no fields of theirs"
    assert Away.objects.count() == 1
    viewer_member = studio.memberships.get(role=VIEWER)
    assert post(client, "plan/away/", maker=str(viewer_member.pk), first=today).status_code == 404


def test_who_becomes_a_viewer_has_no_hours_at_the_bench_any_more(client, studio, owner, tove, project):
    keep_hours(client, "2")
    tove.role = VIEWER
    tove.save()
    studio.pressed()
    assert [hours.name for hours in plan(owner).hours] == ["Mira"]


def change(client, project, **given):
    return form_at(get(client, f"plan/{project.pk}/"), f"{project.pk}/change/").send(client, **given)


def test_what_comes_first_has_wool_and_hours_before_what_is_due_sooner(client, owner):
    wool = make.lot(owner, "oat", "3")
    sooner = make.project(owner, make.figure(owner, fibre=wool), days=5, name="Stall")
    later = make.project(owner, make.figure(owner, "Stone", fibre=wool), days=9, name="Promise")
    keep_hours(client, "0.5")
    assert promised(sooner) > promised(later)
    before = plan(owner).rows
    assert before[sooner.pk].finish < before[later.pk].finish
    assert change(client, later, priority="0").status_code == 302
    later.refresh_from_db()
    assert later.priority == 0
    assert promised(later) > promised(sooner)
    after = plan(owner).rows
    assert after[later.pk].finish <= before[sooner.pk].finish < after[sooner.pk].finish
    assert "It has wool and hours before all others." in words(get(client, f"plan/{later.pk}/"))
    post(client, "undo/")
    assert promised(sooner) > promised(later)
    assert plan(owner).rows == before


def test_a_bag_says_the_day_the_name_and_the_turn_of_what_it_is_promised_to(client, owner):
    """Moved, renamed or put first: the promise stands in the same grams and says so; what comes first gives way last."""
    bag = make.lot(owner, "oat", "50")
    made = make.figure(owner, fibre=bag)
    make.project(owner, made, days=5, name="Stall")
    later = make.project(owner, made, days=9, name="Promise")
    amount = promised(later)
    day = (later.due + dt.timedelta(3)).isoformat()
    change(client, later, due=day, name="Vow", priority="0")
    assert promised(later) == amount
    row = Promise.objects.get(whose="Vow")
    assert (row.due.isoformat(), row.priority) == (day, 0)
    page = words(get(client, f"stash/lot/{bag.pk}/"))
    assert "for Vow, due" in page
    assert "for Promise, due" not in page
    broken = promises_broken_by(Lot.objects.get(pk=bag.pk), bag.on_hand - amount)
    assert [promise.whose for promise in broken] == ["Stall"]
    post(client, "undo/")
    row.refresh_from_db()
    assert (row.whose, row.due, row.priority) == ("Promise", later.due, 1)
    assert [each.whose for each in promises_broken_by(Lot.objects.get(pk=bag.pk), bag.on_hand - amount)] == ["Promise"]


def promised(project):
    return sum(Promise.objects.filter(need__in=project.needs.values("pk")).values_list("amount", flat=True))


def test_for_whom_it_is_said_when_it_is_planned_and_can_be_changed(client, owner):
    made = make.figure(owner)
    form = next(each for each in forms_of(get(client, "plan/new/")) if "colourway" in each.options)
    way = form.options["colourway"][-1]
    assert form.fields["for_whom"] == "stock"
    form.action = client.base + "plan/new/"
    form.send(client, colourway=way, for_whom="gift", priority="2", name="Auntie")
    project = Project.objects.get()
    assert (project.for_whom, project.priority, project.colourway.version.figure) == ("gift", 2, made)
    assert "for a gift" in words(get(client, f"plan/{project.pk}/"))
    change(client, project, for_whom="class")
    project.refresh_from_db()
    assert (project.for_whom, project.priority) == ("class", 2)
    assert told(change_raw(client, project, for_whom="the cat")) == "Choose for whom it is."
    assert told(change_raw(client, project, priority="7")) == "Choose what comes first."


def change_raw(client, project, **given):
    form = form_at(get(client, f"plan/{project.pk}/"), f"{project.pk}/change/")
    return client.post(form.action, {**form.fields, **given})


def test_what_was_changed_elsewhere_meanwhile_is_told(client, owner):
    project = make.project(owner)
    form = form_at(get(client, f"plan/{project.pk}/"), f"{project.pk}/change/")
    Project.objects.update(priority=0)
    assert told(form.send(client, priority="2")).startswith("It was changed meanwhile, to before all others.")
    form.send(client, name="Another")
    assert Project.objects.get().priority == 0, "what she did not touch stays as it became"
