"""From a figure to an order, and back to the bench: the way a maker goes on her first day."""

import datetime as dt
import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in
from tests.browser.hands import Keys, Thumb

pytestmark = pytest.mark.sampled("journeys", 4)

GRAMS = re.compile(r"([\d.]+)\s*g\b")


def grams_of(text: str) -> float:
    return float(GRAMS.search(text).group(1))


@pytest.mark.parametrize(("device", "way"), [(DESK, Keys), (PHONE, Thumb)], ids=["desk by keyboard", "phone by touch"])
def test_from_a_figure_to_an_order_and_the_pull(own_site, opened, device, way):
    page = opened(own_site, device)
    hand = way(page)
    sign_in(page)
    stays_within(page)

    look_at_the_shelf(page, hand)
    describe_a_snail(page, hand)
    short = plan_four(page, hand)
    order_in_time(page, hand, short)
    unpack_the_parcel(page, hand)
    take_for_the_body(page, hand)


def stays_within(page):
    """Nothing makes the page wider than the screen."""
    wide, screen = page.evaluate("[document.documentElement.scrollWidth, window.innerWidth]")
    assert wide <= screen + 1, f"{page.url} is {wide} px wide on a screen of {screen}"


def look_at_the_shelf(page, hand):
    hand.place(3)
    expect(page.get_by_role("heading", name="The shelf")).to_be_visible()
    assert page.locator("a.lot").count() >= 60
    stays_within(page)
    hand.write(page.get_by_label("Search the shelf"), "moss")
    expect(page.locator("a.lot")).to_have_count(1)
    hand.press(page.locator("a.lot"))
    expect(page.get_by_role("heading", name="What happened here")).to_be_visible()
    stays_within(page)


def describe_a_snail(page, hand):
    hand.place(1)
    expect(page.get_by_role("heading", name="Figures")).to_be_visible()
    stays_within(page)
    hand.press(page.get_by_role("link", name="A new figure"))
    hand.write(page.get_by_label("What is it?"), "Dune snail")
    hand.enter()
    for kind, length, understood in (("body", "60", "60"), ("shell", "4,5 cm", "45"), ("head", '3/4"', "19")):
        if kind != "body":
            hand.press(page.get_by_role("link", name="a new part", exact=True))
        hand.choose(page.get_by_label("What is it?"), kind)
        hand.write(page.get_by_label("How long?"), length)
        expect(page.locator("#u-length")).to_contain_text(understood)
        hand.press(page.get_by_role("button", name="Add it"))
        expect(page.locator("#tray h2").first).to_have_text(kind)
        stays_within(page)
    assert page.locator(".views svg path").count() > 6, "the snail is drawn from the side and from the front"
    before = grams_of(page.locator("#picture h1").inner_text())
    hand.press(page.locator(".strip-of-parts").get_by_role("link", name="shell"))
    hand.write(page.get_by_label("long", exact=True), "60 mm")
    page.keyboard.press("Tab")
    expect(page.locator("#picture h1")).not_to_contain_text(f"{before:g} g")
    assert grams_of(page.locator("#picture h1").inner_text()) > before
    hand.press(page.get_by_role("link", name="a new part", exact=True))
    for slot, fibre in (("core", "core"), ("main", "moss")):
        hand.choose(page.get_by_label(f"Fibre for {slot}"), fibre)
        expect(page.locator(".sums")).to_contain_text(fibre)
        settled(page)


def plan_four(page, hand) -> float:
    """Four snails for a market day in five weeks; the grams of moss that are short."""
    hand.press(page.get_by_role("link", name="Plan some of these"))
    hand.write(page.get_by_label("How many?"), "4")
    day = dt.date.fromisoformat(page.get_by_label("For when?").input_value())
    assert day > dt.date.today()
    hand.write(page.get_by_label("What for?"), "Market day")
    hand.press(page.get_by_role("button", name="Plan it"))
    expect(page.get_by_role("heading", name="Market day")).to_be_visible()
    expect(page.locator("#tray .short")).to_contain_text("moss")
    stays_within(page)
    return grams_of(page.locator("#tray .short").inner_text())


def order_in_time(page, hand, short: float):
    hand.press(page.get_by_role("link", name="See when to order"))
    tray = page.locator("#tray")
    expect(tray).to_contain_text("Order by")
    expect(tray).to_contain_text("Market day")
    assert grams_of(tray.locator(".weight").inner_text()) >= short
    stays_within(page)
    hand.press(page.get_by_role("button", name="Put on the list"))
    expect(page.get_by_role("heading", name=re.compile("List for"))).to_be_visible()
    hand.press(page.get_by_role("button", name="I have sent it"))
    expect(page.locator("#tray")).to_contain_text("From Spindle and Tide")


def unpack_the_parcel(page, hand):
    parcel = page.locator("section.order").filter(has_text="moss")
    hand.press(parcel.get_by_role("link", name="It has come"))
    stays_within(page)
    packs = page.locator(".parcel .pack")
    for _ in range(packs.count()):
        hand.press(packs.first)
    expect(page.get_by_role("button", name=re.compile(r"(\d+) of \1 packs on the shelf"))).to_be_visible()
    hand.write(page.get_by_label("Dye lot"), "M-77")
    hand.press(page.get_by_role("button", name="On the shelf"))
    expect(page.locator(".said")).to_contain_text("is on the shelf")
    hand.place(6)
    expect(page.get_by_role("heading", name="Tide lines")).to_be_visible()
    expect(page.locator(".tide").filter(has_text="moss").filter(has_text="Runs out")).to_have_count(0)


def take_for_the_body(page, hand):
    """Begin one; Enter takes the wool of the first part; the shelf has so much less; Z brings it back."""
    hand.place(2)
    hand.press(page.locator("a.pick").filter(has_text="Market day").filter(visible=True))
    hand.press(page.get_by_role("button", name="Begin dune snail 1"))
    expect(page.get_by_role("heading", name="body, inside")).to_be_visible()
    stays_within(page)
    asked = float(page.get_by_label("On the scale").input_value())
    bag = page.locator("#tray p").filter(has_text="in the bag")
    before = grams_of(bag.inner_text().split("\n")[-1])
    with page.expect_response("**/strip/") as strip:
        hand.enter()
    expect(page.get_by_role("heading", name="body, inside")).to_have_count(0)
    now = re.search(r'id="live-3"[^>]*>([^<]+)<', strip.value.text())[1]
    expect(page.locator("#live-3")).to_have_text(now)
    hand.press(page.locator("[rel=prev]"))  # another part's wool came next
    first = page.locator(".layer-list a").first
    expect(first).to_contain_text(f"taken {asked:g}")
    hand.press(first)
    after = grams_of(bag.inner_text().split("\n")[-1])
    assert before - after == pytest.approx(asked, abs=1.0 if before >= 100 else 0.02)  # each of both is rounded
    hand.press(page.locator('[data-key="z"]'))
    expect(page.locator(".said")).to_contain_text("back")
