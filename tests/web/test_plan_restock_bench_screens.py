"""From the plan over the order to the bench, as a maker works it; every number followed from one place to the next."""

import datetime as dt
import math
import re
import uuid
from decimal import Decimal as D

import pytest
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from tests.web.test_stash_screens import photo
from wembit.web import clock
from wembit.web.bench.models import Making, Piece, PieceLayer, Take
from wembit.web.figures.queries import colourway_of, newest_version
from wembit.web.plan.models import Need, Project
from wembit.web.restock.models import ARRIVED, Offer, Order, OrderLine, Supplier
from wembit.web.restock.queries import tide_lines
from wembit.web.stash.models import Entry, Lot, Movement, Promise


def day(studio, ahead: int) -> str:
    return (clock.today(studio) + dt.timedelta(ahead)).isoformat()


@shared
def moss(owner):
    return make.lot(owner, "moss", "4", drawer="B1")


@shared
def figure(owner, moss):
    """A ball right through in moss: about 2 g of it."""
    return make.figure(owner, "Pebble", fibre=moss)


@shared
def way(figure):
    return str(colourway_of(newest_version(figure)).pk)


# --- plan


def test_a_plan_says_what_it_needs_what_is_promised_and_what_is_short(client, owner, studio, way, moss):
    given = {"colourway": way, "count": "4", "due": day(studio, 30), "name": "Market day"}
    page = text(post(client, "plan/new/", follow=True, **given))
    project = Project.objects.get()
    assert project.start == clock.today(studio) + dt.timedelta(16)
    need, promise = Need.objects.get(), Promise.objects.get()
    assert need.p10 < need.p50 < need.p90
    assert promise.amount == 4
    short = need.p50 - 4
    assert short > 0
    assert "Short:" in page
    assert f"{short:.2f}".rstrip("0") in page
    assert "drawer B1" in page
    assert "Market day" in get(client, "plan/")
    assert "Market day" in get(client)
    pull = get(client, f"plan/{project.pk}/pull-list/")
    assert "B1" in pull
    assert "short" in pull
    assert "moss" in pull


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"due": "2020-01-01"}, "lies behind"),
        ({"due": "soon"}, "Write a day"),
        ({"due": ""}, "Choose a day"),
        ({"due": "2999-01-01"}, "ten years"),
        ({"count": "0"}, "1"),
        ({"count": "-2"}, "1"),
        ({"count": "100000"}, "500"),
        ({"count": "three"}, "whole number"),
        ({"start": "2099-02-01"}, "start"),
        ({"colourway": ""}, "Choose"),
    ],
)
def test_a_plan_that_cannot_be_made_is_told_and_kept(client, studio, way, given, said):
    whole = {"colourway": way, "count": "4", "due": day(studio, 30), "name": "Market day", **given}
    answer = post(client, "plan/new/", **whole)
    assert said in told(answer)
    assert 'value="Market day"' in text(answer)
    assert f'value="{whole["count"]}"' in text(answer)
    assert not Project.objects.exists()


def test_a_changed_number_changes_needs_and_promises(client, owner, studio, figure, moss):
    project = make.project(owner, figure, count=4)
    before = Need.objects.get().p50
    given = {"name": "Market", "count": "2", "start": day(studio, 2), "due": day(studio, 20)}
    assert post(client, f"plan/{project.pk}/change/", **given).status_code == 302
    assert Need.objects.get().p50 == pytest.approx(before / 2, abs=D("0.01"))
    assert "lies behind" in told(post(client, f"plan/{project.pk}/change/", **{**given, "due": day(studio, -3)}))
    assert "start after it is due" in told(
        post(client, f"plan/{project.pk}/change/", **{**given, "start": day(studio, 21)})
    )
    assert "a whole number from 1 to 500" in told(
        post(client, f"plan/{project.pk}/change/", **{**given, "count": "501"})
    )
    post(client, f"plan/{project.pk}/drop/")
    assert not Promise.objects.exists()
    assert Project.objects.get().state == "dropped"


