"""One figure in several sizes: needs, hours, bench, lists and drawings go by the size of each making."""

import pytest

from tests.web import factories as make
from tests.web.forms import form_at, forms_of, keep_hours
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Making, MakingThing, PieceLayer
from wembit.web.bench.part_clock import lines_of
from wembit.web.figures.actions.resize_figure import resize_figure
from wembit.web.plan.actions.plan_project import plan_project
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.models import Project
from wembit.web.studio.models import Studio


@shared
def oat(owner):
    return make.lot(owner, "oat", "900")


@shared
def ball(owner, oat):
    return make.figure(owner, "Ball", fibre=oat, length=60)


@shared
def project(owner, ball):
    return make.project(owner, ball, count=4, days=20)


def change(client, project, **given):
    return form_at(get(client, f"plan/{project.pk}/"), f"{project.pk}/change/").send(client, **given)


def need(project):
    return float(project.needs.get().p50)


def minutes(owner, project):
    stretch = bench_plan(Studio.objects.get(pk=owner.studio_id)).stretches[project.pk]
    return sum(stretch.minutes.values()) + stretch.over


def test_a_ball_of_twice_the_size_takes_eight_times_the_wool(client, owner, project):
    """Solid geometry: the volume of a ball grows with the cube of its width."""
    one = need(project) / 4
    assert change(client, project, sizes="2 / 1 / 1 / 0.5").status_code == 302
    project.refresh_from_db()
    assert project.sizes == [2, 1, 1, 0.5]
    assert need(project) == pytest.approx(one * (8 + 1 + 1 + 1 / 8), rel=1e-3)
    assert "2 / 1 / 1 / 0.5 times its own size" in words(get(client, f"plan/{project.pk}/"))
    post(client, "undo/")
    assert need(project) == pytest.approx(4 * one)


def test_it_needs_and_takes_what_figures_of_those_sizes_would(client, owner, oat, ball, project):
    """Each size is held against a figure that is made so large."""
    change(client, project, sizes="1.3;0.8")
    keep_hours(client, "3")
    alone = []
    for size, name in ((1.3, "Large"), (0.8, "Small"), (1.0, "Same"), (1.0, "Again")):
        other = make.figure(owner, name, fibre=oat, length=60)
        if size != 1:
            resize_figure(owner, other.pk, size)
        alone.append(make.project(owner, other, count=1, days=20, name=name))
    assert need(project) == pytest.approx(sum(map(need, alone)), abs=0.01)
    assert minutes(owner, project) == pytest.approx(sum(minutes(owner, each) for each in alone), rel=1e-3)
    makings = [begin_making(owner, project.pk) for _ in range(2)]
    assert [making.scale for making in makings] == [1.3, 0.8]
    others = [begin_making(owner, each.pk) for each in alone[:2]]
    for mine, other in zip(makings, others, strict=True):
        assert grams_of(mine) == pytest.approx(grams_of(other), rel=1e-6)
        assert [line.step.minutes for line in lines_of(mine)] == pytest.approx(
            [line.step.minutes for line in lines_of(other)]
        )
    assert need(project) == pytest.approx(sum(map(need, alone)), abs=0.01), "begun or not"
    pages = [get(client, f"bench/{made.pk}/") for made in (makings[0], others[0])]
    assert drawn(pages[0]) == drawn(pages[1]), "drawn in its size"


def grams_of(making):
    return list(PieceLayer.objects.filter(piece__making=making).values_list("rule_g", flat=True))


def drawn(page):
    return page.split("viewBox=", 1)[1].split('"')[1]


def test_the_list_of_what_it_takes_is_for_its_sizes(client, owner, project):
    change(client, project, sizes="2 / 1 / 1 / 0.5")
    page = words(get(client, f"plan/{project.pk}/list/"))
    assert f"{need(project):.3g} g" in page


def test_what_is_the_same_in_all_sizes_stands_on_the_list_once(client, owner, ball, project):
    post(client, f"figures/{ball.pk}/list/fit/", notion="bell", amount="1", words="a bell")
    change(client, project, sizes="2 / 1 / 1 / 0.5")
    page = words(get(client, f"plan/{project.pk}/list/"))
    assert "a bell 4 pieces" in page
    assert page.count("thread a bell") == 1, "and the thread that sews all four on"


