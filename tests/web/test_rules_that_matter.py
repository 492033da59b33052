"""Rules of the actions, each of which could be dropped without a test noticing once."""

import datetime as dt
import uuid
from dataclasses import replace
from decimal import Decimal as D

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.http import Http404
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, told
from tests.web.shared import shared
from wembit.core.grams.relations import Relation
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.finish_making import finish_making
from wembit.web.bench.actions.give_back import give_back
from wembit.web.bench.actions.take import take
from wembit.web.bench.models import Piece, PieceLayer
from wembit.web.errors import Refusal
from wembit.web.figures.actions.change_order import move_step
from wembit.web.figures.actions.change_part import change_part
from wembit.web.figures.actions.copy_figure import copy_figure
from wembit.web.figures.actions.follow_part import follow_part
from wembit.web.figures.actions.nudge_part import Push, nudge_part
from wembit.web.figures.actions.tell_origin import tell_origin
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.plan.actions.close_project import drop_project
from wembit.web.plan.actions.stand_in import makings_left
from wembit.web.plan.models import Need, Project
from wembit.web.plan.queries import open_needs
from wembit.web.restock.actions.accept_answer import use_instead
from wembit.web.restock.actions.keep_offer import keep_offer
from wembit.web.restock.actions.put_on_list import put_on_list
from wembit.web.restock.actions.receive_order import receive_order
from wembit.web.restock.actions.send_order import send_order
from wembit.web.restock.models import Order, OrderLine
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.receive import Parcel
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.split import split
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.ledger import EntryDraft, Line, Press, book_at
from wembit.web.stash.models import DISCARDED, Entry, Item, Lot, Promise, StashFile
from wembit.web.studio.actions.found_studio import found_studio
from wembit.web.studio.actions.make_link import make_password_link
from wembit.web.studio.models import Link, Member


@shared
def moss(owner):
    return make.lot(owner, "moss", "100")


@shared
def project(owner, moss):
    return make.project(owner, make.figure(owner, fibre=moss), count=2)


def layer_of(making) -> PieceLayer:
    return PieceLayer.objects.get(piece__making=making)


def need_of(project) -> Need:
    (need,) = open_needs(project.studio, project=project)
    return need


# --- the bench ------------------------------------------------------------------------------------------------------


def test_what_a_finished_making_did_not_take_is_free_again(owner, project, moss):
    before = need_of(project)
    making = begin_making(owner, project.pk)
    take(owner, layer_of(making).pk, moss.pk, D("1"), press=make.press())
    finish_making(owner, making.pk, press=make.press())
    after = need_of(project)
    assert after.taken == 1
    assert after.left == pytest.approx(before.p50 / 2, abs=D("0.002"))
    assert after.promised == after.left


def test_a_project_is_done_when_the_last_of_all_is_finished_and_not_before(owner, project):
    finish_making(owner, begin_making(owner, project.pk).pk, press=make.press(), unweighed="nothing")
    assert Project.objects.get(pk=project.pk).state == "planned"
    finish_making(owner, begin_making(owner, project.pk).pk, press=make.press(), unweighed="nothing")
    assert Project.objects.get(pk=project.pk).state == "done"
    with pytest.raises(Refusal, match="closed"):
        begin_making(owner, project.pk)


def test_a_pair_takes_its_wool_in_equal_halves(owner, moss):
    figure = make.figure(owner, fibre=moss)
    change_part(owner, figure.pk, "ball", {"count": 2})
    project = make.project(owner, figure)
    making = begin_making(owner, project.pk)
    rules = list(PieceLayer.objects.filter(piece__making=making).values_list("rule_g", flat=True))
    assert len(rules) == 2
    assert rules[0] == rules[1]
    assert sum(rules) == pytest.approx(float(need_of(project).p50), abs=1e-3)


def test_no_more_goes_back_than_was_taken(owner, project, moss):
    layer = layer_of(begin_making(owner, project.pk))
    take(owner, layer.pk, moss.pk, D("2"), press=make.press())
    with pytest.raises(Refusal, match="Only 2 g"):
        give_back(owner, layer.pk, moss.pk, D("2.001"), press=make.press())
    give_back(owner, layer.pk, moss.pk, D("2"), press=make.press())
    assert need_of(project).taken == 0


