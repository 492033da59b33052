"""A figure begun from a body: by a thumb on a phone, by keys at a desk; few presses from an empty table to grams."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in, tab_to
from tests.browser.hands import Keys, Thumb

pytestmark = pytest.mark.sampled("journeys", 4)
MOST_PRESSES = 25
GRAMS = re.compile(r"[\d.]+\s*g")


def test_a_fox_from_a_body_by_touch_on_a_phone(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    hand, presses = Thumb(page), 0
    hand.place(1)
    for link in ("A new figure", "standing beast"):
        hand.press(page.get_by_role("link", name=link))
        presses += 1
    heading = page.locator("h1")
    expect(heading).to_contain_text(GRAMS)
    before = page.locator("#drawn svg").first.inner_html()
    for label, steps in (("Legs", "-2"), ("Ears", "2"), ("Snout", "2"), ("Tail", "3")):
        with page.expect_response(lambda answer: "new/standing/" in answer.url):
            page.get_by_label(label).fill(steps)  # a thumb drags it there
        presses += 1
        settled(page)
    assert page.locator("#drawn svg").first.inner_html() != before
    picture = page.locator("#picture").bounding_box()
    page.get_by_label("Tail").scroll_into_view_if_needed()
    assert page.locator("#drawn svg").first.bounding_box()["y"] < 500, "the drawing stays in sight above the sliders"
    assert picture["width"] <= 390
    hand.write(page.get_by_label("What is it?"), "Fox")
    hand.press(page.get_by_role("button", name="Begin it"))
    presses += 2
    expect(page.get_by_role("heading", name="Fox")).to_contain_text(GRAMS)
    expect(page.locator(".strip-of-parts")).to_contain_text("2 × ear")
    assert presses <= MOST_PRESSES
    overflow = page.evaluate("document.documentElement.scrollWidth - innerWidth")
    assert overflow <= 0


def test_a_spider_with_eight_legs_by_keys(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    hand = Keys(page)
    hand.place(1)
    hand.press(page.get_by_role("link", name="A new figure"))
    hand.press(page.get_by_role("link", name="spider"))
    words = page.locator("h1").inner_text()
    tab_to(page, page.get_by_label("Legs"))
    for _ in range(2):
        page.keyboard.press("ArrowRight")
    expect(page.locator("h1")).not_to_have_text(words)
    settled(page)
    hand.write(page.get_by_label("What is it?"), "Marsh spider")
    hand.enter()
    expect(page.get_by_role("heading", name="Marsh spider")).to_contain_text(GRAMS)
    expect(page.locator(".strip-of-parts")).to_contain_text("8 × leg")
    page.keyboard.press("z")
    expect(page.locator("body")).to_contain_text("Taken back: Marsh spider, begun")
