"""Eyes, wire and fittings in the arithmetic: needed, promised, short, ordered, taken at the bench, gone when finished."""

import re
from decimal import Decimal as D

import pytest
from django.core.management import call_command

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Making, MakingThing, PieceLayer
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.plan.models import Need, Project
from wembit.web.plan.queries import open_needs
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.models import Item, Movement, Promise


@shared
def hare(maker, owner):
    figure = figure_with(maker, "Hare", ("body", "60"), ("head", "30"), ("eye", "4"))
    wool = make.lot(owner, "fawn", "200")
    for slot in figure.versions.get().slots.all():
        choose_fibre(owner, figure.pk, slot.name, wool.item_id)
    return figure


@shared
def eyes(owner):
    return make.notion_lot(owner, "black eyes", "7")


def planned(owner, figure, count=3) -> Project:
    return make.project(owner, figure, count=count)


def need(project, notion="eyes") -> Need:
    return next(iter(open_needs(project.studio, project=project, item__notion=notion)))


def lot_now(lot):
    lot.refresh_from_db()
    return lot.on_hand


def test_a_project_needs_its_eyes_and_says_what_is_short(client, owner, hare, eyes):
    project = planned(owner, hare, 3)
    assert (need(project).p10, need(project).p50, need(project).p90) == (6, 6, 6), "eyes have no range"
    assert need(project).promised == 6
    more = planned(owner, hare, 2)
    assert need(more).left - need(more).promised == 3
    page = words(get(client, f"plan/{more.pk}/"))
    assert "black eyes 3 pieces" in page
    assert "3 pieces short" in page
    assert "black eyes" in words(get(client, "restock/"))
    assert "All that it needs" not in page


def test_what_an_older_wembit_planned_gets_its_eyes_at_the_next_start(client, owner, hare, eyes, capsys):
    planned_long_ago = [planned(owner, hare, 1), planned(owner, hare, 3)]
    Need.objects.filter(item=eyes.item_id).delete()
    Project.objects.update(arithmetic=0)
    call_command("follow_arithmetic")
    assert [need(project).p50 for project in planned_long_ago] == [2, 6]
    assert [need(project).promised for project in planned_long_ago] == [2, 5]
    assert "the needs of 2 planned projects" in capsys.readouterr().out
    Need.objects.filter(item=eyes.item_id).delete()
    call_command("follow_arithmetic")
    assert not Need.objects.filter(item=eyes.item_id).exists(), "what is of today is left alone"


def test_of_a_begun_one_the_eyes_of_what_is_not_begun_are_needed(client, owner, hare, eyes):
    post(client, f"figures/{hare.pk}/part/eye/", count="2", bead="4")
    project = planned(owner, hare, 3)
    begin_making(owner, project.pk)
    Need.objects.filter(item=eyes.item_id).delete()
    MakingThing.objects.all().delete()
    wool = Need.objects.filter(project=project).exclude(item=eyes.item_id)
    before = sum(need.p50 for need in wool)
    Project.objects.update(arithmetic=0)
    call_command("follow_arithmetic")
    call_command("follow_arithmetic")
    assert (need(project).p50, need(project).promised) == (4, 4)
    assert sum(need.p50 for need in wool.all()) == pytest.approx(before, abs=D("0.002"))


def test_eyes_that_nobody_has_are_planned_and_can_be_ordered(client, owner, hare):
    project = planned(owner, hare, 2)
    wanted = need(project)
    assert (wanted.item.name, wanted.item.size_mm, wanted.item.unit, wanted.promised) == ("eyes", 4, "pc", 0)
    make.offer(owner, wanted.item, "24", "1.80")
    page = words(get(client, f"restock/item/{wanted.item_id}/"))
    assert "4 pieces" in page
    post(client, f"figures/{hare.pk}/part/eye/", count="2", bead="9")
    assert need(project).item.size_mm == 9
    assert Item.objects.filter(name="eyes", size_mm=4).exists(), "somebody sells those"
    post(client, f"figures/{hare.pk}/part/eye/", count="2", bead="14")
    assert not Item.objects.filter(name="eyes", size_mm=9).exists(), (
        "what was only written down for the plan goes with it"
    )