def test_the_earlier_project_gets_the_bag_and_the_later_one_is_short(client, owner, figure, moss):
    late = make.project(owner, figure, count=1, days=40, name="Later")
    early = make.project(owner, figure, count=1, days=10, name="Sooner")
    assert set(Promise.objects.values_list("whose", flat=True)) >= {"Sooner"}
    assert "All that it needs is promised" in get(client, f"plan/{early.pk}/")
    assert "Short:" in get(client, f"plan/{late.pk}/")


def test_a_late_project_is_late_on_its_page_and_in_the_piece_that_takes_its_place(client, owner, figure):
    project = make.project(owner, figure, days=1)
    gone = clock.today(owner.studio) - dt.timedelta(3)
    Project.objects.update(start=gone, due=gone)
    for headers in ({}, {"HX-Request": "true"}):
        assert ", <b>late</b>" in get(client, f"plan/{project.pk}/", headers=headers)


# --- restock


@shared
def short(owner, figure, moss):
    make.offer(owner, moss.item, "10", "1.60", lead=11)
    make.offer(owner, moss.item, "25", "2.60", lead=11)
    return make.project(owner, figure, count=4, days=30, start=20, name="Market day")


def test_a_shortage_has_a_date_an_order_by_date_packs_and_a_cost(client, studio, short, moss):
    tide = tide_lines(studio)[0]
    assert tide.outlook.runs_out == short.start
    assert short.start - tide.outlook.order_by == dt.timedelta(11)
    page = get(client, f"restock/item/{moss.item_id}/")
    assert "Order by" in page
    assert "Market day" in page
    assert "11 days" in page
    middle = -min(each.grams for each in tide.steps(clock.today(studio)))
    assert tide.outlook.order_g > middle, "with what is left to chance nine times in ten"
    assert [(float(offer.pack), count) for offer, count in tide.packs] == [(25.0, 1)]
    assert f"{tide.packs[0][0].price} EUR" in words(page)
    assert "moss" in get(client)
    assert "order 1 by" in get(client, "plan/")


def listed(client, moss, **packs):
    offers = {float(offer.pack): offer for offer in Offer.objects.all()}
    given = {f"pack_{offers[float(size[1:])].pk}": count for size, count in packs.items()}
    return post(client, "restock/list/", item=str(moss.item_id), **given)


def test_list_order_arrival_and_the_shortage_is_gone(client, owner, studio, short, moss):
    assert listed(client, moss, p25="1").status_code == 302
    assert "25 g on the list" in words(get(client, "restock/"))
    assert "a list to send" in get(client, "plan/")
    order = Order.objects.get()
    assert post(client, f"restock/order/{order.pk}/send/").status_code == 302
    order.refresh_from_db()
    assert order.expected_on == clock.today(studio) + dt.timedelta(11)
    again = post(client, f"restock/order/{order.pk}/send/", follow=True)
    assert "sent already" in text(again)
    assert "nothing to order" in get(client, "plan/")
    assert tide_lines(studio)[0].outlook.runs_out is None, "what is on the way holds it"
    given = {"amount_0": "25", "dye_lot_0": "M-77", "drawer_0": "B1"}
    assert post(client, f"restock/order/{order.pk}/arrival/", **given).status_code == 302
    order.refresh_from_db()
    assert order.state == ARRIVED
    assert Lot.objects.get(dye_lot="M-77").on_hand == 25
    assert tide_lines(studio)[0].outlook.runs_out is None
    assert "All that it needs is promised" in get(client, f"plan/{short.pk}/")
    assert post(client, f"restock/order/{order.pk}/arrival/", **given).status_code == 422


