"""The sill: a figure is dragged to another day, moved by keys, by a thumb; each can be taken back."""

import datetime as dt
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)
MARKET = ".sill.wide .stand[aria-label^='Winter market']"


def due(page) -> dt.date:
    return dt.date.fromisoformat(page.locator(MARKET).get_attribute("data-due"))


def test_a_figure_is_dragged_a_week_on_and_all_follows(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/plan/")
    pk = page.locator(MARKET).get_attribute("data-of")
    rope = page.locator(f".sill.wide .strand[data-of='{pk}'] .rises")
    before, lay = due(page), rope.get_attribute("d")
    box = page.locator(f"{MARKET} .hold").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    week = page.locator(".sill.wide .board path").nth(1).bounding_box()["x"]
    week -= page.locator(".sill.wide .board path").nth(0).bounding_box()["x"]
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + week / 2, y)
    page.mouse.move(x + week, y)
    expect(page.locator(f"{MARKET} text").last).to_have_text(re.compile(r"^to \w+,? \d+ \w+"))
    page.mouse.up()
    expect(page.locator("#tray h2")).to_have_text("Winter market")
    settled(page)
    assert due(page) == before + dt.timedelta(7)
    assert rope.get_attribute("d") != lay
    assert page.url.endswith(f"/plan/{pk}/")
    page.keyboard.press("z")
    page.wait_for_load_state()
    settled(page)
    assert due(page) == before


def test_arrows_and_plus_move_the_one_that_is_picked(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/plan/")
    page.locator(MARKET).focus()
    page.keyboard.press("Enter")
    expect(page.locator("#tray h2")).to_have_text("Winter market")
    before, count = due(page), int(page.locator(MARKET).get_attribute("data-count"))
    page.locator(MARKET).focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowRight")
    page.keyboard.press("+")
    expect(page.locator(f"{MARKET}[data-count='{count + 1}']")).to_be_visible()
    assert due(page) == before + dt.timedelta(8)
    expect(page.locator(MARKET)).to_be_focused()
    page.keyboard.press("-")
    expect(page.locator(f"{MARKET}[data-count='{count}']")).to_be_visible()


def test_a_thumb_moves_it_a_day(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/plan/")
    assert not page.locator(MARKET).is_visible()
    page.locator(".sill.upright .stand[aria-label^='Winter market'] .hold").tap()
    expect(page.locator("#tray h2")).to_have_text("Winter market")
    before = due(page)
    page.get_by_role("button", name="A day later").tap()
    expect(page.locator(f"{MARKET}[data-due='{before + dt.timedelta(1)}']")).to_have_count(1)
    page.get_by_role("button", name="Undo").tap()
    page.wait_for_load_state()
    settled(page)
    assert due(page) == before
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0


def test_twenty_are_tried_and_left(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/plan/")
    before, day = page.locator(MARKET).get_attribute("data-count"), due(page)
    page.locator(f"{MARKET} .hold").click()
    page.get_by_role("link", name="What if it were another day, or more?").click()
    expect(page.get_by_role("heading", name="Move something")).to_be_visible()
    page.locator(f"{MARKET}").focus()
    for _ in range(20 - int(before)):
        page.keyboard.press("+")
    expect(page.get_by_role("heading", name="What it would change")).to_be_visible()
    expect(page.locator("#tray")).to_contain_text("peat for Winter market")
    expect(page.locator("#tray")).to_contain_text(re.compile(r"EUR more"))
    assert page.locator(MARKET).get_attribute("data-count") == "20"
    box = page.locator(f"{MARKET} .hold").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y)
    page.mouse.move(x + 80, y)
    page.mouse.up()
    expect(page.locator(f"{MARKET}[data-due='{day}'][data-count='20']")).to_have_count(0)
    expect(page.locator("#tray")).to_contain_text("20 instead of")
    page.get_by_role("link", name="Leave all as it is").click()
    expect(page.get_by_role("heading", name="The plan")).to_be_visible()
    assert page.locator(MARKET).get_attribute("data-count") == before


def test_a_new_plan_answers_while_it_is_written(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/plan/new/")
    page.get_by_label("What do you make?").select_option(index=1)
    expect(page.get_by_role("heading", name="So it would stand")).to_be_visible()
    page.get_by_label("How many?").fill("40")
    page.get_by_label("How many?").press("Tab")
    expect(page.locator("#preview")).to_contain_text("Short")
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0
    page.get_by_label("What for?").fill("Fair")
    page.get_by_role("button", name="Plan it").tap()
    expect(page.locator("#tray h2")).to_have_text("Fair")