def test_taking_weighs_the_piece_and_only_from_its_own_wool_and_while_it_is_made(owner, project, moss):
    making = begin_making(owner, project.pk)
    layer, fog = layer_of(making), make.lot(owner, "fog")
    with pytest.raises(Refusal, match="no moss"):
        take(owner, layer.pk, fog.pk, D("1"), press=make.press())
    assert Piece.objects.get(making=making).state == "planned"
    take(owner, layer.pk, moss.pk, D("1"), press=make.press())
    assert Piece.objects.get(making=making).state == "weighed"
    finish_making(owner, making.pk, press=make.press())
    with pytest.raises(Refusal, match="finished"):
        take(owner, layer.pk, moss.pk, D("1"), press=make.press())


def test_a_stand_in_reaches_the_last_makings_in_hand_and_no_others(owner, project):
    olive = make.lot(owner, "olive", "50", srgb="#7a7a35")
    first, second = begin_making(owner, project.pk), begin_making(owner, project.pk)
    before = layer_of(second).rule_g
    made = use_instead(owner, project.pk, layer_of(first).item_id, olive.item_id, seen=True, count=1, key="k")
    assert layer_of(first).item.name == "moss"
    assert layer_of(second).item.name == "olive"
    assert layer_of(second).rule_g == pytest.approx(before * made.ratio)
    assert Need.objects.get(pk=layer_of(second).need).item.name == "olive"
    again = use_instead(owner, project.pk, layer_of(first).item_id, olive.item_id, seen=True, count=1, key="k")
    assert again.pk == made.pk
    assert layer_of(second).rule_g == pytest.approx(before * made.ratio)


# --- promises -------------------------------------------------------------------------------------------------------


def test_a_promise_stays_with_its_bag_when_a_better_one_comes(owner, project, moss):
    assert {promise.lot_id for promise in Promise.objects.all()} == {moss.pk}
    make.lot(owner, "moss", f"{need_of(project).p50}")
    assert {promise.lot_id for promise in Promise.objects.all()} == {moss.pk}


def test_nothing_is_promised_from_the_waste_nor_to_a_project_given_up(owner, project, moss):
    waste = Lot.objects.create(studio=owner.studio, item=moss.item, waste=True)
    draft = EntryDraft.start(owner, make.press(), "throw", (1,), [moss.item_id])
    draft.commit([Line(moss.pk, DISCARDED, -moss.on_hand), Line(waste.pk, DISCARDED, moss.on_hand)])
    assert not Promise.objects.exists()
    assert need_of(project).promised == 0
    drop_project(owner, project.pk)
    assert not open_needs(owner.studio, project=project)


@pytest.mark.parametrize(("days", "start"), [(28, 14), (14, 0), (5, 0)])
def test_without_a_start_a_project_begins_two_weeks_before_it_is_due_but_not_before_today(owner, days, start):
    today = clock.today(owner.studio)
    project = make.project(owner, days=days)
    assert project.start == today + dt.timedelta(start)


# --- the ledger -----------------------------------------------------------------------------------------------------


def test_a_press_needs_a_key_and_a_moment_that_has_been(owner, moss):
    for key in ("", "x" * 65):
        with pytest.raises(Refusal, match="too old"):
            pull(owner, moss.pk, D("1"), press=Press(key))
    ahead = clock.now() + dt.timedelta(minutes=6)
    with pytest.raises(Refusal, match="lies ahead"):
        pull(owner, moss.pk, D("1"), press=Press("k", ahead))
    pull(owner, moss.pk, D("1"), press=Press("k", clock.now() + dt.timedelta(minutes=4)))


def test_nothing_is_taken_from_the_waste_and_no_bag_holds_a_million(owner, moss):
    waste = Lot.objects.create(studio=owner.studio, item=moss.item, waste=True, on_hand=5)
    draft = EntryDraft.start(owner, make.press(), "take", (1,), [moss.item_id])
    with pytest.raises(Refusal, match="waste"):
        draft.commit([Line(waste.pk, "pulled", D("-1")), Line(moss.pk, "returned", D("1"))])
    with pytest.raises(Http404):
        pull(owner, waste.pk, D("1"), press=make.press())
    with pytest.raises(Refusal, match="more than a studio can hold"):
        recount(owner, moss.pk, D("1000000"), press=make.press())


def test_the_book_at_a_moment_holds_what_had_happened_by_then(owner, moss):
    moment = clock.now()
    pull(owner, moss.pk, D("10"), press=Press("a", moment))
    moss.refresh_from_db()
    assert book_at(moss, moment) == 90
    assert book_at(moss, moment - dt.timedelta(microseconds=1)) == 100