def test_a_parcel_taken_back_is_on_its_way_again(client, owner, studio, short, moss):
    listed(client, moss, p10="1")
    order = Order.objects.get()
    post(client, f"restock/order/{order.pk}/send/")
    post(client, f"restock/order/{order.pk}/arrival/", amount_0="10", dye_lot_0="M-77")
    assert "It has come" not in get(client, "restock/")
    post(client, "undo/")
    assert Lot.objects.get(dye_lot="M-77").on_hand == 0
    assert "It has come" in get(client, "restock/")


def test_a_short_delivery_is_entered_as_it_came(client, studio, short, moss):
    listed(client, moss, p10="1")
    order = Order.objects.get()
    post(client, f"restock/order/{order.pk}/send/", expected=day(studio, 5))
    assert "below nothing" in told(
        post(client, f"restock/order/{order.pk}/arrival/", amount_0="-1", dye_lot_0="keep me")
    )
    assert "keep me" in text(post(client, f"restock/order/{order.pk}/arrival/", amount_0="-1", dye_lot_0="keep me"))
    post(client, f"restock/order/{order.pk}/arrival/", amount_0="1,5")
    assert Lot.objects.filter(item=moss.item).latest("made_at").on_hand == D("1.5")
    assert tide_lines(studio)[0].outlook.runs_out == short.start


@pytest.mark.parametrize("count", ["-1", "many", "1.5", "0", "4000"])
def test_packs_that_cannot_be_listed_are_told_and_kept(client, short, moss, count):
    answer = listed(client, moss, p10=count)
    assert told(answer)
    assert f'value="{count}"' in text(answer)
    assert not OrderLine.objects.exists()


def test_a_line_comes_off_the_list(client, short, moss):
    listed(client, moss, p10="1")
    listed(client, moss, p10="2", p25="1")
    assert sorted(OrderLine.objects.values_list("pack", "count")) == [(10, 3), (25, 1)]
    post(client, f"restock/list/{OrderLine.objects.get(count=3).pk}/off/")
    assert OrderLine.objects.get().pack == 25


def test_an_owner_keeps_suppliers_and_packs(client, owner, moss):
    assert post(client, "restock/suppliers/new/", name="Spindle", lead_days="9", postage="3,20").status_code == 302
    spindle = Supplier.objects.get()
    assert (spindle.lead_days, spindle.postage) == (9, D("3.20"))
    given = {"item": str(moss.item_id), "pack": "50", "price": "4.90"}
    assert post(client, f"restock/suppliers/{spindle.pk}/offer/", **given).status_code == 302
    post(client, f"restock/suppliers/{spindle.pk}/offer/", **{**given, "price": "5"})
    assert Offer.objects.get().price == 5
    page = get(client, f"restock/suppliers/?supplier={spindle.pk}")
    assert 'value="Spindle"' in page
    assert "50 g 5.00 EUR" in words(page)
    assert f'width="{math.sqrt(50 * 26):.1f}"' in page, "as large as the bag it becomes on the shelf"
    wrongs = [("pack", "0", "more than nothing"), ("pack", "x", "Write"), ("price", "cheap", "Write the price")]
    for field, wrong, said in wrongs:
        answer = post(client, f"restock/suppliers/{spindle.pk}/offer/", **{**given, field: wrong})
        assert said in told(answer)
        assert f'value="{wrong}"' in text(answer)
    post(client, f"restock/suppliers/{spindle.pk}/", name="Spindle", lead_days="4", postage="0")
    assert Supplier.objects.get().lead_days == 4
    for wrong in ({"lead_days": "soon"}, {"lead_days": "-1"}, {"postage": "-3"}, {"name": ""}):
        assert told(
            post(client, "restock/suppliers/new/", **{"name": "Other", "lead_days": "3", "postage": "0", **wrong})
        )
    assert "already" in told(post(client, "restock/suppliers/new/", name="Spindle", lead_days="3", postage="0"))


# --- bench


@shared
def making(maker, owner, figure):
    project = make.project(owner, figure, count=1, name="Gift")
    post(maker, f"bench/begin/{project.pk}/")
    return Making.objects.get()


