"""Stripes drawn with a finger on both flanks of a figure's head."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PHONE, at_rest, settled, sign_in
from tests.browser.hands import Thumb

pytestmark = pytest.mark.sampled("journeys", 4)


def test_a_stripe_is_drawn_with_a_finger_and_lies_on_both_flanks(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    hand = Thumb(page)
    hand.place(1)
    hand.press(page.get_by_role("link", name=re.compile("Otter")).first)
    page.goto(page.url.split("?")[0] + "?part=head&see=whole")
    hand.press(page.locator("summary", has_text="Draw a marking on it"))
    hand.write(page.get_by_label("Its colour goes").first, "stripe")
    drawing = page.locator("#drawing svg").first
    drawing.evaluate("each => each.scrollIntoView({block: 'start'})")
    zones = drawing.locator("a[data-part-key=head] path").count()
    head = at_rest(drawing.locator("a[data-part-key=head] path").first)
    finger = page.context.new_cdp_session(page)
    x, y = head["x"] + head["width"] * 0.3, head["y"] + head["height"] * 0.35

    def touch(kind, *points):
        finger.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": [{"x": a, "y": b} for a, b in points]})

    touch("touchStart", (x, y))
    for k in range(1, 9):
        touch("touchMove", (x + 2.5 * k, y + k))
    expect(page.locator(".marking-way")).to_be_attached()
    touch("touchEnd")
    expect(page.get_by_role("heading", name="spots and lines, stripe")).to_be_visible()
    settled(page)
    assert page.get_by_label("on both flanks").is_checked()
    assert page.locator("#drawing svg").first.locator("a[data-part-key=head] path").count() > zones
    page.goto(page.url.split("?")[0] + "?see=turn&turn=180&tilt=0")
    other = page.locator("svg.turned path[fill]").evaluate_all("all => all.map((each) => each.getAttribute('fill'))")
    page.goto(page.url.split("?")[0] + "?see=turn&turn=0&tilt=0")
    one = page.locator("svg.turned path[fill]").evaluate_all("all => all.map((each) => each.getAttribute('fill'))")
    bare = "#e9e2d2"  # the stripe has no wool yet
    assert one.count(bare) == other.count(bare) > 0, "seen from either side"
