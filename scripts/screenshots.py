"""Take the pictures of docs/screenshots anew, of the demo as it is served: scripts/screenshots.py http://127.0.0.1:8470."""

import re
import sys
from pathlib import Path

from playwright.sync_api import sync_playwright

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
from tests.browser.conftest import DESK, FLAGS, PHONE, settled, sign_in
from tests.browser.test_drawn_heron import OUTLINE, mark_the_line, spot

OUT = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
BASE = "/s/saltgrass/"
STEADY_MS = 900
THING = "[0-9a-f-]{36}/"
VIEWS = {  # name: the page, then what is picked on it by its words
    "today": ("", ""),
    "shelf": ("stash/", ""),
    "bag": ("stash/", "oat"),
    "figures": ("figures/", ""),
    "figure": ("figures/", "Hare"),
    "begin": ("figures/new/standing/?legs=-2&ears=2", ""),
    "board": ("figures/", "Heron"),
    "order": ("figures/", "Hedgehog"),
    "colourways": ("figures/", "Hare"),
    "plan": ("plan/", "Winter market"),
    "restock": ("restock/", ""),
    "colour": ("colour/", ""),
    "on-the-bench": ("bench/", ""),
    "bench": ("bench/", "Heron"),
    "answers": ("plan/", "Snail race"),
    "what-if": ("plan/", "Winter market"),
    "worth": ("costs/", ""),
}
ON_A_PHONE = {"phone-today": ("", ""), "phone-bench": ("bench/", "Heron")}


LEADS = {  # what is pressed on the page of the thing
    "colourways": lambda page: page.get_by_role("link", name="Colourways and faces"),
    "answers": lambda page: page.locator("#tray .short a").filter(has_text="moss"),
}


def begin(page) -> None:
    """The board over the heron's sketch."""
    page.get_by_role("link", name="Draw a part").click()
    page.locator('input[name="reference"]').nth(1).check()
    page.get_by_role("button", name="Begin to draw").click()
    page.locator("#board").wait_for()


def take(page, name: str, start: str, words: str) -> None:
    page.goto(BASE + start)
    if words:
        pick = (
            page.locator("a.pick, a.lot, a.tide").filter(has_text=re.compile(rf"\b{words}")).filter(visible=True).first
        )
        hold = pick.locator(".hold")  # of a figure on the sill, whose words stand above it
        (hold if hold.count() else pick).click()
        settled(page)
        page.wait_for_timeout(STEADY_MS)  # what listens to a scale is never idle
    if name == "board":
        begin(page)
        mark_the_line(page)
        for share in OUTLINE:
            page.mouse.click(*spot(page, share))
            settled(page)
            page.wait_for_timeout(200)
    if name == "order":
        page.get_by_role("link", name="Order of work").click()
        page.locator(".states a.pick").filter(has_text="Plant the coat").click()
        settled(page)
    if name in LEADS:
        LEADS[name](page).click()
    if name == "what-if":
        page.get_by_role("link", name="What if it were").click()
        page.get_by_role("link", name="A week earlier").click()
        settled(page)
    if name == "colour":
        page.locator('svg a[aria-label^="moss"]').press("Enter")
    page.wait_for_timeout(250)
    page.screenshot(path=OUT / f"{name}.png")


def main(address: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        for device, views in ((DESK, VIEWS), ({**PHONE, "device_scale_factor": 1}, ON_A_PHONE)):
            page = browser.new_context(base_url=address, **device).new_page()
            page.set_default_timeout(8_000)
            sign_in(page)
            for name, (start, words) in views.items():
                take(page, name, start, words)
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1])
