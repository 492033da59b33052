"""Where the focus, the mark and the words are while a maker works by keys, and that a press is felt at once."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)
SHELF = "/s/saltgrass/stash/"


def focused(page) -> str:
    return page.evaluate("document.activeElement.tagName + ' ' + (document.activeElement.name || '')")


def test_from_the_shelf_into_the_bag_and_back_by_keys(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto(SHELF)
    bag = page.locator("a.lot.pick").nth(3)
    name = bag.locator("b").inner_text()
    bag.focus()
    page.keyboard.press("Enter")
    expect(page.locator("#tray h2").first).to_have_text(name)
    expect(bag).to_have_attribute("aria-current", "true")
    assert page.title().startswith(f"{name}, The shelf")
    page.keyboard.press("Enter")
    assert focused(page) == "INPUT amount", "Enter on what is picked goes into it"
    page.keyboard.press("Enter")
    page.wait_for_load_state()
    expect(page.locator('[aria-invalid="true"]')).to_be_focused()
    page.keyboard.type("1")
    page.keyboard.press("Enter")
    page.wait_for_load_state()
    expect(page.locator(".said")).to_be_visible()
    page.goto(page.url)
    marked = page.locator('a.lot.pick[aria-current="true"]')
    expect(marked).to_have_count(1)
    marked.focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Tab")
    page.keyboard.press("Escape")
    expect(marked).to_be_focused()


def test_a_link_leads_past_the_picture_and_the_keys_are_told(opened, site):
    page = opened(site, DESK)
    sign_in(page)
    page.goto(SHELF)
    page.keyboard.press("Tab")
    page.keyboard.press("Tab")
    assert page.evaluate("document.activeElement.textContent") == "To what is picked"
    page.keyboard.press("Enter")
    assert page.evaluate("document.activeElement.id") == "tray"
    page.get_by_role("button", name="Keys of this screen").click()
    expect(page.get_by_role("dialog")).to_contain_text("back to what is picked")


def test_what_a_sieve_leaves_is_said_and_a_changed_size_keeps_the_focus(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto(SHELF)
    page.get_by_label("Search the shelf").fill("moss")
    expect(page.locator("#told")).to_have_text(re.compile(r"^\d+ bags? so$"))
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Hare").first.click()
    page.goto(page.url.split("?")[0] + "?part=head")
    size = page.locator(".tray input.form-control[name$=_mm]").first
    size.fill("41")
    with page.expect_response(lambda answer: answer.request.method == "POST"):
        page.keyboard.press("Tab")
    settled(page)
    assert focused(page) != "BODY ", "the focus is not lost when the picture is drawn anew"
    expect(page.locator("#told")).to_contain_text(" g")


def test_on_a_phone_what_is_picked_stands_above_its_sheet(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    page.goto(SHELF)
    bag = page.locator("a.lot.pick").nth(9)
    bag.tap()
    expect(bag).to_have_attribute("aria-current", "true")
    page.wait_for_function("""() => {
      const bag = document.querySelector('.pick[aria-current="true"]').getBoundingClientRect();
      return bag.top >= 0 && bag.bottom <= document.getElementById("tray").getBoundingClientRect().top;
    }""")


def test_without_script_the_places_and_the_search_are_there(browser, site):
    for device in (DESK, PHONE):
        context = browser.new_context(base_url=site, java_script_enabled=False, **device)
        page = context.new_page()
        page.goto("/")
        page.locator("[name=username]").fill("mira")
        page.locator("[name=password]").fill("saltgrass-felt")
        page.locator("form button").first.click()
        page.locator("nav a").filter(has_text="Stash").click()
        expect(page.get_by_role("heading", name="The shelf")).to_be_visible()
        page.goto("/s/saltgrass/find/")
        page.locator("#words").fill("moss")
        page.get_by_role("button", name="Find", exact=True).click()
        expect(page.locator("#found")).to_contain_text("moss")
        context.close()


def test_a_press_is_felt_before_the_answer_comes(opened, own_site):
    """On a line of 300 kb/s that takes 400 ms to answer."""
    page = opened(own_site, PHONE)
    sign_in(page)
    line = page.context.new_cdp_session(page)
    slow = {"offline": False, "latency": 400, "downloadThroughput": 37_500, "uploadThroughput": 37_500}
    page.goto(SHELF)
    line.send("Network.emulateNetworkConditions", slow)
    felt = """(selector) => {
      const node = document.querySelector(selector);
      node.click();
      return Boolean(node.matches(".going, .htmx-request") || node.closest(".htmx-request"));
    }"""
    assert page.evaluate(felt, "a.lot.pick"), "at once, not when it is answered"
    page.locator("#tray h2").first.wait_for()
    assert page.evaluate(felt, ".house"), "also when it leads to another page"


ZOOMED = {"viewport": {"width": 320, "height": 256}}  # a screen of 1280 × 1024 at 400 %
LYING = {**PHONE, "viewport": {"width": 844, "height": 390}}
COVERED = """() => {
  const seen = [...document.querySelectorAll(".strip summary, .strip .hand.held, .strip .tools > *, .strip .tools button")]
    .filter((each) => each.getClientRects().length && !each.closest(".visually-hidden"))
    .map((each) => [each.textContent.trim().split("\\n")[0], each.getBoundingClientRect()]);
  const wrong = [];
  for (const [name, box] of seen) {
    if (box.left < -1 || box.right > innerWidth + 1) wrong.push(`${name} leaves the screen`);
    for (const [other, its] of seen) {
      const over = Math.min(box.right, its.right) - Math.max(box.left, its.left);
      if (other < name && over > 1 && !name.includes(other) && !other.includes(name)) wrong.push(`${name} over ${other}`);
    }
  }
  return wrong;
}"""


@pytest.mark.parametrize("device", [ZOOMED, LYING], ids=["at 400 %", "lying"])
def test_a_low_screen_shows_where_one_is_and_all_of_the_strip(opened, site, device):
    page = opened(site, device)
    sign_in(page)
    for address in ("", "colour/", "restock/", "bench/"):
        page.goto(f"/s/saltgrass/{address}")
        assert page.evaluate(COVERED) == [], address
        expect(page.locator("h1").first).to_be_in_viewport()
    page.locator("a[href*='/bench/']").filter(has=page.locator("svg")).first.click()
    page.locator("[data-ink]").wait_for()
    settled(page)
    expect(page.locator("h1").first).to_be_in_viewport()
    expect(page.locator("[data-ink]")).to_be_focused()
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0
