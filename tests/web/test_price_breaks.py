"""Packs that cost less from so many on: kept, chosen, listed and paid at that price in every room."""

import uuid
from decimal import Decimal

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at, forms_of
from tests.web.helpers import get, post, told, words
from tests.web.shared import shared
from wembit.web.restock.models import Offer, OrderLine
from wembit.web.restock.queries import tide_of
from wembit.web.restock.together import together
from wembit.web.stash.models import Item
from wembit.web.studio.models import MAKER, Studio


@shared
def moss(owner):
    return make.lot(owner, "moss", "4")


@shared
def offer(owner, moss):
    return make.offer(owner, moss.item, "25", "2.60")


def page_of(client, offer):
    return get(client, f"restock/suppliers/?supplier={offer.supplier_id}&offer={offer.pk}")


def keep(client, offer, **given):
    """The form of the pack that was picked, as the browser sends it."""
    form = form_at(page_of(client, offer), f"{offer.supplier_id}/offer/")
    return form.send(client, **given)


def breaks(offer):
    return Offer.objects.get(pk=offer.pk).breaks


def test_a_pack_that_is_picked_stands_in_the_form_and_keeps_its_breaks(client, owner, offer):
    assert keep(client, offer, from_1="4", each_1="2.40", from_2="10", each_2="2,10").status_code == 302
    assert breaks(offer) == [(4, Decimal("2.40")), (10, Decimal("2.10"))]
    form = form_at(page_of(client, offer), f"{offer.supplier_id}/offer/")
    shown = {name: form.fields[name] for name in ("item", "pack", "price", "from_1", "each_1", "from_2", "each_2")}
    assert shown == {
        "item": str(offer.item_id), "pack": "25", "price": "2.6", "from_1": "4", "each_1": "2.4", "from_2": "10",
        "each_2": "2.1",
    }  # fmt: skip
    keep(client, offer, price="2.80")
    offer.refresh_from_db()
    assert (offer.price, breaks(offer)) == (Decimal("2.80"), [(4, Decimal("2.40")), (10, Decimal("2.10"))])
    keep(client, offer, from_1="", each_1="", from_2="", each_2="")
    assert breaks(offer) == []
    post(client, "undo/")
    assert len(breaks(offer)) == 2
    assert "from 4 2.40" in words(page_of(client, offer)).replace("\xa0", " ")


def test_a_pack_that_is_only_named_keeps_its_breaks(client, owner, offer):
    keep(client, offer, from_1="4", each_1="2.40")
    form = form_at(get(client, f"restock/suppliers/?supplier={offer.supplier_id}"), f"{offer.supplier_id}/offer/")
    form.send(client, item=str(offer.item_id), pack="25", price="2.50")
    offer.refresh_from_db()
    assert (offer.price, breaks(offer)) == (Decimal("2.50"), [(4, Decimal("2.40"))])
    answer = form.send(client, item=str(offer.item_id), pack="25", price="2.40")
    assert told(answer) == "From 4 packs on each costs less. Check the prices."


def test_a_picked_pack_gets_another_size_and_not_that_of_another(client, owner, moss, offer):
    other = make.offer(owner, moss.item, "50", "4.90")
    assert keep(client, offer, pack="30").status_code == 302
    assert sorted(Offer.objects.values_list("pk", "pack")) == sorted([(offer.pk, Decimal(30)), (other.pk, Decimal(50))])
    assert told(keep(client, offer, pack="50")) == "There is a pack of that size already. Pick that one."
    post(client, "undo/")
    assert Offer.objects.get(pk=offer.pk).pack == 25


@pytest.mark.parametrize(
    ("given", "fault"),
    [
        ({"from_1": "4"}, "Write what each costs then."),
        ({"each_1": "2"}, "Write a whole number of packs, 2 or more."),
        ({"from_1": "1", "each_1": "2"}, "Write a whole number of packs, 2 or more."),
        ({"from_1": "4", "each_1": "2.60"}, "It costs less from so many on. Check both prices."),
        ({"from_1": "4", "each_1": "2", "from_2": "4", "each_2": "1"}, "Write more than 4."),
        (
            {"from_1": "4", "each_1": "2", "from_2": "9", "each_2": "2.2"},
            "It costs less from so many on. Check both prices.",
        ),
        ({"from_1": "4", "each_1": "cheap"}, "Write the price as a number, like 4.90."),
    ],
)
def test_breaks_that_cannot_be_are_told_and_stay(client, owner, offer, given, fault):
    answer = keep(client, offer, **given)
    assert told(answer) == fault
    assert all(f'value="{value}"' in answer.content.decode() for value in given.values())
    assert breaks(offer) == []


