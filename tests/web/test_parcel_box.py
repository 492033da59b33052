"""A parcel drawn as a box: each pack as the bag that it becomes, to the scale of the shelf."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import get
from tests.web.shared import shared
from wembit.web.restock.models import SENT, Order
from wembit.web.restock.parcel_box import expected, packs
from wembit.web.restock.queries import order_of
from wembit.web.stash.shelf.shelf_chart import PX2_PER_GRAM


@shared
def order(owner) -> Order:
    """Three packs of 50 g moss and one of 10 eyes, ordered of one supplier."""
    moss, eyes = make.lot(owner, "moss", "5").item, make.notion_lot(owner).item
    supplier = make.offer(owner, moss).supplier
    order = Order.objects.create(studio=owner.studio, supplier=supplier, state=SENT)
    for item, pack, count in ((moss, 50, 3), (eyes, 10, 1)):
        order.lines.create(studio=owner.studio, item=item, pack=pack, price="4.2", count=count)
    return order


def test_packs_are_drawn_as_large_as_the_bags_that_they_become(owner, order):
    found = packs(expected(order_of(owner.studio, order.pk)), {})
    moss = next(each for each in found if each.line.item.name == "moss")
    assert list(moss.numbers) == [1, 2, 3]
    *_, width, height = moss.drawn.drawing.box
    area = moss.drawn.drawing.area * (moss.drawn.width / width) * (moss.drawn.height / height)
    assert area == pytest.approx(50 * PX2_PER_GRAM, rel=0.01)


def test_hundreds_of_packs_are_one_bundle(client, owner, order):
    order.lines.filter(count=3).update(count=300)
    page = get(client, f"restock/order/{order.pk}/arrival/")
    assert page.count('class="pack"') == 2
    assert 'data-count="1" data-pack="15000"' in page
    assert 'value="15000"' in page


def test_the_page_has_a_button_a_pack_and_says_what_a_pack_is(client, owner, order):
    page = get(client, f"restock/order/{order.pk}/arrival/")
    assert page.count('class="pack"') == 4
    assert "moss, 50 g, pack 3 of 3" in page
    owner.studio.weight_unit = "oz"
    owner.studio.save()
    assert 'data-pack="50 g"' in get(client, f"restock/order/{order.pk}/arrival/")
    told = dict(re.findall(r'data-count="(\d+)" data-pack="([\d.]+)"', page))
    assert told == {"3": "50", "1": "10"}
    assert 'value="150"' in page, "all of it, as long as nothing is touched"
