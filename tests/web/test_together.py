"""What is ordered together: two weeks in one order, filled up to its least, within a budget, on the list in one press."""

import datetime as dt
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at
from tests.web.helpers import get, post, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.restock.models import OrderLine, Supplier
from wembit.web.restock.queries import tide_lines
from wembit.web.restock.together import together
from wembit.web.studio.models import VIEWER, Studio


def short(owner, name, start, price="4.00"):
    """A wool that runs out on the day on which its figure is begun."""
    lot = make.lot(owner, name, "1")
    make.offer(owner, lot.item, "200", price, lead=5)
    figure = make.figure(owner, f"Of {name}", 40 + len(name), lot)
    make.project(owner, figure, count=3, days=start + 20, start=start, name=f"For {name}")
    return lot


@shared
def three(owner):
    """Order by: moss in ten days, peat in fifteen, chalk in forty."""
    return [short(owner, "moss", 15), short(owner, "peat", 20, price="6.00"), short(owner, "chalk", 45, price="3.00")]


def asked(owner, budget=None):
    return together(Studio.objects.get(pk=owner.studio_id), budget)


def names(tides):
    return [tide.item.name for tide in tides]


def test_two_weeks_go_together_and_one_postage_is_paid(client, owner, three):
    (order,) = asked(owner)
    assert names(order.lines) == ["moss", "peat"]
    assert order.all == D("10.00") + D("3.20")
    page = words(get(client, "restock/"))
    assert "Order together" in page and "13.20 EUR with one postage" in page


def test_all_of_it_is_on_the_list_in_one_press_and_taken_back_by_z(client, owner, three):
    form_at(get(client, "restock/"), "list/together/").send(client)
    assert sorted(OrderLine.objects.values_list("item__name", "count")) == [("moss", 1), ("peat", 1)]
    assert names([tide for tide in tide_lines(owner.studio) if tide.to_order]) == ["chalk"]
    assert [names(each.lines) for each in asked(owner)] == [["chalk"]], "what is on a list is not asked for again"
    post(client, "undo/")
    assert not OrderLine.objects.exists()


def test_an_order_is_filled_up_to_the_least_it_comes_to(client, owner, three):
    Supplier.objects.update(minimum=D("12.50"))
    (order,) = asked(owner)
    assert names(order.filling) == ["chalk"]
    assert not order.to_minimum
    assert "to fill it up" in words(get(client, "restock/"))
    Supplier.objects.update(minimum=D("20"))
    owner.studio.pressed()
    assert "7.00 EUR are missing to the least" in words(get(client, "restock/"))


def test_a_budget_says_what_it_leaves_short(client, owner, three):
    (order,) = asked(owner, D("8"))
    assert (names(order.lines), names(order.left_out)) == (["moss"], ["peat"])
    page = get(client, "restock/?most=8")
    assert "peat is left short" in words(page)
    form_at(page, "list/together/").send(client)
    assert list(OrderLine.objects.values_list("item__name", flat=True)) == ["moss"]


@pytest.mark.parametrize("most", ["much", "-3", "0", "1e99", "\x00", "9" * 40])
def test_a_budget_that_cannot_be_read_is_none(client, owner, three, most):
    answer = client.get("/s/saltgrass/restock/", {"most": most})
    assert answer.status_code == 200
    assert "13.20" in words(answer.content.decode())


def test_each_supplier_has_an_order_of_its_own(client, owner, three):
    kelp = make.lot(owner, "kelp", "1")
    make.offer(owner, kelp.item, "50", "7.00", lead=3, supplier="Cockle Lane")
    make.project(owner, make.figure(owner, "Of kelp", 50, kelp), count=3, days=40, start=12, name="For kelp")
    assert [(each.supplier.name, names(each.lines)) for each in asked(owner)] == [
        ("Cockle Lane", ["kelp"]),
        ("Marram Wool Shed", ["moss", "peat"]),
    ]


def test_a_viewer_sees_it_and_puts_nothing_on(client, studio, owner, three):
    viewer = signed_in(make.member(studio, VIEWER))
    assert "Order together" in words(get(viewer, "restock/"))
    supplier = Supplier.objects.get()
    assert post(viewer, "restock/list/together/", supplier=str(supplier.pk), most="").status_code == 403
    other = post(client, "restock/list/together/", supplier=str(owner.pk), most="")
    assert other.status_code == 302
    assert "Choose at least one pack" in words(get(client, "restock/"))
    assert clock.today(studio) + dt.timedelta(10) == asked(owner)[0].lines[0].order_by
