"""What comes out of a printer: the picture and what is picked, nothing to press, nothing cut off; templates at true size."""

import pytest

from tests.browser.conftest import DESK, sign_in
from tests.browser.test_screens import Addresses

pytestmark = pytest.mark.sampled("journeys", 4)
PAPER = {"width": 718, "height": 1047}  # A4 less 10 mm all round, at 96 dots an inch
MM = 96 / 25.4
PRINTED = [
    "order",
    "list",
    "plan",
    "project",
    "pull list",
    "shelf",
    "lot",
    "today",
    "colour",
    "colourways",
    "what was done",
]
PRESSES = "button, input:not([type=hidden]), textarea, summary, .btn, .strip"  # a list's choice is printed as its words


def test_nothing_to_press_is_printed_and_nothing_is_cut_off(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    there = Addresses(page)
    troubles = []
    addresses = {name: there[name] for name in PRINTED}
    page.emulate_media(media="print")
    page.set_viewport_size(PAPER)
    for name, address in addresses.items():
        page.goto(address)
        shown = page.locator(PRESSES).evaluate_all(
            "all => all.filter((each) => each.getClientRects().length).map((each) => each.outerHTML.slice(0, 80))"
        )
        troubles += [f"{name}: {each}" for each in shown]
        wide = page.evaluate("document.documentElement.scrollWidth")
        if wide > PAPER["width"] + 1:
            troubles.append(f"{name}: {wide} px on paper of {PAPER['width']}")
        if not page.locator("#picture").inner_text().strip():
            troubles.append(f"{name}: an empty page")
    assert not troubles, "\n".join(troubles)


def test_what_is_picked_is_printed_with_its_picture_and_lists_have_a_button_for_it(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    there = Addresses(page)
    for name in ("pull list", "list", "order"):
        page.goto(there[name])
        assert page.locator("[data-print]").first.is_visible(), name
    page.goto(there["project"])
    page.emulate_media(media="print")
    assert page.locator("#tray h2").first.is_visible(), "the project"
    page.goto(there["shelf"])
    assert not page.locator("#tray").is_visible(), "nothing is picked"


def test_the_line_that_says_a_hundred_millimetres_is_so_long_on_paper(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    page.goto(Addresses(page)["templates"])
    page.emulate_media(media="print")
    page.set_viewport_size({"width": round(210 * MM), "height": round(297 * MM)})
    line = page.locator(".sheets #check").first
    assert line.evaluate("line => line.getBBox().width * line.getScreenCTM().a") / MM == pytest.approx(100, abs=0.05)
