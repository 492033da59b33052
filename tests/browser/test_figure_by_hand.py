"""A figure's parts moved by hand: dragged with the mouse and a finger, pushed by the keyboard."""

import re

import pytest

from tests.browser.conftest import DESK, at_rest, name_of, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)


def at_part(page, name, part):
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text=name).first.click()
    settled(page)
    name_of(page, part).click()
    settled(page)


def place_of(page, part) -> tuple[float, float]:
    """The middle of the picked part in the side view, in pixels."""
    box = at_rest(page.locator(f'#drawing svg[data-view="side"] [data-part-key="{part}"] path').first)
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def test_an_ear_is_dragged_and_pushed(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    at_part(page, "Hare", "ear")
    x, y = place_of(page, "ear")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 15, y, steps=4)
    page.mouse.move(x - 30, y, steps=4)
    with page.expect_response(re.compile("nudge")) as answered:
        page.mouse.up()
    assert answered.value.status == 200
    settled(page)
    moved = place_of(page, "ear")
    assert moved[0] < x - 12, "it stays where it was dropped"
    assert page.locator(".strip-of-parts .in-hand").inner_text().endswith("ear")
    page.locator("#drawing").focus()
    with page.expect_response(re.compile("nudge")):
        page.keyboard.press("Shift+ArrowRight")
    settled(page)
    assert place_of(page, "ear")[0] > moved[0] + 4
    assert page.evaluate("document.activeElement.id") == "drawing", "the next arrow pushes on"


def test_quick_arrows_are_all_counted(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    at_part(page, "Snail", "shell coil")
    before = place_of(page, "shell-coil")
    page.locator("#drawing").focus()
    for _ in range(6):
        page.keyboard.press("ArrowRight")
    settled(page)
    after = place_of(page, "shell-coil")
    scale = page.evaluate("() => document.querySelector('#drawing svg').getScreenCTM().a")
    assert after[0] - before[0] == pytest.approx(6 * scale, rel=0.6)