def test_eyes_that_are_laid_in_after_the_plan_serve_it(client, owner, hare, django_capture_on_commit_callbacks):
    """What was wanted, and the making in hand that wants it, go to what came, under whatever name it lies on the shelf."""
    project = planned(owner, hare, 3)
    making = begin_making(owner, project.pk)
    assert need(project).item.name == "eyes" and need(project).promised == 0
    with django_capture_on_commit_callbacks(execute=True):
        lot = make.notion_lot(owner, "the black ones", "5")
    assert (need(project).item_id, need(project).p50, need(project).promised) == (lot.item_id, 6, 5)
    assert not Item.objects.filter(name="eyes").exists(), "nobody wants those any more"
    thing = MakingThing.objects.get(making=making)
    assert (thing.item_id, thing.need, thing.amount) == (lot.item_id, need(project).pk, 2)
    assert post(client, f"bench/thing/{thing.pk}/take/").status_code in (200, 302)
    assert lot_now(lot) == 3
    assert need(project).left == 4
    with django_capture_on_commit_callbacks(execute=True):
        other = make.notion_lot(owner, "big ones", "50")
        Item.objects.filter(pk=other.item_id).update(size_mm=7)
        Item.objects.filter(pk=lot.item_id).update(size_mm=9)
        post(client, f"stash/notions/{other.item_id}/", size="4")
    assert {row.item_id: row.p50 for row in open_needs(owner.studio, project=project, item__notion="eyes")} == {
        other.item_id: 4, lot.item_id: 2,
    }, "what is not begun takes those that fit now, what was taken stays"  # fmt: skip


def test_wire_is_needed_by_length_and_pipe_cleaners_by_the_piece(client, owner, hare):
    cleaners = make.notion_lot(owner, "grey stems", "5", notion="pipe_cleaner")
    Item.objects.filter(pk=cleaners.item_id).update(size_mm=None)
    post(client, f"figures/{hare.pk}/part/body/wire/", gauge="1", bare="13")
    project = planned(owner, hare, 3)
    a_figure = need(project, "wire").p50 / 3
    assert a_figure > 40
    assert need(project, "wire").item.unit == "mm"
    from wembit.web.figures.models import Part

    Part.objects.filter(key="body").update(armature={"gauge_mm": 1.0, "kind": "pipe_cleaner"})
    post(client, f"figures/{hare.pk}/part/eye/", count="2", bead="5")
    assert need(project, "pipe_cleaner").p50 == 1, "three short lengths from one piece"
    makings = [begin_making(owner, project.pk) for _ in range(3)]
    stems = [MakingThing.objects.get(making=making, item=cleaners.item_id).amount for making in makings]
    assert sum(stems) == 1
    assert stems[0] == 1


def test_a_wire_of_another_metal_does_not_serve(client, owner, hare):
    iron = make.notion_lot(owner, "florist wire", "5000", "wire", "mm")
    copper = make.notion_lot(owner, "bell wire", "900", "wire", "mm")
    for lot, metal, coating in ((iron, "iron", "paper"), (copper, "copper", "")):
        post(client, f"stash/notions/{lot.item_id}/", size="1", metal=metal, coating=coating)
    assert "paper-covered iron wire 1 mm" in words(get(client, f"stash/notions/{iron.item_id}/"))
    wired = {"gauge_mm": "1", "bare_mm": "0", "wire_kind": "wire"}
    post(client, f"figures/{hare.pk}/part/body/wire/", metal="copper", **wired)
    assert "copper wire" in words(get(client, f"figures/{hare.pk}/?part=body"))
    project = planned(owner, hare, 2)
    assert need(project, "wire").item == copper.item
    post(client, f"figures/{hare.pk}/part/body/wire/", metal="brass", coating="lacquer", **wired)
    wanted = need(project, "wire").item
    assert (wanted.name, wanted.told) == ("lacquered brass wire", {"metal": "brass", "coating": "lacquer"})
    assert need(project, "wire").promised == 0
    post(client, f"figures/{hare.pk}/part/body/wire/", metal="brass", coating="lacquer", **wired)
    assert need(project, "wire").item == wanted, "the same one is wanted again"
    answer = post(client, f"figures/{hare.pk}/part/body/wire/", metal="gold", **wired)
    assert "Choose the metal from the list" in told(answer)


