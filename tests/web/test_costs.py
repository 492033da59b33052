"""Money: a bag is worth what it cost, a figure costs its wool, things and time, a year of wool is what the ledger says."""

import re
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at
from tests.web.helpers import get, post, told, words
from tests.web.shared import shared
from wembit.web.bench.models import PieceLayer
from wembit.web.costs.figure_cost import figure_cost, made_costs
from wembit.web.costs.worth import use, worth
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure, sums
from wembit.web.restock.models import Order, OrderLine, Supplier
from wembit.web.stash.models import Item, Lot, Movement
from wembit.web.studio.models import MAKER, VIEWER, Studio


@shared
def moss(owner):
    return make.lot(owner, "moss", "40")


@shared
def priced(maker, owner, moss):
    """Moss at 5.00 for 50 g, told by the page's own form."""
    post(maker, "restock/suppliers/new/", name="Marram Wool Shed", lead_days="6", postage="3.20")
    supplier = Supplier.objects.get()
    post(maker, f"restock/suppliers/{supplier.pk}/offer/", item=str(moss.item_id), pack="50", price="5.00")
    return supplier


def studio_of(owner):
    return Studio.objects.get(pk=owner.studio_id)


def test_the_shelf_is_worth_its_grams_at_the_cheapest_pack(client, owner, moss, priced):
    make.lot(owner, "sea", "10")
    assert worth(studio_of(owner)).all == D("4.00")
    page = words(get(client, "costs/"))
    assert "4.00 EUR" in page and "1 without a price" in page and "sea" in page
    post(client, f"restock/suppliers/{priced.pk}/offer/", item=str(moss.item_id), pack="100", price="8.00")
    assert worth(studio_of(owner)).all == D("3.20")


def test_a_bag_that_came_with_an_order_keeps_what_it_cost(client, owner, studio, moss, priced):
    order = Order.objects.create(studio=studio, supplier=priced)
    OrderLine.objects.create(studio=studio, order=order, item=moss.item, pack=25, price="4.00", count=2)
    post(client, f"restock/order/{order.pk}/send/")
    post(client, f"restock/order/{order.pk}/arrival/", amount_0="50", dye_lot_0="7", drawer_0="")
    came = Lot.objects.get(dye_lot="7")
    assert came.unit_cost == D("0.16")
    assert worth(studio_of(owner)).all == D("4.00") + D("8.00")
    post(client, f"stash/lot/{came.pk}/split/", amount="20")
    assert worth(studio_of(owner)).all == D("12.00"), "half a bag costs a gram what the whole one did"
    other = Lot.objects.filter(unit_cost=D("0.16")).exclude(pk=came.pk).get()
    Lot.objects.filter(pk=other.pk).update(unit_cost=D("0.06"))
    post(client, f"stash/lot/{other.pk}/merge/", into=str(came.pk))
    came.refresh_from_db()
    assert came.unit_cost == D("0.12"), "30 g at 16 cents and 20 g at 6"
    post(client, "undo/")
    came.refresh_from_db()
    assert came.unit_cost == D("0.16"), "taken back, the bag costs what it did"
    post(client, "again/")
    came.refresh_from_db()
    assert came.unit_cost == D("0.12")


def test_a_blend_costs_what_its_parts_cost(owner, moss, priced):
    sea = make.lot(owner, "sea", "10")
    Item.objects.filter(pk=sea.item_id).update(unit_cost=D("0.40"))
    blend = make.lot(owner, "tide", "10")
    recipe = [{"item": str(moss.item_id), "parts": 3}, {"item": str(sea.item_id), "parts": 1}]
    Item.objects.filter(pk=blend.item_id).update(recipe=recipe)
    (row,) = [row for row in worth(studio_of(owner)).rows if row.item.name == "tide"]
    assert row.worth == D("1.75"), "(3 × 0.10 + 0.40) / 4 a gram"


