"""The sill: strands as thick as their hours, upon each other, words that nothing crosses, figures that go to another day."""

import datetime as dt
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at, keep_hours
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.models import Need, Project
from wembit.web.plan.sill.figures import SHOWN, on_sill
from wembit.web.plan.sill.label_rows import label_rows
from wembit.web.plan.sill.layout import LaidOver, lines_of, sill
from wembit.web.plan.sill.rope import HEAP_DAYS, Work, edge_path, rope
from wembit.web.stash.models import Lot
from wembit.web.studio.models import VIEWER, Studio

EDGES = {day: 17.0 * day for day in range(-21, 61)}

WORKS = st.lists(
    st.builds(
        Work,
        st.dictionaries(st.integers(-9, -1), st.floats(0, 4), max_size=4),
        st.dictionaries(st.integers(0, 20), st.floats(0.01, 4), max_size=6),
        st.floats(0, 9),
        st.integers(-9, 50),
        st.floats(0, 1),
    ),
    min_size=1,
    max_size=6,
)


def thickness(band, along):
    """How thick a band is at a place that is one of its points."""
    return sum(high - low for at, low, high in band.points if abs(at - along) < 1e-9)


# --- the rope


@given(WORKS)
def test_at_each_day_a_strand_is_as_thick_as_its_hours_and_the_rope_as_all_of_them(works):
    laid = rope(works, EDGES)
    for day in range(-9, 21):
        along = EDGES[day] + 0.22 * 17
        for work, strand in zip(works, laid.strands, strict=True):
            bands = (strand.spun, strand.loose, strand.dry)
            assert sum(thickness(band, along) for band in bands) == pytest.approx(work.hours(day), abs=1e-9)
        tops = [high for s in laid.strands for b in (s.spun, s.loose, s.dry) for at, _, high in b.points if at == along]
        assert max(tops, default=0.0) == pytest.approx(sum(work.hours(day) for work in works), abs=1e-6)


