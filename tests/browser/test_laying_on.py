"""Colours by touch on a phone: a wool is taken up, laid on the animal, taken back; a second part takes the same wool."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PHONE, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)


def fill(page, part: str) -> str:
    return page.locator(f"[data-lay-on='fawn'] [data-part='{part}'] path").first.get_attribute("fill")


def test_a_wool_is_laid_on_the_hare(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Hare").first.click()
    page.locator("a[href$='/colours/']").first.click()
    before = fill(page, "body")
    page.locator("[data-lay-on='fawn'] [data-part='body'] path").first.tap()
    settled(page)
    expect(page.locator(".fault").first).to_contain_text("Touch a wool first")
    wool = page.locator(".wools label").filter(has_text="slate")
    wool.tap()
    assert min(wool.bounding_box()["width"], wool.bounding_box()["height"]) >= 44
    slate = wool.locator("circle").get_attribute("fill")
    page.locator("[data-lay-on='fawn'] [data-part='body'] path").first.tap()
    settled(page)
    assert fill(page, "body") == slate != before
    expect(page.locator(".wools :checked")).to_have_count(1)
    others = page.locator("[data-lay-on='grey'] [data-part='body'] path").first.get_attribute("fill")
    assert others != slate, "the other colourways are as they were"
    page.get_by_role("button", name="Undo").tap()
    settled(page)
    assert fill(page, "body") == before
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0
