"""An empty house: the first visitor makes the studio and lays in her bags; two makers then share the tablet."""

import datetime as dt
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PASSWORD, PHONE, at_rest, sign_in, tab_to
from tests.browser.hands import Keys, Thumb

pytestmark = pytest.mark.sampled("journeys", 4)


def test_the_first_visitor_makes_the_studio_and_lays_in_bags_by_keyboard(empty_site, opened):
    page = opened(empty_site, DESK)
    hand = Keys(page)
    page.goto("/")
    hand.write(page.get_by_label("What is the studio called?"), "Samphire Shed")
    hand.write(page.get_by_label("What are you called?"), "Ana")
    hand.write(page.get_by_label("Name to sign in with"), "ana")
    hand.write(page.get_by_label("Password"), "felting needle 38")
    hand.enter()
    hand.press(page.get_by_role("link", name="Put the first bag on the shelf"))
    for grams, form, breed in (("42,5", "batt", "Corriedale"), ("", "tops", ""), ("7", "locks", "Wensleydale")):
        tab_to(page, page.get_by_label("On the scale"))
        page.keyboard.type(grams)
        hand.choose(page.get_by_label("Form"), form)
        if breed:
            hand.choose(page.get_by_label("Breed"), breed)
        hand.enter()
    expect(page.locator(".board.laid a.lot")).to_have_count(3)
    hand.place(3)
    expect(page.locator("a.lot")).to_have_count(3)
    expect(page.locator(".boards")).to_contain_text("42.5")
    expect(page.locator(".boards")).to_contain_text("not weighed")


def test_a_colour_picked_by_eye_is_kept_and_one_not_picked_is_not(empty_site, opened):
    page = opened(empty_site, PHONE)
    page.goto("/")
    for label, words in (
        ("What is the studio called?", "Shed"),
        ("Name to sign in with", "ana"),
        ("Password", PASSWORD),
    ):
        page.get_by_label(label).fill(words)
    page.get_by_role("button", name=re.compile("studio|Begin|Open", re.I)).last.tap()
    page.get_by_role("link", name="Put the first bag on the shelf").tap()
    page.get_by_label("On the scale").fill("5")
    page.get_by_label("Form").select_option(label="batt")
    tick = page.locator("[name=has_colour]")
    expect(tick).not_to_be_checked()
    page.get_by_label("Colour by eye").evaluate(
        "node => { node.value = '#6f7d43'; node.dispatchEvent(new Event('input', {bubbles: true})); }"
    )
    expect(tick).to_be_checked()
    page.get_by_role("button", name="On the shelf, next bag").tap()
    expect(page.locator(".board.laid")).to_contain_text("green")


def test_two_makers_share_a_tablet_and_z_takes_back_the_one_in_hand(own_site, opened):
    page = opened(own_site, PHONE)
    thumb = Thumb(page)
    sign_in(page)
    page.goto("/s/saltgrass/second-hand/")
    page.get_by_label("name").first.fill("tove")
    page.get_by_label("Password").fill(PASSWORD)
    thumb.enter()
    expect(page.locator(".hand.held")).to_contain_text("Tove")
    thumb.press(page.get_by_role("button", name="Give the tablet to Mira"))
    expect(page.locator(".hand.held")).to_contain_text("Mira")
    thumb.place(3)
    thumb.press(page.locator("a.lot").filter(has_text="kelp"))
    page.get_by_label("How much?").fill("3")
    thumb.press(page.get_by_role("button", name="Take", exact=True))
    expect(page.locator(".boards")).to_contain_text("30")
    thumb.press(page.locator('[data-key="z"]'))
    expect(page.locator(".said")).to_contain_text("Taken back")
    expect(page.locator("a.lot").filter(has_text="kelp")).to_contain_text("33")


def test_keys_lead_everywhere_and_none_acts_in_a_field(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    for key, heading in (("1", "Figures"), ("2", "The plan"), ("3", "The shelf"), ("4", "The colour map"), ("5", "The bench"),
                         ("6", "Tide lines"), ("0", f"{dt.date.today():%A}")):  # fmt: skip
        page.keyboard.press(key)
        expect(page.get_by_role("heading", level=1)).to_contain_text(heading)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Find")
    box = page.get_by_role("searchbox").or_(page.locator("input[name=words]")).first
    box.focus()
    page.keyboard.type("moss 36z")
    expect(box).to_have_value("moss 36z")
    page.keyboard.press("Control+a")
    page.keyboard.type("moss")
    expect(page.get_by_role("link", name=re.compile("moss")).first).to_be_visible()


def test_arrows_walk_over_the_shelf_and_enter_picks(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    page.keyboard.press("3")
    expect(page.get_by_role("heading", level=1)).to_contain_text("The shelf")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    name = page.evaluate("document.activeElement.querySelector('b').textContent")
    page.keyboard.press("Enter")
    expect(page.locator("#tray h2").first).to_have_text(name)
    page.go_back()
    expect(page.locator("#tray h2").first).to_have_text("Pick a bag")


def test_on_a_phone_what_is_picked_lies_under_the_thumb_and_is_put_away(site, opened):
    page = opened(site, PHONE)
    sign_in(page)
    for start, pick, words in (
        ("stash/", "a.lot", "What happened here"),
        ("restock/", "a.tide", "For whom"),
        ("plan/", "svg.upright a.pick", "What it needs"),
    ):
        page.goto(f"/s/saltgrass/{start}")
        chosen = page.locator(pick).nth(1)
        chosen.scroll_into_view_if_needed()
        at = page.evaluate("window.scrollY")
        chosen.tap()
        expect(page.locator("#tray")).to_contain_text(words)
        assert page.locator("#tray h2").first.bounding_box()["y"] < PHONE["viewport"]["height"], start
        if start == "stash/":
            box = at_rest(page.locator('.pick[aria-current="true"]').first)
            sheet = page.locator("#tray").bounding_box()["y"]
            assert box["y"] >= 0 and box["y"] + box["height"] <= sheet, "the picture shows what is picked"
        else:
            at_rest(chosen)
        at = page.evaluate("window.scrollY")
        page.get_by_role("link", name="Put away").tap()
        expect(page.locator("#tray")).not_to_contain_text(words)
        assert page.url.endswith(start)
        assert page.evaluate("window.scrollY") <= at, "it stays, as far as the page is long enough without its sheet"


def test_a_field_says_what_it_understood_and_what_is_wrong_beside_it(own_site, opened):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/stash/?words=kelp")
    page.locator("a.lot").click()
    field = page.get_by_label("How much?")
    field.fill("1 oz")
    expect(page.locator("#u-amount")).to_contain_text("28.3")
    field.fill("1.234,5")
    expect(page.locator("#u-amount")).to_contain_text("Write")
    field.fill("900")
    page.get_by_role("button", name="Take", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("The book says 33 g")
    expect(page.get_by_label("How much?")).to_have_value("900")


def test_who_was_signed_out_meanwhile_comes_back_to_where_she_was(own_site, opened):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/bench/")
    page.locator(".on-the-bench a.pick").first.click()
    expect(page.get_by_role("button", name="Take it")).to_be_visible()
    where = page.url
    page.context.clear_cookies(name="sessionid")
    page.get_by_role("button", name="Take it").click()
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_label("Your name here").fill("mira")
    page.keyboard.press("Enter")
    page.wait_for_url(where)
    expect(page.get_by_role("button", name="Take it")).to_be_visible()
