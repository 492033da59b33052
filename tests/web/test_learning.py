"""What the studio's own work teaches: hands, narrower ranges, plans that follow; nothing from what nobody weighed."""

import io
import re

import pytest
from django.core.management import call_command

from tests.web import factories as make
from tests.web.built_once import in_fibre
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, words
from tests.web.shared import shared
from wembit.core.learning.calibration import learnt
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.finish_making import finish_making
from wembit.web.bench.actions.learn import learn
from wembit.web.bench.actions.take import take
from wembit.web.bench.models import Making, PieceLayer
from wembit.web.bench.queries import making_of
from wembit.web.bench.records import records
from wembit.web.figures.actions.give_weights import give_weights
from wembit.web.figures.models import Slot
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.plan.models import Need
from wembit.web.studio.models import Studio


@shared
def moss(owner):
    return make.lot(owner, "moss", "900")


@shared
def figure(owner, moss):
    """One ball of 40 mm right through in one wool, firm."""
    return make.figure(owner, fibre=moss, length=40)


@pytest.fixture
def made(owner, figure, moss, django_capture_on_commit_callbacks):
    """Makes the figure with so many times what the rule says, by anybody."""

    def work(times, *, who=owner, **finishing):
        making = begin_making(who, make.project(who, figure, count=1).pk)
        layer = PieceLayer.objects.get(piece__making=making)
        if times:
            grams = type(moss.on_hand)(f"{layer.rule_g * times:.3f}")
            take(who, layer.pk, moss.pk, grams, press=make.press())
        with django_capture_on_commit_callbacks(execute=True):
            finish_making(who, making.pk, press=make.press(), **finishing)
        return making

    return work


def hands(owner):
    return Studio.objects.get(pk=owner.studio_id).hands


def planned(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version))).all


def test_each_finished_figure_teaches_the_hand_that_made_it(client, owner, figure, made):
    before = planned(figure)
    ratios = [1.3, 1.2, 1.35, 1.25, 1.3, 1.2]
    for times in ratios:
        made(times)
    expected = learnt([round(times, 3) for times in ratios])
    for who in ("", str(owner.pk)):
        bias, sigma, n = hands(owner)[who]["firm"]
        assert (bias, sigma, n) == pytest.approx((expected.bias, expected.sigma, 6), abs=0.006)
    why = words(get(client, f"figures/{figure.pk}/?part=ball"))
    assert f"Your hands take {bias:.2f} times that, as 6 weighed parts show" in why.replace("1.2 times", "1.20 times")
    assert "as 6 weighed parts of yours show" in why
    after = planned(figure)
    assert after.p50 / before.p50 == pytest.approx(bias)
    assert after.p90 / after.p10 < before.p90 / before.p10, "the range is narrower"
    assert sum(record.held for record in records(owner.studio)) >= 4


def test_what_was_booked_as_planned_and_what_is_in_hand_teach_nothing(owner, figure, made, moss):
    made(0, unweighed="planned")
    made(0, unweighed="nothing")
    begin_making(owner, make.project(owner, figure, count=1).pk)
    assert records(owner.studio) == []
    assert hands(owner) == {}
    made(0, unweighed="weighed", figure_g=type(moss.on_hand)("9"))
    assert records(owner.studio) == [], "a share of the figure's weight is no weighed part"


def test_open_plans_follow_what_was_learnt(owner, figure, made):
    project = make.project(owner, figure, count=3, name="Later")
    need = Need.objects.get(project=project)
    made(1.4)
    made(1.4)
    before, need = need.p50, Need.objects.get(project=project)
    bias = hands(owner)[""]["firm"][0]
    assert float(need.p50) / float(before) == pytest.approx(bias, rel=0.002)
    assert float(need.p50) == pytest.approx(3 * planned(figure).p50, rel=0.002), "figure and plan say the same"


def test_a_maker_begins_with_the_own_hand(owner, figure, made):
    tove = make.member(owner.studio)
    for _ in range(4):
        made(1.5)
        made(0.8, who=tove)
    ours, other = (
        PieceLayer.objects.get(piece__making=begin_making(who, make.project(who, figure, count=1).pk))
        for who in (owner, tove)
    )
    assert ours.bias > 1.2 > 0.95 > other.bias
    assert [ours.sigma, other.sigma] == [hands(owner)[str(who.pk)]["firm"][1] for who in (owner, tove)]
    newcomer = make.member(owner.studio, who="ada")
    third = PieceLayer.objects.get(piece__making=begin_making(newcomer, make.project(newcomer, figure, count=1).pk))
    assert [third.bias, third.sigma] == hands(owner)[""]["firm"][:2], "who has made nothing yet has the studio's"


def test_a_finish_that_is_taken_back_is_forgotten(client, owner, figure, moss, django_capture_on_commit_callbacks):
    making = begin_making(owner, make.project(owner, figure, count=1).pk)
    layer = PieceLayer.objects.get()
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount=f"{layer.rule_g * 1.5:.2f}")
    with django_capture_on_commit_callbacks(execute=True):
        post(client, f"bench/{making.pk}/finish/")
    assert hands(owner)[""]["firm"][2] == 1
    with django_capture_on_commit_callbacks(execute=True):
        post(client, "undo/")
    assert Making.objects.get().finished_at is None
    assert hands(owner) == {}