def test_wire_is_cut_for_each_size(client, owner, oat):
    """What runs through a part grows with it, here 60 mm of ball; its bare ends do not."""
    made = make.figure(owner, "Wired", fibre=oat, length=60)
    post(client, f"figures/{made.pk}/part/ball/wire/", gauge_mm="1", bare_mm="13")
    project = make.project(owner, made, count=2)
    wire = project.needs.get(item__kind="notion")
    one = float(wire.p50) / 2
    change(client, project, sizes="1.5 / 0.5")
    wire.refresh_from_db()
    assert float(wire.p50) == pytest.approx(2 * one, abs=0.01)
    change(client, project, sizes="1.5")
    wire.refresh_from_db()
    assert float(wire.p50) - 2 * one == pytest.approx(0.5 * 60, abs=0.01)
    begin_making(owner, project.pk)
    begin_making(owner, project.pk)
    large, own = MakingThing.objects.order_by("making__number").values_list("amount", flat=True)
    assert float(large + own) == pytest.approx(float(wire.p50), abs=0.01)
    assert large > own


@pytest.mark.parametrize(
    ("sizes", "fault"),
    [
        ("1 / 2 / 1 / 1 / 1.5", "These are 5 sizes for 4. Make more, or take sizes away."),
        ("5", "Write sizes like 1.1 / 1 / 0.9, each from 0.25 to 4 times."),
        ("0.1 / 1", "Write sizes like 1.1 / 1 / 0.9, each from 0.25 to 4 times."),
        ("big", "Write sizes like 1.1 / 1 / 0.9, each from 0.25 to 4 times."),
        ("nan", "Write sizes like 1.1 / 1 / 0.9, each from 0.25 to 4 times."),
    ],
)
def test_sizes_that_cannot_be_are_told_and_stay(client, owner, project, sizes, fault):
    answer = change(client, project, sizes=sizes)
    assert told(answer) == fault
    assert f'value="{sizes}"' in answer.content.decode()
    assert Project.objects.get(pk=project.pk).sizes == []


def test_a_dozen_different_sizes_are_enough(client, owner, ball):
    project = make.project(owner, ball, count=40)
    sizes = [f"{1 + number / 100:g}" for number in range(1, 14)]
    assert told(change(client, project, sizes=" / ".join(sizes))).startswith(
        "A project has at most 12 different sizes."
    )
    assert change(client, project, sizes=" / ".join(sizes[:12] + sizes[:12])).status_code == 302


def test_a_comma_is_read_and_all_at_its_own_size_is_none(client, owner, project):
    change(client, project, sizes="1,1 / 1")
    project.refresh_from_db()
    assert project.sizes == [1.1]
    change(client, project, sizes="1 / 1")
    project.refresh_from_db()
    assert project.sizes == []


def test_sizes_are_said_when_it_is_planned(client, owner, ball):
    form = next(each for each in forms_of(get(client, "plan/new/")) if "colourway" in each.options)
    form.action = client.base + "plan/new/"
    form.send(client, colourway=form.options["colourway"][-1], count="3", sizes="1.2 / 1 / 0.9")
    project = Project.objects.get()
    assert (project.count, project.sizes) == (3, [1.2, 1, 0.9])


def test_fewer_of_them_leave_the_last_sizes_out(client, owner, project):
    one = need(project) / 4
    change(client, project, sizes="1 / 1 / 1 / 2")
    form = form_at(get(client, f"plan/{project.pk}/"), "/move/")
    form.send(client, count="3")
    assert need(project) == pytest.approx(3 * one, rel=1e-3)


def test_what_was_begun_keeps_its_size(client, owner, project):
    change(client, project, sizes="2")
    begin_making(owner, project.pk)
    before = need(project)
    change(client, project, sizes="1 / 1 / 1 / 1")
    assert Making.objects.get().scale == 2
    assert need(project) == pytest.approx(before)


def test_a_making_in_another_size_is_not_kept_as_the_figure_s_own(client, owner, project):
    change(client, project, sizes="1.5")
    making = begin_making(owner, project.pk)
    post(client, f"bench/piece/{making.pieces.get().pk}/measure/", long="70", thick="70")
    Making.objects.update(finished_at=making.begun_at)
    answer = post(client, f"bench/{making.pk}/as-made/", follow=True)
    assert "It was made in another size" in words(text(answer))
    assert project.colourway.version.figure.versions.count() == 1
    Making.objects.update(scale=1)
    post(client, f"bench/{making.pk}/as-made/")
    assert project.colourway.version.figure.versions.count() == 2, "else it would be"


def test_it_is_planned_by_the_action_as_by_the_form(owner, ball, project):
    made = plan_project(owner, project.colourway_id, name="Two", count=2, due=project.due, sizes=[2.0])
    assert need(made) == pytest.approx(need(project) / 4 * 9, rel=1e-3)