def test_a_figure_costs_its_wool_and_its_time_and_is_sold_for_more(client, owner, moss, priced):
    figure = make.figure(owner, "Pebble", fibre=moss, length=60)
    version = newest_version(figure)
    grams = sum(
        need.grams.p50 for need in sums(plan_figure(version, parts_of(version), Palette.of(colourway_of(version))))
    )
    figure.studio = studio_of(owner)
    cost = figure_cost(figure)
    assert float(cost.all) == pytest.approx(grams * 0.10, abs=0.006)
    assert cost.price is None
    assert "nobody has said what an hour is worth" in words(get(client, f"costs/figure/{figure.pk}/"))
    form_at(get(client, "costs/"), "costs/rates/").send(client, rate="12", mark_up="25")
    figure.studio = studio_of(owner)
    cost = figure_cost(figure)
    assert float(cost.time) == pytest.approx(cost.minutes / 60 * 12, abs=0.006)
    assert float(cost.price) == pytest.approx(float(cost.all) * 1.25, abs=0.006)
    page = words(get(client, f"costs/figure/{figure.pk}/"))
    assert f"{cost.price} EUR" in page
    post(client, "undo/")
    figure.studio = studio_of(owner)
    assert figure_cost(figure).price is None


def test_what_has_no_price_is_named_and_not_counted(client, owner, priced):
    figure = make.figure(owner, "Pebble", fibre=make.lot(owner, "sea", "50"))
    assert "Not counted, since nobody knows the price: sea" in words(get(client, f"costs/figure/{figure.pk}/"))


def test_a_making_cost_what_its_bags_did(client, owner, moss, priced):
    figure = make.figure(owner, "Pebble", fibre=moss)
    project = make.project(owner, figure)
    post(client, f"bench/begin/{project.pk}/")
    for layer in PieceLayer.objects.all():
        post(client, f"bench/layer/{layer.pk}/take/", lot=str(moss.pk), amount="3")
    making = PieceLayer.objects.first().piece.making
    Lot.objects.filter(pk=moss.pk).update(unit_cost=D("0.20"))
    assert made_costs(studio_of(owner), figure) == []
    post(client, f"bench/{making.pk}/finish/", how="as planned")
    (made,) = made_costs(studio_of(owner), figure)
    taken = -sum(Movement.objects.filter(take__isnull=False).values_list("amount", flat=True))
    assert made.cost == (taken * D("0.20")).quantize(D("0.01"))
    assert f"{made.cost} EUR" in words(get(client, f"costs/figure/{figure.pk}/"))


def test_a_year_of_wool_is_what_left_the_shelf(client, owner, moss):
    post(client, f"stash/lot/{moss.pk}/take/", amount="7", key="one")
    post(client, f"stash/lot/{moss.pk}/put-back/", amount="2", key="two")
    year = use(studio_of(owner))
    assert len(year.months) == 12
    assert year.months[-1].grams == 5
    assert [piece.name for piece in year.months[-1].pieces] == ["moss"]
    assert year.breeds == [("Merino", D(5))]
    assert sum(month.grams for month in year.months[:-1]) == 0
    assert re.search(r"5\s?g", words(get(client, "costs/")))
    post(client, "undo/")
    assert use(studio_of(owner)).months[-1].grams == 7


@pytest.mark.parametrize(
    ("given", "said"), [({"rate": "much"}, "price"), ({"rate": "-3"}, "price"), ({"mark_up": "2000"}, "percent")]
)
def test_rates_that_cannot_be_are_told(client, owner, given, said):
    answer = post(client, "costs/rates/", **{"rate": "12", "mark_up": "5", **given})
    assert answer.status_code == 422
    assert said in told(answer)
    assert "hour_rate" not in studio_of(owner).habits


@pytest.mark.parametrize("role", [VIEWER, MAKER])
def test_only_an_owner_says_what_work_is_worth(client, studio, owner, moss, role):
    other = signed_in(make.member(studio, role))
    assert post(other, "costs/rates/", rate="1", mark_up="0").status_code == 403
    page = get(other, "costs/")
    assert "an owner does" in words(page)


def test_an_empty_studio_is_shown_where_prices_come_from(client, studio):
    assert "Nothing on the shelf has a price yet" in words(get(client, "costs/"))