@shared
def layer(making):
    return PieceLayer.objects.get()


def held(client) -> str:
    return re.search(r'id="live-3"[^>]*>([^<]+)<', get(client, "strip/"))[1]


def ask(client, making) -> str:
    page = get(client, f"bench/{making.pk}/")
    return re.search(r'name="amount"[^>]*?value="([^"]+)"', page)[1]


def test_one_press_takes_what_is_asked_for_and_the_shelf_shrinks(client, making, layer, moss):
    amount = ask(client, making)
    need = Need.objects.get()
    assert float(amount) == pytest.approx(float(need.p50), abs=0.01)
    assert "cm of moss" in get(client, f"bench/{making.pk}/")
    address, before = f"bench/layer/{layer.pk}/take/", held(client)
    answer = client.post(
        client.base + address, {"key": "k", "lot": str(moss.pk), "amount": amount}, headers={"HX-Request": "true"}
    )
    assert answer.status_code == 200
    assert "<html" not in text(answer)
    assert "taken" in text(answer)
    assert answer.headers["HX-Trigger"] == '{"pressed": {}}'
    assert held(client) != before
    moss.refresh_from_db()
    assert moss.on_hand == 4 - D(amount)
    assert not Promise.objects.filter(amount__gt=D("0.02")).exists()
    assert Piece.objects.get().state == "weighed"
    assert Take.objects.get().layer == layer
    assert "All its wool is taken" in get(client, f"bench/{making.pk}/")


def test_a_bag_that_does_not_hold_enough_leads_to_what_can_stand_in(client, owner, making, layer, moss):
    post(client, f"stash/lot/{moss.pk}/weigh/", amount="0.3")
    page = get(client, f"bench/{making.pk}/")
    assert "not enough" in words(page)
    assert f"restock/project/{making.project_id}/{layer.item_id}/" in page


def test_the_same_press_after_a_new_sign_in_takes_once(client, owner, making, layer, moss):
    given = {"key": str(uuid.uuid4()), "lot": str(moss.pk), "amount": "1.5", "happened_at": clock.now().isoformat()}
    address = f"bench/layer/{layer.pk}/take/"
    signed_out = Client()
    assert signed_out.post(client.base + address, given).url.startswith("/sign-in/")
    assert post(client, address, **given).status_code == 302
    assert post(signed_in(owner), address, **given).status_code == 302
    moss.refresh_from_db()
    assert moss.on_hand == D("2.5")
    assert Entry.objects.filter(client_key=given["key"]).count() == 1


@pytest.mark.parametrize(
    ("amount", "said"),
    [
        ("", "Write how much"),
        ("-1", "below nothing"),
        ("0", "more than nothing"),
        ("7,5,1", "Write"),
        ("5", "weigh the bag again"),
    ],
)
def test_what_cannot_be_taken_is_told_and_kept(client, layer, moss, amount, said):
    answer = post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount=amount)
    assert said in told(answer)
    assert f'value="{amount}"' in text(answer)
    moss.refresh_from_db()
    assert moss.on_hand == 4


def test_wool_of_another_kind_or_promised_to_another_is_asked_about(client, owner, figure, layer, moss):
    other = make.lot(owner, "pine")
    assert "no moss" in text(post(client, f"bench/layer/{layer.pk}/take/", lot=str(other.pk), amount="1"))
    make.project(owner, figure, count=1, name="Sooner", days=3)
    answer = post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount="3")
    assert "promised to Sooner" in told(answer)
    assert post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount="3", anyway="1").status_code == 302


def test_too_much_goes_back_and_a_wrong_press_is_taken_back(client, making, layer, moss):
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount="3")
    post(client, f"bench/layer/{layer.pk}/back/", lot=str(moss.pk), amount="1")
    moss.refresh_from_db()
    assert moss.on_hand == 2
    assert "2 g taken" in words(get(client, f"bench/{making.pk}/"))
    post(client, "undo/")
    moss.refresh_from_db()
    assert moss.on_hand == 1
    assert "3 g taken" in words(get(client, f"bench/{making.pk}/"))
    assert Movement.objects.filter(lot=moss).count() == 4, "the book is read back, never edited"


