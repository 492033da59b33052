"""What is picked lies over the picture on a phone, low, half or full, on every page that has something to pick."""

import re

import pytest

from tests.browser.conftest import PHONE, settled, sign_in
from tests.browser.test_screens import Addresses

pytestmark = pytest.mark.sampled("sheets", 2)
LOW_PX, ROW_PX, HANDLE_PX = 168, 52, 48
PICKED = ["lot", "project", "shortage", "part", "step", "answers"]


def sheet(page):
    page.wait_for_timeout(300)
    return page.locator("#tray").bounding_box()


def addresses(page):
    there = Addresses(page)
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Heron").first.click()
    settled(page)
    figure = page.url.split("?")[0]
    page.goto(f"{figure}order/")
    step = page.locator(".state a.pick").nth(4).get_attribute("href")
    own = {
        "part": f"{figure}?part=head",
        "step": f"{figure}order/{step}",
        "answers": "/s/saltgrass/colour/?colour=6f7d43",
    }
    return {key: own.get(key) or there[key] for key in PICKED}


def test_every_sheet_has_three_heights_and_says_name_and_number_in_the_lowest(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    high = PHONE["viewport"]["height"]
    for key, address in addresses(page).items():
        page.evaluate("sessionStorage.removeItem('sheet')")
        page.goto(address)
        settled(page)
        grip = page.locator("[data-grip]")
        assert grip.bounding_box()["height"] == HANDLE_PX, key
        half = sheet(page)
        assert half["height"] == pytest.approx(high / 2, abs=2), key
        grip.click()
        full = sheet(page)
        assert full["y"] >= ROW_PX - 1, "the strip is never covered"
        assert full["height"] > half["height"], key
        grip.click()
        low = sheet(page)
        assert low["height"] == pytest.approx(LOW_PX, abs=1), key
        name = page.locator("#tray h2").first
        assert name.bounding_box()["y"] >= low["y"] + HANDLE_PX - 1, f"{key}: the name is in sight"
        said = page.locator("#tray .weight:visible, #tray .pair:visible").first
        box = said.bounding_box()
        assert box["y"] + box["height"] <= high, f"{key}: the number is in sight"
        for button in page.locator("#tray .btn:visible").all():
            box = button.bounding_box()
            assert box["height"] >= 44 and box["y"] + box["height"] <= high, f"{key}: what is to be pressed is in sight"
        assert "half" in grip.get_attribute("aria-label"), "it says what a press will do"


def test_the_grip_goes_by_finger_and_by_arrows(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/stash/")
    page.locator("a.pick").nth(3).click()
    settled(page)
    half = sheet(page)
    finger = page.context.new_cdp_session(page)
    middle = {"x": 120, "y": half["y"] + 24}

    def touch(kind, by):
        points = [] if by is None else [{"x": middle["x"], "y": middle["y"] + by}]
        finger.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    touch("touchStart", 0)
    for by in range(20, 261, 40):
        touch("touchMove", by)
    touch("touchEnd", None)
    assert sheet(page)["height"] == pytest.approx(LOW_PX, abs=1), "drawn down it lies low"
    page.locator("a.pick").nth(5).click()
    settled(page)
    assert sheet(page)["height"] == pytest.approx(LOW_PX, abs=1), "the next one opens as low"
    grip = page.locator("[data-grip]")
    grip.focus()
    page.keyboard.press("ArrowUp")
    assert sheet(page)["height"] == pytest.approx(half["height"], abs=2)
    page.keyboard.press("ArrowUp")
    full = sheet(page)
    assert full["height"] > half["height"] and full["y"] >= ROW_PX - 1
    page.keyboard.press("ArrowDown")
    assert sheet(page)["height"] == pytest.approx(half["height"], abs=2)


def test_taken_from_the_lowest_sheet(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    page.evaluate("sessionStorage.setItem('sheet', 'low')")
    page.goto("/s/saltgrass/stash/")
    page.locator("a.pick").filter(has_text="harbour").first.click()
    settled(page)
    before = page.locator("#tray .weight").inner_text()
    page.locator("#tray [name=amount]").fill("2")
    page.get_by_role("button", name="Take", exact=True).click()
    page.wait_for_load_state("networkidle")
    assert page.locator("#tray .weight").inner_text() != before
    assert sheet(page)["height"] == pytest.approx(LOW_PX, abs=1)


def test_a_picked_part_is_seen_above_its_sheet(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Heron").first.click()
    settled(page)
    page.goto(f"{page.url.split('?')[0]}?part=neck")
    for part in ("head", "body", "tail"):
        page.locator(".strip-of-parts a").filter(has_text=re.compile(f"^\\s*{part}\\s*$")).first.click()
        settled(page)
        page.wait_for_timeout(500)
        box = page.locator("#drawing .in-hand").first.bounding_box()
        top = sheet(page)["y"]
        assert box["y"] >= 0 and box["y"] + min(box["height"], top - ROW_PX) <= top, part
        chip = page.locator(".strip-of-parts .in-hand").bounding_box()
        assert chip["x"] >= 0 and chip["x"] + chip["width"] <= 390, f"{part}: its name is in sight"


def test_the_strip_is_one_row_and_unfolds_over_the_page(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    for address in ("", "stash/", "plan/", "figures/", "bench/"):
        page.goto(f"/s/saltgrass/{address}")
        assert page.locator("header.strip").bounding_box()["height"] == pytest.approx(ROW_PX, abs=1), address
    before = page.locator("h1").bounding_box()
    page.locator(".fold summary").click()
    assert page.locator("h1").bounding_box() == before, "nothing is pushed down"
    page.get_by_role("link", name="Today Saltgrass").click()
    page.wait_for_url("**/s/saltgrass/")


COVERED = """() => {
  const { activeElement: at } = document;
  const box = at.getBoundingClientRect();
  const [x, y] = [box.x + box.width / 2, Math.min(Math.max(box.y + 6, 0), box.bottom - 1)];
  const over = document.elementFromPoint(x, y);
  const seen = over && (at.contains(over) || over.contains(at));
  return seen ? "" : `${at.outerHTML.slice(0, 90)} at ${Math.round(box.y)} is under ${over && over.tagName}`;
}"""


@pytest.mark.parametrize("height", ["half", "low"])
def test_what_has_the_focus_is_never_under_the_sheet(opened, site, height):
    page = opened(site, PHONE)
    sign_in(page)
    for address in ("stash/", "restock/"):
        page.goto(f"/s/saltgrass/{address}")
        page.locator("#picture a.pick").first.click()
        settled(page)
        if height == "low":
            page.evaluate("sessionStorage.setItem('sheet', 'low')")
            page.reload()
        sheet(page)
        page.locator("#picture").focus()
        for _ in range(24):
            page.keyboard.press("Tab")
            page.wait_for_timeout(80)
            if page.evaluate("Boolean(document.activeElement.closest('#picture'))"):
                assert page.evaluate(COVERED) == "", address