@given(WORKS)
def test_what_is_over_lies_above_all_that_fits_and_is_all_there(works):
    laid = rope(works, EDGES)
    for work, strand in zip(works, laid.strands, strict=True):
        days = work.heap()
        assert sum(days.values()) == pytest.approx(work.over if days else 0.0)
        assert len(days) <= HEAP_DAYS
        for at, low, high in strand.heap.points[1:-1]:
            assert high - low == pytest.approx(work.over / len(days))
            fits = sum(other.hours(int(at // 17)) for other in works)
            assert low >= fits - 1e-9


def test_wool_that_does_not_reach_leaves_the_end_of_the_work_dry():
    work = Work({}, {0: 1.0, 1: 1.0, 2: 2.0}, 0.0, 3, reach=0.5)
    assert work.dry_from == 2
    (strand,) = rope([work], EDGES).strands
    assert max(at for at, _, _ in strand.loose.points) == EDGES[2]
    assert min(at for at, _, _ in strand.dry.points) == EDGES[2]
    assert Work({}, {0: 1.0}, 0.0, 3).dry_from is None
    assert Work({}, {0: 1.0}, 0.0, 3, reach=0.0).dry_from == 0


def test_what_is_due_first_lies_on_top_and_rises_from_there():
    first, last = Work({}, {0: 2.0, 1: 2.0}, 0.0, 1), Work({}, {0: 1.0, 1: 1.0, 2: 1.0}, 0.0, 2)
    upper, lower = rope([first, last], EDGES).strands
    assert upper.rises == (17 * 1.5, 3.0)
    assert lower.rises == (17 * 2.5, 1.0)
    assert all(low >= 1.0 for _, low, _ in upper.loose.points[1:-1])


def test_a_maker_s_name_stands_in_her_band_where_no_strand_lies_or_rises():
    """Weekends have four hours each; the last two have work, or lie beside what rises to its figure."""
    mira = {day: 4.0 if day % 7 in (5, 6) else 1.0 for day in range(35)}
    tove = {day: 2 * hours for day, hours in mira.items()}
    work = Work({}, {20: 1.0, 33: 4.0, 34: 4.0}, 0.0, 27)
    over = LaidOver(EDGES, [("Mira", mira), ("Tove", tove)], rope([work], EDGES))
    lower, upper = lines_of(over, lambda hours: 100 - 10 * hours)
    assert (lower.name, upper.name) == ("Mira", "Tove")
    assert lower.x == pytest.approx(
        (EDGES[13] + EDGES[14]) / 2, abs=0.1
    )  # beside 19 something is worked, beside 26 it rises
    assert upper.x == pytest.approx((EDGES[34] + EDGES[35]) / 2, abs=0.1)  # above Mira's hours nothing lies
    assert (lower.y, upper.y) == (80.0, 40.0)


def test_a_bend_levels_out_at_its_points():
    assert edge_path([(0, 1), (10, 3)]) == "0.0 1.0C5.0 1.0 5.0 3.0 10.0 3.0"
    assert edge_path([(0, 1), (10, 3)], upright=True) == "1.0 0.0C1.0 5.0 3.0 5.0 3.0 10.0"


# --- words


@given(st.lists(st.tuples(st.floats(0, 900), st.floats(10, 220)), max_size=14))
def test_no_words_lie_on_words_and_no_line_to_a_figure_crosses_them(labels):
    places, widths = [x for x, _ in labels], [wide for _, wide in labels]
    rows = label_rows(places, widths)
    for one, (x, wide) in enumerate(labels):
        for two, (other, _) in enumerate(labels):
            if one == two:
                continue
            if rows[one] == rows[two]:
                assert not x <= other <= x + wide
            if rows[two] > rows[one]:
                assert not x + 2 < other < x + wide


# --- the page


@shared
def hare(owner):
    return make.figure(owner, "Hare", fibre=make.lot(owner, "oat", "900"), length=60)


@shared
def project(owner, hare):
    return make.project(owner, hare, count=4, days=20, name="Spring fair")


def moved(client, project, **changes):
    """The page's own form, sent as a browser sends it."""
    form = form_at(get(client, f"plan/{project.pk}/"), f"plan/{project.pk}/move/")
    return form.send(client, **changes)


def hours(client, each="2"):
    keep_hours(client, each)


def test_a_figure_stands_on_its_day_with_what_presses_most(client, owner, project):
    page = get(client, "plan/")
    assert f'data-due="{project.due.isoformat()}"' in page
    assert "Spring fair × 4" in page
    hours(client)
    assert re.search(r"due \d+ \w+, begin by ", words(get(client, "plan/")))
    begin_making(owner, project.pk)
    Studio.objects.get(pk=owner.studio_id).pressed()
    assert ", go on by " in words(get(client, "plan/"))
    hours(client, "0.1")
    assert re.search(r"due \d+ \w+, \d+ days late", words(get(client, "plan/")))
    assert " h over" in words(get(client, "plan/"))


def test_what_is_short_says_of_what_and_is_drawn_dry(client, owner, hare, project):
    assert 'class="dry"' not in get(client, "plan/")
    lot = Lot.objects.get()
    post(client, f"stash/lot/{lot.pk}/weigh/", amount="1")
    page = get(client, "plan/")
    assert "short of oat" in words(page)
    assert 'class="dry"' in page


def test_it_goes_to_another_day_and_back(client, owner, project):
    later = project.due + dt.timedelta(7)
    answer = moved(client, project, due=later.isoformat())
    assert answer.status_code == 302
    project.refresh_from_db()
    assert project.due == later
    post(client, "undo/")
    project.refresh_from_db()
    assert project.due == later - dt.timedelta(7)


def test_a_start_that_lies_ahead_goes_with_it_but_not_before_today(client, owner, hare):
    today = clock.today(owner.studio)
    project = make.project(owner, hare, count=1, days=20, start=10)
    moved(client, project, due=(today + dt.timedelta(27)).isoformat())
    project.refresh_from_db()
    assert project.start == today + dt.timedelta(17)
    moved(client, project, due=(today + dt.timedelta(3)).isoformat())
    project.refresh_from_db()
    assert project.start == today


def test_more_of_it_takes_more(client, owner, project):
    before = Need.objects.get().p50
    moved(client, project, count="8")
    assert float(Need.objects.get().p50) == pytest.approx(float(before) * 2, rel=0.01)
    assert "Spring fair × 8" in get(client, "plan/")


def test_the_piece_for_a_drag_has_the_tray_and_the_sill(client, project):
    later = (project.due + dt.timedelta(3)).isoformat()
    answer = moved(client, project, due=later)
    page = text(client.get(answer["Location"], headers={"HX-Request": "true"}))
    assert 'id="sill" hx-swap-oob="true"' in page
    assert f'data-due="{later}"' in page
    assert "<h2" in page and "<html" not in page


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        ({"due": "2020-01-01"}, "The due date lies behind"),
        ({"due": "soon"}, "Write a day"),
        ({"count": "0"}, "whole number"),
        ({"count": "501"}, "whole number"),
        ({"due": "2999-01-01"}, "ten years"),
    ],
)
def test_what_cannot_be_is_told_and_changes_nothing(client, project, changes, said):
    form = form_at(get(client, f"plan/{project.pk}/"), f"plan/{project.pk}/move/")
    answer = client.post(
        f"/s/saltgrass/plan/{project.pk}/move/", {**form.fields, **changes}, headers={"HX-Request": "true"}
    )
    assert answer.status_code == 422
    assert said in words(text(answer))
    before = Project.objects.get(pk=project.pk)
    assert (before.due, before.count) == (project.due, project.count)


def test_moved_by_two_at_once_the_second_is_asked(client, owner, project):
    form = form_at(get(client, f"plan/{project.pk}/"), f"plan/{project.pk}/move/")
    moved(client, project, due=(project.due + dt.timedelta(1)).isoformat())
    answer = client.post(
        f"/s/saltgrass/plan/{project.pk}/move/",
        {**form.fields, "due": (project.due + dt.timedelta(5)).isoformat()},
        headers={"HX-Request": "true"},
    )
    assert answer.status_code == 422
    assert "It was changed meanwhile" in words(text(answer))
    assert Project.objects.get().due == project.due + dt.timedelta(1)


def test_no_fewer_than_are_begun_and_a_viewer_moves_nothing(client, studio, owner, project):
    begin_making(owner, project.pk)
    begin_making(owner, project.pk)
    moved(client, project, count="1")
    assert Project.objects.get().count == 4
    viewer = signed_in(make.member(studio, VIEWER))
    assert post(viewer, f"plan/{project.pk}/move/", count="5").status_code == 403
    page = get(viewer, f"plan/{project.pk}/")
    assert "data-moves" not in page and "A day later" not in page
    assert "data-moves" in get(client, f"plan/{project.pk}/")


def test_a_closed_project_stays_where_it_was(client, project):
    form = form_at(get(client, f"plan/{project.pk}/"), f"plan/{project.pk}/move/")
    post(client, f"plan/{project.pk}/drop/")
    answer = client.post(
        f"/s/saltgrass/plan/{project.pk}/move/", {**form.fields, "count": "5"}, headers={"HX-Request": "true"}
    )
    assert answer.status_code == 422
    assert "is closed" in words(text(answer))


def test_many_projects_stand_some_at_a_time(client, owner, hare):
    for number in range(SHOWN + 3):
        make.project(owner, hare, count=1, days=3 + number, name=f"Gift {number:02}")
    page = get(client, "plan/")
    assert "Gift 00" in page and f"Gift {SHOWN + 1}" not in page
    assert "What is due after" in page
    later = get(client, f"plan/?start={SHOWN}")
    assert f"Gift {SHOWN + 1}" in later and "Gift 00" not in later
    assert f"Gift {SHOWN + 2}" in get(client, "plan/?start=999999"), "past the end stand the last"
    last = Project.objects.get(name=f"Gift {SHOWN + 2}")
    assert f"Gift {SHOWN + 2}" in get(client, f"plan/{last.pk}/").split('id="tray"')[0]


def test_a_project_every_day_leaves_the_sill_in_sight_and_names_the_others_beneath(client, owner, hare):
    for number in range(14):
        make.project(owner, hare, count=2, days=3 + number, name=f"A gift of the year {number:02}")
    studio = Studio.objects.get(pk=owner.studio_id)
    plan = bench_plan(studio)
    rows, _ = on_sill(studio, plan)
    laid = sill(rows, plan.hours, clock.today(studio), ".")
    assert laid.board_y < 36 * 7 + 200
    assert 0 < len(laid.unnamed) < 14
    page = get(client, "plan/")
    assert page.count("A gift of the year 00 ×") >= 2, "above its figure or beneath, and on the narrow sill"
    for number in range(14):
        assert f"A gift of the year {number:02}" in page


def test_the_rope_is_the_plan_s_minutes(client, owner, project):
    hours(client)
    studio = Studio.objects.get(pk=owner.studio_id)
    plan = bench_plan(studio)
    ((standing,), count) = on_sill(studio, plan)
    assert count == 1
    assert sum(standing.work.to_do.values()) * 60 == pytest.approx(sum(plan.stretches[project.pk].minutes.values()))
    assert max(standing.work.to_do) <= standing.work.due
