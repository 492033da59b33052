"""What is taken leaves the bag as a slice, to scale, as soon as it is written."""

import re
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from tests.web import factories as make
from tests.web.helpers import get, words
from wembit.web.stash.models import Item, Lot
from wembit.web.stash.shelf.slice import slice_off
from wembit.web.stash.shelf.wool_forms import drawings


def bag(form: str, grams: str, promised: str = "0") -> Lot:
    lot = Lot(item=Item(kind="fibre", form=form), on_hand=Decimal(grams), weighed=True, srgb="#6f7d43")
    lot.promised = Decimal(promised)
    return lot


def silhouette(key: str):
    rings = [
        np.array([[float(number) for number in point.split()] for point in ring.rstrip("Z").split("L")])
        for ring in drawings()[key].outline.split("M")[1:]
    ]
    shape = Polygon()
    for ring in rings:
        shape = shape.symmetric_difference(Polygon(ring).buffer(0))
    return shape


@pytest.mark.parametrize("form", ["tops", "batt", "fleece", "locks"])
@given(share=st.decimals("0.01", "1", places=2))
@settings(max_examples=20)
def test_the_slice_is_as_much_of_the_picture_as_it_is_of_the_bag(form, share):
    cut = slice_off(bag(form, "50"), 50 * share)
    shape = silhouette(form)
    above = shape.intersection(box(-50, -50, 150, cut.cut))
    assert above.area / shape.area == pytest.approx(float(share), abs=0.02)
    assert cut.taken + cut.stays == 50


def test_more_than_there_is_and_what_is_promised_are_told():
    cut = slice_off(bag("tops", "50", promised="30"), Decimal(60))
    assert (cut.taken, cut.stays, cut.missing, cut.promised) == (50, 0, 10, 30)
    assert slice_off(bag("tops", "50", promised="30"), Decimal(20)).promised == 0
    assert slice_off(bag("tops", "0"), Decimal(1)) is None
    assert slice_off(bag("tops", "50"), Decimal(0)) is None


@pytest.mark.parametrize(
    ("written", "said"),
    [
        ("15", "35 g stays"),
        ("half the bag", "25 g stays"),
        ("60", "more than there is"),
        ("", ""),
        ("a lot", ""),
    ],
)
def test_the_bag_is_drawn_with_what_is_written(client, owner, written, said):
    moss = make.lot(owner, "moss", "50")
    page = get(client, f"stash/lot/{moss.pk}/slice/", data={"amount": written})
    assert said in words(page)
    assert ("leaving" in page) == bool(said)
    assert page.count("<svg") == 1
    assert re.search(r'hx-trigger="input from:#f-amount', page), "the next amount is drawn, too"


def test_a_bag_that_nobody_weighed_is_not_cut(client, owner):
    lot = make.lot(owner, "moss", "50")
    Lot.objects.filter(pk=lot.pk).update(weighed=False, on_hand=0)
    page = get(client, f"stash/lot/{lot.pk}/slice/", data={"amount": "5"})
    assert "leaving" not in page
    assert "hx-get" not in page
