"""How big a figure is to be: its tip pulled with a finger on a phone, the slider moved with keys at a desk."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in, tab_to

pytestmark = pytest.mark.sampled("journeys", 4)


def opened_hare(page):
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Hare").first.click()
    page.locator("a[href$='/size/']").first.click()
    page.locator(".tip").wait_for(state="attached")  # a dot as wide as its stroke


def high(page) -> float:
    return float(page.locator("#f-pull").get_attribute("data-high-mm"))


def grams(page) -> float:
    return float(re.search(r"takes\s*([\d.]+)", page.locator(".grown-words").inner_text())[1])


def pulled(page, by: int):
    """A finger on the tip moves up by so many px and stays there; what lifts it."""
    box = page.locator(".tip").bounding_box()
    assert box["width"] >= 44 <= box["height"]
    hand = page.context.new_cdp_session(page)
    across, down = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    hand.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [{"x": across, "y": down}]})
    for part in (0.3, 0.6, 1.0):
        point = {"x": across, "y": down - by * part}
        hand.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [point]})
    return lambda: hand.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})


def test_the_ear_is_pulled_up_with_a_finger(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    opened_hare(page)
    before = high(page)
    lift = pulled(page, 60)
    expect(page.locator(".grown-words")).to_be_visible()  # the finger still holds it
    assert page.locator(".growing").get_attribute("transform") is not None
    lift()
    button = page.get_by_role("button", name=re.compile("^Make it"))
    expect(button).to_be_visible()
    settled(page)
    now = high(page)
    assert now > before * 1.1
    assert page.locator(".growing").get_attribute("transform") is None, "the server has drawn it"
    assert grams(page) > 0
    promised = page.locator(".grown-words b").first.inner_text()
    button.tap()
    settled(page)
    opened_hare(page)
    assert high(page) == pytest.approx(float(promised.split()[0]), abs=0.15)


def test_the_slider_by_keys(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    opened_hare(page)
    before = high(page)
    slider = page.locator("#f-pull")
    tab_to(page, slider)
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_role("button", name=re.compile("^Make it"))).to_be_visible()
    settled(page)
    expect(slider).to_be_focused()
    assert before < high(page) < before + 4
    assert grams(page) > 0
