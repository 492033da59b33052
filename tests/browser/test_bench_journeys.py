"""What a maker does at the bench: a pair by weight, a figure without a scale, a try thrown away, a whole otter."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)


def begun(page, figure: str) -> None:
    """A making of that figure, begun from the bench."""
    sign_in(page)
    page.goto("/s/saltgrass/bench/")
    page.locator(".on-the-bench li").filter(has_text=figure).get_by_role("button", name="Begin one").first.click()
    page.locator("#hand h1").wait_for()
    settled(page)


def at(page, piece: str) -> None:
    """Take a piece in hand by its name."""
    page.locator("details").filter(has_text="pieces by name").locator("summary").first.click()
    page.locator(".strip-of-parts a").filter(has_text=re.compile(rf"^{piece}")).first.click()
    settled(page)
    expect(page.locator("#hand h1")).to_contain_text(piece)


def take(page, amount: str = "", name: str = "Take it") -> None:
    if amount:
        page.locator("form.take [name=amount]").fill(amount)
    page.get_by_role("button", name=name).first.click()
    settled(page)


def taken(page) -> float:
    return float(re.match(r"([\d.]+)", page.locator(".story b").first.inner_text())[1])


def test_a_pair_by_weight(opened, own_site):
    page = opened(own_site, PHONE)
    begun(page, "Hare, crouched")
    at(page, "ear 1")
    page.get_by_role("link", name="Both at once").tap()
    settled(page)
    take(page, "0.8", "Take it for both")
    at(page, "ear 1")
    one = taken(page)
    at(page, "ear 2")
    assert (one, taken(page)) == (0.4, 0.4), "equal shares of one amount"
    take(page, "0.3")
    at(page, "ear 1")
    expect(page.locator(".set")).to_contain_text("The first needs 0.3")
    take(page, "0.3")
    at(page, "ear 1")
    expect(page.locator(".set")).not_to_contain_text("needs")


def test_a_pair_by_keys_alone(opened, own_site):
    page = opened(own_site, DESK)
    begun(page, "Hare, crouched")
    at(page, "ear 1")
    page.keyboard.press("Escape")
    page.keyboard.press("w")
    expect(page.get_by_role("button", name="Take it for both")).to_be_visible()
    page.keyboard.type("0.8")
    page.keyboard.press("Enter")
    settled(page)
    for following in ("body", "head", "ear 1"):  # what waits first in the order of work, and on from there
        expect(page.locator("#hand h1")).to_contain_text(following)
        if following != "ear 1":
            page.keyboard.press("Escape")  # out of the field of the amount
            page.keyboard.press(".")
            settled(page)
    assert taken(page) == 0.4
    page.keyboard.type("0.1")
    page.keyboard.press("Escape")
    page.keyboard.press("r")
    settled(page)
    page.keyboard.press("?")
    expect(page.locator("#keys")).to_contain_text("put that much back")
    page.keyboard.press("Escape")


def test_a_figure_without_a_scale(opened, own_site):
    page = opened(own_site, PHONE)
    begun(page, "Snail race")
    name = page.locator("#hand h1").inner_text()
    take(page, "3 pinches")
    page.locator("[rel=prev]").first.tap()
    settled(page)
    assert page.locator("#hand h1").inner_text() == name
    assert taken(page) == pytest.approx(0.12), "three of Mira's pinches"
    page.locator("details").filter(has_text="Finish this one").locator("summary").first.tap()
    if (back := page.get_by_label("needles are back")).count():
        back.check()
    page.locator("[name=figure_g]").fill("6")
    page.get_by_role("button", name="share that out").tap()
    settled(page)
    expect(page.locator("body")).to_contain_text("is finished")


def test_a_try_thrown_away_and_fetched_back(opened, own_site):
    page = opened(own_site, PHONE)
    begun(page, "Hare, crouched")
    at(page, "ear 1")
    take(page, "0.9")
    at(page, "ear 1")
    page.locator("details").filter(has_text="Trim it, or start again").locator("summary").first.tap()
    page.locator("#f-goes").select_option("waste")
    page.get_by_role("button", name="too big").tap()
    settled(page)
    at(page, "ear 1")
    assert taken(page) == 0
    expect(page.locator("#tray")).to_contain_text("Given up before: 0.9 g, too big, to the waste.")
    page.keyboard.press("z")
    settled(page)
    at(page, "ear 1")
    assert taken(page) == 0.9


def test_a_finished_otter_against_its_plan_and_the_next_ranges_narrower(opened, own_site):
    page = opened(own_site, DESK)

    def ranges() -> float:
        """How wide the widest range is, high by low, of what was learnt of core wool."""
        page.goto("/s/saltgrass/bench/learnt/")
        found = re.findall(r"eight times in ten ([\d.]+)–([\d.]+) times", page.locator("main").inner_text())
        return max(float(high) / float(low) for low, high in found)

    sign_in(page)
    before = ranges()
    page.goto("/s/saltgrass/bench/")
    page.locator(".on-the-bench li").filter(has_text="Winter market").get_by_role(
        "button", name="Begin one"
    ).first.click()
    page.locator("#hand h1").wait_for()
    making = page.url
    for _ in range(80):
        settled(page)
        if page.get_by_text("All its wool is taken").count() or not page.locator("form.take").count():
            break
        more = re.match(r"[\d.]+", page.locator(".story b").nth(1).inner_text())[0]
        take(page, more)
    page.goto(making)
    finish = page.locator("details").filter(has_text="Finish this one")
    if finish.get_attribute("open") is None:
        finish.locator("summary").first.click()
    if (back := finish.get_by_label("needles are back")).count():
        back.check()
    buttons = finish.get_by_role("button", name=re.compile("It is finished|took nothing of that"))
    buttons.first.click()
    settled(page)
    expect(page.locator("body")).to_contain_text("is finished")
    page.goto(making)
    page.get_by_role("link", name="What it took, beside the others").click()
    expect(page.locator("h1")).to_contain_text("3 makings weighed")
    assert ranges() <= before