def test_the_list_of_a_project_counts_all_its_makings_and_what_is_promised_to_it(client, owner, hare, eyes):
    project = planned(owner, hare, 3)
    page = words(get(client, f"plan/{project.pk}/list/"))
    row = next(r for r in re.split(r"(?=\beyes, 4 mm eye)", page) if r.startswith("eyes, 4 mm eye"))
    assert "6 pieces" in row
    assert "7 pieces" in row
    assert "too few" not in row
    planned(owner, hare, 1)
    other = words(get(client, f"figures/{hare.pk}/list/"))
    assert "too few" in other, "of the others' eyes none is free"


def test_eyes_are_taken_in_one_press_put_back_and_taken_again(client, owner, hare, eyes):
    project = planned(owner, hare, 1)
    making = begin_making(owner, project.pk)
    thing = MakingThing.objects.get(making=making)
    assert "2 pieces black eyes" in words(get(client, f"bench/{making.pk}/"))
    key = "one-press"
    for _ in range(2):
        assert post(client, f"bench/thing/{thing.pk}/take/", key=key).status_code == 302
    assert lot_now(eyes) == 5
    assert need(project).left == 0
    assert not Promise.objects.filter(lot=eyes).exists()
    assert "taken already" in told(post(client, f"bench/thing/{thing.pk}/take/"))
    post(client, f"bench/thing/{thing.pk}/back/")
    assert lot_now(eyes) == 7
    assert need(project).left == 2
    post(client, f"bench/thing/{thing.pk}/take/")
    post(client, "undo/")
    assert lot_now(eyes) == 7
    assert "Take" in words(get(client, f"bench/{making.pk}/"))


def test_what_is_promised_to_another_is_not_taken(client, owner, hare, eyes):
    planned(owner, hare, 3)
    late = planned(owner, hare, 1)
    thing = MakingThing.objects.get(making=begin_making(owner, late.pk))
    answer = told(post(client, f"bench/thing/{thing.pk}/take/"))
    assert "1 piece free" in answer
    assert "2 pieces" in answer
    assert lot_now(eyes) == 7


# --- finishing settles what was not weighed -------------------------------------------------------------------------


@shared
def making(owner, hare, eyes) -> Making:
    return begin_making(owner, planned(owner, hare, 1).pk)


def layers(making):
    return list(PieceLayer.objects.filter(piece__making=making).order_by("piece__position", "position"))


def test_what_was_not_weighed_is_asked_once_and_booked_as_planned(client, owner, making, eyes):
    fawn = Movement.objects.get(lot__item__name="fawn").lot
    first, *rest = layers(making)
    post(client, f"bench/layer/{first.pk}/take/", lot=str(fawn.pk), amount="5")
    answer = post(client, f"bench/{making.pk}/finish/")
    assert "what was not weighed" in told(answer)
    page = words(answer.content.decode())
    assert "Not weighed:" in page
    assert "black eyes" in page
    planned_g = sum(D(str(round(layer.rule_g * layer.bias, 3))) for layer in rest)
    post(client, f"bench/{making.pk}/finish/", unweighed="planned")
    making.refresh_from_db()
    assert making.finished_at
    assert lot_now(fawn) == 200 - 5 - planned_g
    assert lot_now(eyes) == 5
    assert not Promise.objects.exists()
    for layer in rest:
        assert -layer.takes.get().movement.amount == pytest.approx(D(str(layer.rule_g * layer.bias)), abs=D("0.0006"))
    post(client, "undo/")
    making.refresh_from_db()
    assert making.finished_at is None, "first the finish"
    assert lot_now(fawn) < 195
    post(client, "undo/")
    assert lot_now(fawn) == 195, "then what it booked"


def test_the_figures_weight_is_shared_out_over_what_was_not_weighed(client, owner, making, eyes):
    fawn = Movement.objects.get(lot__item__name="fawn").lot
    first, *rest = layers(making)
    post(client, f"bench/layer/{first.pk}/take/", lot=str(fawn.pk), amount="5")
    assert "what the figure weighs" in told(post(client, f"bench/{making.pk}/finish/", unweighed="weighed"))
    assert "more than that" in told(post(client, f"bench/{making.pk}/finish/", unweighed="weighed", figure_g="4"))
    post(client, f"bench/{making.pk}/finish/", unweighed="weighed", figure_g="17.503")
    assert lot_now(fawn) == D("182.497"), "not a thousandth is lost"
    grams = [-layer.takes.get().movement.amount for layer in rest]
    assert sum(grams) == D("12.503")
    rules = [layer.rule_g for layer in rest]
    assert grams == [pytest.approx(D(str(12.5 * rule / sum(rules))), abs=D("0.01")) for rule in rules]