def test_a_try_that_was_given_up_teaches_nothing(client, owner, figure, moss, made):
    making = begin_making(owner, make.project(owner, figure, count=1).pk)
    layer = PieceLayer.objects.get()
    take(owner, layer.pk, moss.pk, type(moss.on_hand)("40"), press=make.press())
    post(client, f"bench/piece/{layer.piece_id}/again/", where="waste")
    take(owner, layer.pk, moss.pk, type(moss.on_hand)(f"{layer.rule_g:.3f}"), press=make.press())
    finish_making(owner, making.pk, press=make.press())
    learn(owner.studio)
    assert [round(record.ratio, 2) for record in records(owner.studio)] == [1.0]


def test_a_part_fixed_by_its_wool_keeps_it_when_the_hands_are_known(client, owner, moss, made):
    """3 g are 3 g, on the page of the figure too, whatever the hands take of the rule."""
    other = figure_with(client, "Rabbit", ("body", "60"), ("head", "30"))
    for slot in Slot.objects.filter(version=newest_version(other)):
        in_fibre(other, slot.name, moss.item_id)
    give_weights(owner, other.pk, {"head": 3.0})

    def head():
        version = newest_version(other)
        plan = plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))
        return next(part for part in plan.parts if part.part.key == "head")

    def of_layers(part):
        return sum(layer.grams.middle for layer in part.layers)

    before = head()
    assert of_layers(before) == pytest.approx(3.0, abs=0.001)
    for times in (1.4, 1.5, 1.4):
        made(times)
    after = head()
    assert of_layers(after) == pytest.approx(3.0, abs=0.001)
    assert after.volume_mm3 < before.volume_mm3, "who takes more of the wool gets a smaller head of 3 g"


def test_each_layer_counts_for_what_it_is(client, owner, moss):
    """Filling does not felt and is no firm wool; a layer with a firmness of its own counts for that."""
    filling = make.lot(owner, "filling", "500", form="filling")
    figure = figure_with(client, "Rabbit", ("body", "60"))
    for slot in Slot.objects.filter(version=newest_version(figure)):
        in_fibre(figure, slot.name, (filling if slot.name == "core" else moss).item_id)
    begin_making(owner, make.project(owner, figure, count=1).pk)
    kept = {layer.role: layer.counts_for for layer in PieceLayer.objects.all()}
    assert kept == {"core": "core", "cover": "cover"}
    version = newest_version(figure)
    core = next(part for part in parts_of(version) if part.key == "body").layers.get(role="core")
    core.rule = {**core.rule, "firmness": "airy"}
    core.save()
    version.frozen_at = None
    version.save()
    plan = plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))
    assert [layer.counts_for for layer in plan.layers()] == ["airy", "cover"]


def test_an_update_learns_from_what_was_finished_before(owner, made):
    made(1.3)
    Studio.objects.update(hands={})
    out = io.StringIO()
    call_command("learn_hands", stdout=out)
    assert "the hands of 1 studios" in out.getvalue()
    assert hands(owner)[""]["firm"][2] == 1
    call_command("learn_hands", stdout=(quiet := io.StringIO()))
    assert quiet.getvalue() == ""


def test_learning_twice_changes_nothing_and_no_press_is_missed(owner, made):
    made(1.2)
    stamp = Studio.objects.get(pk=owner.studio_id).stamp
    assert not learn(owner.studio)
    assert Studio.objects.get(pk=owner.studio_id).stamp == stamp


def test_the_page_shows_how_planned_met_taken(client, owner, made):
    assert "Nothing was weighed to its end yet" in words(get(client, "bench/learnt/"))
    for times in (1.3, 1.2, 1.9):
        made(times)
    page = get(client, "bench/learnt/")
    text = words(page)
    assert re.search(r"firm .*from 3", text)
    assert "2 of 3 lay in their range" in text
    assert page.count('class="dot-of') == 3
    assert get(client, "bench/").count("bench/learnt/") == 1


def test_each_figure_shows_what_its_makings_took(client, owner, figure, made):
    address = f"bench/made/{figure.pk}/"
    assert "No Pebble was weighed to its end yet" in words(get(client, address))
    making = made(1.3)
    line = making_of(owner.studio, making.pk).pieces[0].layers[0]
    page = get(client, address)
    assert "ball" in words(page)
    assert page.count('class="dot-of') == 1
    table = client.get(client.base + address + "csv/").content.decode()
    assert table.splitlines()[0] == "made,maker,part,wool,slot,planned_g,p10_g,p90_g,taken_g"
    row = table.splitlines()[1].split(",")
    assert row[2:5] == ["ball", "moss", "main"]
    assert float(row[5]) == pytest.approx(line.grams.p50, abs=0.001)
    assert float(row[8]) == float(line.taken)
    other = signed_in(make.studio_owner("Dune", "ida"))
    assert other.get(f"/s/dune/{address}").status_code == 404
