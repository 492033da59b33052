"""Two makers at the plan, by keys and by thumb; what an answer would save; a pack that is picked."""

import datetime as dt

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)


def hours_open(page):
    page.goto("/s/saltgrass/plan/")
    summary = page.locator("summary").filter(has_text="Hours at the bench")
    summary.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Days away")).to_be_visible()


def of(page, name):
    return page.get_by_role("group", name=name)


@pytest.mark.parametrize("device", [DESK, PHONE], ids=["desk", "phone"])
def test_a_maker_takes_more_hours_and_a_week_off_and_both_back(opened, own_site, device):
    page = opened(own_site, device)
    sign_in(page)
    hours_open(page)
    monday = of(page, "Tove").get_by_label("Mon")
    before = monday.input_value()
    monday.fill("6")
    page.keyboard.press("Enter")
    settled(page)
    hours_open(page)
    expect(of(page, "Tove").get_by_label("Mon")).to_have_value("6")
    first, last = (dt.date.today() + dt.timedelta(days) for days in (40, 46))
    page.get_by_label("Who", exact=True).select_option(label="Tove")
    page.get_by_label("From").fill(first.isoformat())
    page.get_by_label("To", exact=True).fill(last.isoformat())
    page.get_by_role("button", name="Away", exact=True).click()
    settled(page)
    hours_open(page)
    expect(page.get_by_role("button", name="There after all")).to_have_count(2)
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0
    for _ in range(2):
        page.locator("body").press("z")
        page.wait_for_load_state()
        settled(page)
    hours_open(page)
    expect(of(page, "Tove").get_by_label("Mon")).to_have_value(before)
    expect(page.get_by_role("button", name="There after all")).to_have_count(1)


def test_a_figure_is_left_to_the_other_with_one_touch(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/plan/")
    page.locator("a[aria-label^='Spring orders']").filter(visible=True).first.tap()
    expect(page.locator("#tray h2").first).to_have_text("Spring orders")
    page.get_by_role("button", name="Tove makes it").tap()
    settled(page)
    expect(page.get_by_role("button", name="Tove leaves it")).to_have_attribute("aria-pressed", "false")
    expect(page.locator("#tray")).to_contain_text("To make: Mira 3.")
    page.get_by_role("button", name="Tove leaves it").tap()
    settled(page)
    expect(page.get_by_role("button", name="Tove makes it")).to_be_visible()


def test_what_a_blend_would_save_stands_beside_it(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/plan/")
    page.locator(".sill.wide .stand[aria-label^='Snail race']").press("Enter")
    page.get_by_role("link", name="What can stand in?").click()
    saves = page.locator(".answer .saves").first
    expect(saves).to_contain_text("moss for Snail race: enough again")
    page.get_by_role("button", name="What would it save?").nth(1).press("Enter")
    expect(page.locator(".answer .saves").nth(1)).not_to_be_empty()


def test_a_pack_is_picked_and_gets_a_lower_price_from_so_many_on(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/restock/suppliers/")
    page.locator(".sold a").first.press("Enter")
    page.locator("summary").filter(has_text="Cheaper from so many on").press("Enter")
    page.get_by_label("From so many packs").first.fill("4")
    page.get_by_label("Each costs").first.fill("2.50")
    page.keyboard.press("Enter")
    settled(page)
    expect(page.locator(".sold").first).to_contain_text("from 4")
    page.locator("body").press("z")
    page.wait_for_load_state()
    expect(page.locator(".sold").first).not_to_contain_text("from 4")