def test_an_older_weighing_changes_nothing_after_a_newer_one(owner, moss):
    now = clock.now()
    recount(owner, moss.pk, D("80"), press=Press("new", now))
    recount(owner, moss.pk, D("50"), press=Press("old", now - dt.timedelta(hours=2)))
    moss.refresh_from_db()
    assert moss.on_hand == 80
    assert moss.recounted_at == now


def test_taking_back_gives_the_need_its_wool_again_and_is_not_taken_back_itself(owner, project, moss):
    layer = layer_of(begin_making(owner, project.pk))
    before = need_of(project)
    take(owner, layer.pk, moss.pk, D("2"), press=make.press())
    entry = undo(owner, press=make.press())
    after = need_of(project)
    assert (after.taken, after.left, after.promised) == (0, before.left, before.promised)
    with pytest.raises(Refusal, match="taking back"):
        undo(owner, press=make.press(), entry_id=entry.pk)


def test_a_split_bag_keeps_its_dye_lot_colour_and_drawer(owner):
    lot = make.lot(owner, "moss", "50", dye_lot="D-7", drawer="B2")
    split(owner, lot.pk, D("20"), press=make.press())
    old, new = Lot.objects.filter(item=lot.item).order_by("made_at")
    assert (new.dye_lot, new.srgb, new.drawer) == ("D-7", lot.srgb, lot.drawer)
    assert (old.on_hand, new.on_hand) == (
        30,
        20,
    )


def test_one_name_in_any_case_is_one_wool(owner, moss):
    make.lot(owner, "Moss", "5")
    assert Item.objects.of(owner.studio).filter(name__iexact="moss").count() == 1


# --- orders ---------------------------------------------------------------------------------------------------------


@shared
def order(owner, moss):
    put_on_list(owner, {make.offer(owner, moss.item).pk: 2})
    return Order.objects.get()


def test_a_line_is_taken_off_a_list_until_it_is_sent(client, owner, order):
    line = OrderLine.objects.get()
    send_order(owner, order.pk)
    assert post(client, f"restock/list/{line.pk}/off/").status_code == 404
    assert OrderLine.objects.filter(pk=line.pk).exists()


def test_a_parcel_comes_once_and_only_of_an_order_that_was_sent(owner, order, moss):
    parcels = [Parcel(moss.item_id, D("100"), "D-1")]
    with pytest.raises(Refusal, match="not on its way"):
        receive_order(owner, order.pk, parcels, press=make.press())
    send_order(owner, order.pk)
    press = make.press()
    for _ in range(2):
        receive_order(owner, order.pk, parcels, press=press)
    assert Entry.objects.filter(verb="received").count() == 1
    assert Lot.objects.filter(dye_lot="D-1").count() == 1


def test_an_item_costs_what_it_costs_in_its_cheapest_pack(owner, moss):
    seller = make.offer(owner, moss.item, pack="50", price="5.00").supplier
    keep_offer(owner, seller.pk, moss.item_id, D("100"), D("8.00"))
    assert Item.objects.get(pk=moss.item_id).unit_cost == D("0.08")
    keep_offer(owner, seller.pk, moss.item_id, D("50"), D("2.00"))
    assert Item.objects.get(pk=moss.item_id).unit_cost == D("0.04")


# --- people ---------------------------------------------------------------------------------------------------------


def test_who_was_shut_out_acts_no_more(owner, studio):
    tove = make.member(studio)
    hers = signed_in(tove)
    assert hers.get(hers.base).status_code == 200
    tove.user.is_active = False
    tove.user.save()
    assert hers.get(hers.base).status_code in (302, 404)


def test_a_link_ends_with_its_day(client, studio):
    link = "/" + get_link(client)
    assert Client().get(link).status_code == 200
    Link.objects.update(expires_at=clock.now() - dt.timedelta(seconds=1))
    assert Client().get(link).status_code == 404


def get_link(client) -> str:
    answer = post(client, "house/invite/", role="maker")
    return answer.content.decode().split("/link/")[1].split("/")[0].join(("link/", "/"))


def test_a_person_of_two_studios_is_left_to_the_command_line(owner, studio):
    tove = make.member(studio)
    Member.objects.create(studio=make.studio_owner("Dune", "ana").studio, user=tove.user, role="maker")
    with pytest.raises(Refusal, match="reset-password tove"):
        make_password_link(owner, tove.pk)
    with pytest.raises(Http404):
        make_password_link(owner, uuid.uuid4())