def test_the_cheapest_packs_reckon_with_breaks(client, owner, moss, offer):
    """Nine packs would hold it; ten cost less."""
    make.project(owner, make.figure(owner, fibre=moss, length=150), count=3)
    before = tide_of(Studio.objects.get(pk=owner.studio_id), moss.item_id)
    count = before.packs[0][1]
    assert before.packs == [(offer, count)]
    keep(client, offer, from_1=str(count + 1), each_1="2.00")
    after = tide_of(Studio.objects.get(pk=owner.studio_id), moss.item_id)
    assert after.packs == [(offer, count + 1)]
    assert after.outlook.chosen.cost == pytest.approx(2 * (count + 1))
    assert f"from {count + 1} 2.00" in words(get(client, f"restock/item/{moss.item_id}/")).replace("\xa0", " ")
    [order] = together(Studio.objects.get(pk=owner.studio_id))
    assert order.goods == 2 * (count + 1)
    form = form_at(get(client, "restock/"), "list/together/")
    form.send(client)
    line = OrderLine.objects.get()
    assert (line.count, line.price, line.cost) == (count + 1, Decimal("2.00"), Decimal(2 * (count + 1)))


@pytest.mark.parametrize("price", ["2.40 EUR", "€ 2,40", "eur 2.40", "2.40€"])
def test_the_studio_s_own_currency_may_stand_beside_a_price(client, owner, offer, price):
    keep(client, offer, price=price)
    assert Offer.objects.get().price == Decimal("2.40")


@pytest.mark.parametrize("price", ["2.40 GBP", "£2.40", "CHF 2.40", "$ 2.40"])
def test_another_currency_is_told(client, owner, offer, price):
    assert told(keep(client, offer, price=price)) == "This studio reckons in EUR. Write what it comes to in EUR."
    assert told(keep(client, offer, from_1="4", each_1=price)).startswith("This studio reckons in EUR.")
    assert Offer.objects.get().price == Decimal("2.60")


def test_another_currency_for_the_house_is_asked_about_once(client, studio, owner, offer):
    form = form_at(get(client, "house/"), "house/settings/")
    answer = form.send(client, currency="gbp")
    assert told(answer) == "Prices stay as numbers: what costs 4.90 EUR would be called 4.90 GBP. Press again for that."
    assert Studio.objects.get().currency == "EUR"
    again = form_at(answer.content.decode(), "house/settings/")
    assert again.send(client).status_code == 302
    assert Studio.objects.get().currency == "GBP"
    assert keep(client, offer, price="£2.50").status_code == 302


def test_a_list_that_grows_beyond_a_break_costs_less(client, owner, moss, offer):
    keep(client, offer, from_1="4", each_1="2.40")
    for count, price in ((3, "2.60"), (1, "2.40")):
        post(client, "restock/list/", item=str(moss.item_id), shown="", **{f"pack_{offer.pk}": str(count)})
        assert OrderLine.objects.get().price == Decimal(price)
    post(client, "undo/")
    assert (OrderLine.objects.get().count, OrderLine.objects.get().price) == (3, Decimal("2.60"))


def test_what_is_not_sold_any_more_is_nobody_s_offer_and_comes_back_by_z(client, owner, moss, offer):
    keep(client, offer, from_1="4", each_1="2.40")
    assert Item.objects.get(pk=moss.item_id).unit_cost == Decimal("0.104")
    assert form_at(page_of(client, offer), "not-sold/").send(client).status_code == 302
    assert not Offer.objects.exists()
    assert Item.objects.get(pk=moss.item_id).unit_cost is None
    post(client, "undo/")
    assert breaks(Offer.objects.get()) == [(4, Decimal("2.40"))]
    assert Item.objects.get(pk=moss.item_id).unit_cost == Decimal("0.104")


def test_prices_are_an_owner_s(client, studio, owner, offer):
    maker = signed_in(make.member(studio, MAKER))
    address = f"restock/suppliers/offer/{offer.pk}/not-sold/"
    assert post(maker, address).status_code == 403
    assert not any("offer/" in form.action for form in forms_of(page_of(maker, offer)))
    assert f"offer={offer.pk}" not in page_of(maker, offer)
    stranger = signed_in(make.studio_owner("Dune", "ana"))
    assert post(stranger, address).status_code == 404
    assert stranger.post(stranger.base + f"restock/suppliers/offer/{uuid.uuid4()}/not-sold/").status_code == 404
    assert Offer.objects.exists()
