"""An order goes out as a file, days pass, the parcel comes short and of two dye lots, and what did not come stays open."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, settled, sign_in
from wembit.standins.supplier.model import Placed

pytestmark = pytest.mark.sampled("journeys", 4)


def test_an_order_comes_short_and_the_rest_stays_open(opened, own_site, supplier, monkeypatch):
    for name, value in (("is_late", False), ("is_short", True), ("has_two_lots", True)):
        monkeypatch.setattr(Placed, name, value)
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/restock/")
    page.locator("a.tide").filter(has_text="peat").click()
    field = page.locator(".pack input").first
    field.fill("4")
    page.get_by_role("button", name="Put on the list").click()
    page.get_by_role("button", name="Wish each colour of one dye lot").wait_for()
    page.get_by_role("link", name="The order on paper, or as a file").first.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile(r"Order W-[0-9A-F]{10}"))
    page.get_by_role("link", name="Back to Restock").click()
    page.get_by_role("button", name="Send the order").click()
    expect(page.locator(".said")).to_contain_text("Marram Wool Shed has it and sends it for")
    (placed,) = supplier.book.all()

    panel = opened(supplier.address, DESK)
    panel.goto("/")
    expect(panel.locator("li")).to_contain_text(f"{placed.order} {sum(line.count for line in placed.lines)} packs")
    for _ in range((placed.comes - supplier.book.today()).days):
        panel.get_by_role("button", name="A day passes").click()

    page.goto("/s/saltgrass/restock/")
    page.get_by_role("button", name="Ask where it is").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("A parcel of Marram Wool Shed")
    lots = page.get_by_label("Dye lot")
    assert lots.count() == 2
    assert lots.nth(0).input_value() != lots.nth(1).input_value()
    expect(page.get_by_label("What did not come is still on its way")).to_be_checked()
    page.get_by_role("button", name="On the shelf").click()
    expect(page.locator("#tray")).to_contain_text("The rest from Marram Wool Shed")
    page.get_by_role("button", name="Undo").click()
    page.wait_for_load_state()
    settled(page)
    expect(page.locator("#tray")).not_to_contain_text("The rest from")
    expect(page.locator("#tray")).to_contain_text("From Marram Wool Shed")