def test_the_page_says_why_a_bag_cannot_give_so_much(client, owner, moss):
    answer = post(client, f"stash/lot/{moss.pk}/take/", amount="101")
    assert "100 g of moss are left" in told(answer)
    assert "stash" in get(client, "stash/")


def test_names_that_are_taken_get_a_number(owner, client):
    first, second, third = (found_studio(" Salt  grass ", make.user(who)) for who in ("ada", "bea", "cea"))
    assert [studio.slug for studio in (first, second, third)] == ["salt-grass", "salt-grass-2", "salt-grass-3"]
    assert first.name == "Salt grass"
    figure = figure_with(client, "Crab", ("body", "40"), ("leg", "10"), ("leg", "10"), ("leg", "10"))
    assert [part.key for part in parts_of(newest_version(figure))] == ["body", "leg", "leg-2", "leg-3"]
    assert copy_figure(owner, figure.pk, "Crab again").versions.get().number == 1


def test_long_words_are_cut_where_their_column_ends(owner, project):
    figure = project.colourway.version.figure
    tell_origin(owner, figure.pk, kind="own", sale="yes", whom="", credit="c" * 400, safety="s" * 400)
    figure.refresh_from_db()
    assert len(figure.origin["safety"]) == 300


def test_a_step_is_moved_within_the_order(owner, project):
    figure = project.colourway.version.figure
    for step, by, order in (("c", -9, "cabd"), ("a", 1, "bacd"), ("d", 9, "abcd"), ("d", -1, "abdc"), ("x", 1, "abdc")):
        assert "".join(move_step(owner, figure.pk, step, list("abcd"), by).order["first"]) == order


def test_a_part_follows_in_one_way_for_each_size(owner, client):
    figure = figure_with(client, "Hare", ("body", "60"), ("head", "30"))
    wide = Relation("width_mm", "body", "width_mm", 0.5, whole=False)
    for relation in (wide, Relation("height_mm", "body", "height_mm", 0.5, whole=False), replace(wide, share=0.4)):
        part = follow_part(owner, figure.pk, "head", relation)
    assert [(kept["size"], kept["share"]) for kept in part.relations] == [("height_mm", 0.5), ("width_mm", 0.4)]


def test_a_push_turns_and_lifts_what_it_pushes_and_nothing_else(owner, client):
    figure = figure_with(client, "Hare", ("body", "60"), ("head", "30"))
    before = next(part.seat for part in parts_of(newest_version(figure)) if part.key == "head")
    after = nudge_part(owner, figure.pk, "head", Push(pitch=15.0, yaw=-20.0)).seat
    assert after["pitch"] == pytest.approx(before["pitch"] + 15)
    assert after["yaw"] == pytest.approx(before["yaw"] - 20)
    assert (after["t"], after["on"]) == (before["t"], before["on"])
    moved = nudge_part(owner, figure.pk, "head", Push(right_mm=4.0)).seat
    assert moved["t"] != after["t"] or moved.get("angle") != after.get("angle")
    stood = next(part.seat for part in parts_of(newest_version(figure)) if part.key == "body")
    body = nudge_part(owner, figure.pk, "body", Push(up_mm=5.0)).seat
    assert body == {**stood, "centre_mm": pytest.approx(stood["centre_mm"] + 5)}


def test_what_a_table_says_that_is_so_already_writes_nothing(client, owner, moss):
    rows = f"bag,name,form,breed,grams\n{moss.pk},moss,tops,merino,100\n"
    assert (
        client.post(client.base + "stash/files/", {"table": SimpleUploadedFile("a.csv", rows.encode())}).status_code
        == 302
    )
    file = StashFile.objects.get()
    entries = Entry.objects.count()
    post(client, f"stash/files/{file.pk}/go-on/")
    post(client, f"stash/files/{file.pk}/go-on/")
    assert Entry.objects.count() == entries
    file.refresh_from_db()
    assert file.finished_at and file.done == 1


def test_how_many_makings_are_left_of_a_need(project):
    need = next(iter(open_needs(project.studio, project=project)))
    for left, makings in (
        (need.p50, 2),
        (need.p50 * D("0.75"), 2),
        (need.p50 * D("0.5"), 1),
        (need.p50 * D("0.505"), 1),
    ):
        need.left = left
        assert makings_left(need) == makings
