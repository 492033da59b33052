"""What is said of a fibre reaches what is planned in it: one weight on the figure and in the plan."""

from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.forms import form_at
from tests.web.helpers import figure_with, get
from tests.web.shared import shared
from tests.web.test_door import needed
from tests.web.test_file_screens import taken_in
from wembit.web.bench.models import PieceLayer
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Part
from wembit.web.plan.figure_needs import amounts_for
from wembit.web.plan.models import Need
from wembit.web.stash.actions.split import split
from wembit.web.stash.actions.tell_colour import tell_colour
from wembit.web.stash.models import Promise
from wembit.web.stash.swatch import swatch


@shared
def planned(maker, owner):
    """A figure with a dark core under a cover of moss, planned twice."""
    figure = figure_with(maker, "Hare", ("body", "60"))
    dark, moss = make.lot(owner, "peat", "500", srgb="#101010"), make.lot(owner, "moss", "500", srgb="#6f7d43")
    choose_fibre(owner, figure.pk, "core", dark.item_id)
    choose_fibre(owner, figure.pk, "main", moss.item_id)
    return make.project(owner, figure, count=2), moss


def by_the_figure(project):
    """What the figure's page says, in the words of the plan."""
    project.refresh_from_db()
    return {(item.name, seen): row["p50"] for (item, seen), row in amounts_for(project).items()}


def told_at_the_bag(client, lot, **said):
    assert form_at(get(client, f"stash/lot/{lot.pk}/"), "/describe/").send(client, **said).status_code == 302


def test_a_paler_cover_takes_more_in_the_plan_too(client, planned, django_capture_on_commit_callbacks):
    # a pale cover shows more of the dark core under it, and has to lie thicker  # common practice
    project, moss = planned
    before = needed(project)
    with django_capture_on_commit_callbacks(execute=True):
        told_at_the_bag(client, moss, srgb="#f4f0e6")
    assert needed(project)["moss", True] > before["moss", True]
    assert needed(project) == by_the_figure(project)
    promised = sum(Promise.objects.filter(lot=moss).values_list("amount", flat=True))
    assert promised == needed(project)["moss", True]


def test_a_measured_colour_reaches_the_plan(owner, planned, django_capture_on_commit_callbacks):
    project, moss = planned
    before = needed(project)
    with django_capture_on_commit_callbacks(execute=True):
        tell_colour(owner, moss.pk, swatch("#f4f0e6"))
    assert needed(project)["moss", True] > before["moss", True]
    assert needed(project) == by_the_figure(project)


def test_another_breed_reaches_the_plan(client, planned, django_capture_on_commit_callbacks):
    project, moss = planned
    before = needed(project)
    with django_capture_on_commit_callbacks(execute=True):
        told_at_the_bag(client, moss, breed="corriedale")
    assert needed(project)["moss", True] != before["moss", True]
    assert needed(project) == by_the_figure(project)


def test_the_newest_bag_tells_the_colour(owner, planned, django_capture_on_commit_callbacks):
    project, moss = planned
    with django_capture_on_commit_callbacks(execute=True):
        newest = make.lot(owner, "moss", "20", srgb="#f4f0e6")
    assert newest.item_id == moss.item_id
    assert needed(project) == by_the_figure(project)
    with django_capture_on_commit_callbacks(execute=True):
        split(owner, moss.pk, D(5), press=make.press())
    assert needed(project) == by_the_figure(project)


def test_what_hands_have_begun_stays(client, planned, django_capture_on_commit_callbacks):
    project, moss = planned
    client.post(client.base + f"bench/begin/{project.pk}/")
    (cover,) = PieceLayer.objects.filter(role="cover")
    before, mine = needed(project), cover.rule_g
    with django_capture_on_commit_callbacks(execute=True):
        told_at_the_bag(client, moss, srgb="#f4f0e6")
    cover.refresh_from_db()
    assert cover.rule_g == mine, "the one in hand"
    other = by_the_figure(project)["moss", True] / 2
    assert needed(project)["moss", True] == pytest.approx(before["moss", True] / 2 + other, abs=D("0.002"))


def test_a_name_or_a_drawer_weighs_nothing_anew(client, planned, django_capture_on_commit_callbacks):
    _, moss = planned
    told = sorted(Need.objects.values_list("pk", "p10", "p50", "p90"))
    with django_capture_on_commit_callbacks(execute=True) as callbacks:
        told_at_the_bag(client, moss, drawer="C4")
    assert sorted(Need.objects.values_list("pk", "p10", "p50", "p90")) == told
    assert not callbacks


def test_a_table_of_bags_tells_colours_too(client, planned, django_capture_on_commit_callbacks):
    project, _ = planned
    before = needed(project)
    with django_capture_on_commit_callbacks(execute=True):
        taken_in(client, "name,form,breed,grams,colour\nmoss,tops,Merino,20,#f4f0e6\n")
    assert needed(project)["moss", True] > before["moss", True]
    assert needed(project) == by_the_figure(project)


def test_a_figure_that_cannot_be_computed_does_not_hold_up_the_bag(client, planned, django_capture_on_commit_callbacks):
    project, moss = planned
    before = needed(project)
    part = Part.objects.get(version=project.colourway.version)
    Part.objects.filter(pk=part.pk).update(shape={"kind": "sphere", "diameter_mm": -5.0})
    with django_capture_on_commit_callbacks(execute=True):
        told_at_the_bag(client, moss, srgb="#f4f0e6")
    moss.refresh_from_db()
    assert moss.srgb == "#f4f0e6"
    assert needed(project) == before
