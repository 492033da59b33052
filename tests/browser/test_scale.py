"""The bench listens to a scale: a tuft laid on, a bag that gets lighter, and nothing by a scale that is not to be trusted."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)


@pytest.fixture
def on(scale):
    """The scale, empty and steady again at the end."""
    yield scale
    scale.plug(True)
    scale.drift(False)
    scale.clear()
    scale.tare()


def at_the_bench(page):
    """The first making in hand, listening."""
    sign_in(page)
    page.goto("/s/saltgrass/bench/")
    page.locator(".on-the-bench a.pick").first.click()
    page.get_by_role("button", name="Listen to the scale").click()
    expect(page.locator("[data-state]")).to_have_text("empty")
    return page.locator("[name=amount]")


def taken(page) -> float:
    return float(re.match(r"([\d.]+)", page.locator(".story b").first.inner_text())[1])


def test_a_tuft_laid_on_is_taken_by_one_press(opened, own_site, on):
    page = opened(own_site, PHONE)
    amount = at_the_bench(page)
    name = page.locator("h1").inner_text()
    on.lay(0.04)
    expect(page.locator("[data-shows]")).to_have_text("0.04 g")
    expect(amount).to_have_value("0.04")
    page.get_by_role("button", name="Take it").tap()
    expect(page.locator("h1")).not_to_have_text(name)
    page.locator("[rel=prev]").tap()
    expect(page.locator("h1")).to_have_text(name)
    assert taken(page) == 0.04
    expect(amount).not_to_have_value("0.04")  # what was taken is not offered again


def test_a_bag_that_gets_lighter_gives_what_was_taken_out_of_it(opened, own_site, on):
    page = opened(own_site, DESK)
    amount = at_the_bench(page)
    asked = amount.input_value()
    on.lay(50)
    expect(page.locator("[data-state]")).to_have_text("take out of the bag what you need")
    expect(amount).to_have_value(asked)  # a bag is no tuft
    for grams in ("0.42", "0.35"):
        name = page.locator("h1").inner_text()
        on.lay(-float(grams))
        expect(page.locator("[data-state]")).to_have_text(f"{grams} g out of the bag")
        expect(amount).to_have_value(grams)
        page.get_by_role("button", name="Take it").press("Enter")
        expect(page.locator("h1")).not_to_have_text(name)


def test_what_is_written_by_hand_stays(opened, own_site, on):
    page = opened(own_site, DESK)
    amount = at_the_bench(page)
    amount.fill("0.2")
    page.locator("h1").click()
    on.lay(0.05)
    expect(page.locator("[data-shows]")).to_have_text("0.05 g")
    expect(page.locator("[data-state]")).to_have_text("steady")
    expect(amount).to_have_value("0.2")
    assert page.locator("[name=reading]").input_value() == ""


def test_a_scale_that_is_unplugged_or_overloaded_fills_nothing(opened, own_site, on):
    page = opened(own_site, DESK)
    amount = at_the_bench(page)
    before = amount.input_value()
    on.lay(600)
    expect(page.locator("[data-state]")).to_have_text("too heavy")
    on.clear()
    on.plug(False)
    expect(page.locator("[data-state]")).to_have_text("no power")
    expect(page.locator("[data-shows]")).to_have_text("–")
    expect(amount).to_have_value(before)
    on.plug(True)
    expect(page.locator("[data-state]")).to_have_text("empty")
    page.get_by_role("button", name="Do not listen").click()
    expect(page.locator(".shows")).to_be_hidden()


def test_zero_takes_the_dish_off(opened, own_site, on):
    page = opened(own_site, DESK)
    at_the_bench(page)
    on.lay(12)
    expect(page.locator("[data-shows]")).to_have_text("12.00 g")
    page.get_by_role("button", name="Zero").click()
    expect(page.locator("[data-shows]")).to_have_text("0.00 g")
    on.lay(0.05)
    expect(page.locator("[name=amount]")).to_have_value("0.05")
