"""A parcel unpacked by touch: what is touched goes onto its board, what was not in the box is not on the shelf."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in, tab_to

pytestmark = pytest.mark.sampled("journeys", 4)


def opened_parcel(page):
    page.goto("/s/saltgrass/restock/")
    page.get_by_role("link", name="It has come").first.click()
    page.locator(".pack").first.wait_for()
    return page.locator("fieldset.unpacked")


def bags(page) -> dict[str, int]:
    page.goto("/s/saltgrass/stash/?by=form")
    names = page.locator(".lot b").all_inner_texts()
    return {name: names.count(name) for name in ("core", "rust")}


def came(row):
    return row.get_by_label("Came")


def test_one_pack_came_and_the_other_did_not(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    before = bags(page)
    rows = opened_parcel(page)
    assert page.locator(".pack").count() == rows.count() == 2
    ordered = [came(rows.nth(n)).input_value() for n in range(2)]
    expect(page.get_by_role("button", name="All 2 packs on the shelf")).to_be_visible()
    box = page.locator(".pack").nth(1).bounding_box()
    assert box["width"] >= 44 <= box["height"]
    page.locator(".pack[data-row='1']").tap()
    expect(rows.nth(1).locator(".out .pack")).to_have_count(1)
    expect(came(rows.nth(1))).to_have_value(ordered[1])
    expect(came(rows.nth(0))).to_have_value("0")
    page.locator(".pack[data-row='0']").tap()
    expect(came(rows.nth(0))).to_have_value(ordered[0])
    page.locator(".pack[data-row='0']").tap()  # it was empty: back into the box
    expect(came(rows.nth(0))).to_have_value("0")
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0
    page.get_by_role("button", name="1 of 2 packs on the shelf").tap()
    expect(page.locator(".said")).to_contain_text("is on the shelf")
    assert bags(page) == {"rust": before["rust"] + 1, "core": before["core"]}


def test_a_fault_leaves_the_packs_where_they_lie_and_keys_do_it_too(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    rows = opened_parcel(page)
    pack = page.locator(".pack[data-row='1']")
    tab_to(page, pack)
    page.keyboard.press("Enter")
    expect(pack).to_be_focused()
    expect(pack).to_have_attribute("aria-pressed", "true")
    came(rows.nth(0)).fill("a few")
    page.get_by_role("button", name="1 of 2 packs on the shelf").click()
    settled(page)
    expect(page.locator(".fault").first).to_be_visible()
    expect(page.locator("fieldset.unpacked").nth(1).locator(".out .pack")).to_have_count(1)
    expect(page.locator(".parcel .pack")).to_have_count(1)