def test_a_piece_goes_its_way_and_the_making_is_finished_with_a_picture(client, making, layer, moss):
    piece = Piece.objects.get()
    for state in ("made", "waiting", "fitted"):
        assert post(client, f"bench/piece/{piece.pk}/mark/", state=state).status_code == 302
        assert Piece.objects.get().state == state
    assert "Choose how far" in text(post(client, f"bench/piece/{piece.pk}/mark/", state="eaten", follow=True))
    assert "what was not weighed" in told(post(client, f"bench/{making.pk}/finish/"))
    post(client, f"bench/{making.pk}/finish/", photo=photo(), unweighed="nothing")
    making.refresh_from_db()
    assert making.finished_at
    assert making.photo
    assert making.project.state == "done"
    assert not Promise.objects.exists()
    assert "Finished lately" in get(client, "bench/")
    assert f"bench/{making.pk}/" in get(client, "bench/")
    assert "Choose a picture first" in told(post(client, f"bench/{making.pk}/picture/"))
    old = making.photo.name
    assert post(client, f"bench/{making.pk}/picture/", photo=photo()).status_code == 302
    making.refresh_from_db()
    assert making.photo.name != old
    assert making.photo.name.rpartition("/")[2] in get(client, f"bench/{making.pk}/")
    answer = post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount="1")
    assert "finished" in told(answer)
    assert "finished already" in text(post(client, f"bench/{making.pk}/finish/", follow=True))


def test_no_more_are_begun_than_are_planned(client, making):
    answer = post(client, f"bench/begin/{making.project_id}/", follow=True)
    assert "All 1 are begun" in text(answer)
    assert Making.objects.count() == 1


def test_today_leads_from_one_thing_to_the_next(client, owner, studio, short, moss):
    page = get(client)
    assert f"restock/item/{moss.item_id}/" in page
    assert f"plan/{short.pk}/" in page
    post(client, f"bench/begin/{short.pk}/")
    assert f"bench/{Making.objects.get().pk}/" in get(client)


def test_a_seen_wool_from_two_dye_lots_says_which_figure_gets_which(client, owner, figure, moss):
    page = make.project(owner, figure, count=1, name="One lot")
    assert "Which gets which" not in get(client, f"plan/{page.pk}/")
    each = float(page.needs.get().p50)
    other = make.lot(owner, "moss", f"{each * 2.2:.2f}", dye_lot="B7")
    moss_now = float(Lot.objects.get(pk=moss.pk).on_hand)
    count = int((moss_now - each) / each) + 3
    project = make.project(owner, figure, count=count, name="Many")
    said = words(get(client, f"plan/{project.pk}/"))
    assert other.item_id == moss.item_id
    assert re.search(r"Which gets which: .*B7 for \d", said)


def test_half_the_bag_is_taken_on_the_shelf_and_at_the_bench_and_understood_while_it_is_written(
    client, making, layer, moss
):
    def said(lot) -> str:
        return words(
            get(
                client,
                "understood/",
                data={"name": "amount", "amount": "half the bag", "measure": "weight", "lot": lot},
            )
        )

    assert "2 g" in said(moss.pk)
    assert "Nobody knows" in said("x")
    other = make.lot(make.studio_owner("Elsewhere", "other"), "theirs", "90")
    assert "Nobody knows" in said(other.pk), "another studio's bag is not there"
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount="a quarter of the bag", shown="0")
    assert Lot.objects.get(pk=moss.pk).on_hand == 3
    post(client, f"stash/lot/{moss.pk}/take/", amount="half a bag", anyway="1")
    assert Lot.objects.get(pk=moss.pk).on_hand == D("1.5")