def test_nothing_was_used_frees_what_was_planned(client, making, eyes):
    post(client, f"bench/{making.pk}/finish/", unweighed="nothing")
    assert Movement.objects.filter(kind="pulled").count() == 0
    assert not Promise.objects.exists()
    assert lot_now(eyes) == 7


def test_a_book_that_holds_too_little_says_which_bag_to_weigh(client, owner, making):
    fawn = Movement.objects.get(lot__item__name="fawn").lot
    pull(owner, fawn.pk, D(199), press=make.press())
    answer = told(post(client, f"bench/{making.pk}/finish/", unweighed="planned"))
    assert "fawn: 1 g in the book" in answer
    making.refresh_from_db()
    assert making.finished_at is None
    assert lot_now(fawn) == 1


def test_enough_frees_the_rest_of_a_layer_and_can_be_unsaid(client, owner, making):
    fawn = Movement.objects.get(lot__item__name="fawn").lot
    layer = layers(making)[0]
    before = need(making.project, "").left
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(fawn.pk), amount="1")
    planned_g = D(str(round(layer.rule_g * layer.bias, 3)))
    assert "Enough: free them" in get(client, f"bench/{making.pk}/?layer={layer.pk}")
    post(client, f"bench/layer/{layer.pk}/enough/")
    assert need(making.project, "").left == pytest.approx(before - planned_g, abs=D("0.001"))
    assert need(making.project, "").left == need(making.project, "").promised
    assert "Nothing more is planned" in told(post(client, f"bench/layer/{layer.pk}/enough/"))
    post(client, f"bench/layer/{layer.pk}/more/")
    assert need(making.project, "").left == pytest.approx(before - 1, abs=D("0.001"))
    assert "planned already" in told(post(client, f"bench/layer/{layer.pk}/more/"))


def test_a_making_begun_by_mistake_is_taken_back(client, owner, hare, making):
    fawn = Movement.objects.get(lot__item__name="fawn").lot
    assert hare.versions.get().frozen_at
    assert "Begun by mistake" in get(client, f"bench/{making.pk}/")
    layer = layers(making)[0]
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(fawn.pk), amount="1")
    assert "Begun by mistake" not in get(client, f"bench/{making.pk}/")
    assert "ledger remembers" in words(post(client, f"bench/{making.pk}/not-begun/", follow=True).content.decode())
    other = begin_making(owner, planned(owner, hare, 2).pk)
    later = begin_making(owner, other.project_id)
    assert "later one" in words(post(client, f"bench/{other.pk}/not-begun/", follow=True).content.decode())
    post(client, f"bench/{later.pk}/not-begun/")
    post(client, f"bench/{other.pk}/not-begun/")
    assert list(Making.objects.all()) == [making]


def test_eyes_have_a_colour_and_black_ones_do_not_serve_for_amber(client, owner, hare, eyes):
    post(client, f"figures/{hare.pk}/part/eye/", bead_srgb="#c08030")
    assert 'fill="#c08030"' in get(client, f"figures/{hare.pk}/"), "drawn in it"
    eyes.srgb = "#16181a"
    eyes.save()
    lot = make.notion_lot(owner, "amber eyes", "4")
    lot.srgb = "#b87a2c"
    lot.save()
    project = planned(owner, hare, 1)
    assert need(project).item.name == "amber eyes"
    post(client, f"figures/{hare.pk}/part/eye/", bead_srgb="#3060c0")
    assert need(project).item.name == "blue eyes", "nobody has blue ones"
    assert "none" in words(get(client, f"figures/{hare.pk}/list/"))
    post(client, f"figures/{hare.pk}/part/eye/", bead_srgb="#16181a")
    assert need(project).item.name in ("black eyes", "amber eyes"), "untold, any will do"
    assert "bead_srgb" in get(client, f"figures/{hare.pk}/?part=eye")
    file = client.get(f"{client.base}figures/{hare.pk}/json/").json()
    assert next(part for part in file["parts"] if part["key"] == "eye")["seat"]["bead_srgb"] == ""
