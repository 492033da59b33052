"""From a short colour to a stand-in, from a picture to a bag's colour, along the shelf by keys, out and in as a file."""

import io
import re

import pytest
from PIL import Image, ImageDraw
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, at_rest, settled, sign_in
from tests.browser.hands import Keys, Thumb

pytestmark = pytest.mark.sampled("journeys", 4)

MOSS = (0x6F, 0x7D, 0x43)


@pytest.mark.parametrize(("device", "way"), [(DESK, Keys), (PHONE, Thumb)], ids=["desk by keyboard", "phone by touch"])
def test_a_short_colour_is_carded_and_the_shortage_vanishes(own_site, opened, device, way):
    page = opened(own_site, device)
    hand = way(page)
    sign_in(page)
    hand.place(2)
    hand.press(page.locator("a.pick:visible").filter(has_text="Snail race"))
    expect(page.locator("#tray .short")).to_contain_text("moss")
    hand.press(page.locator("#tray .short").get_by_role("link", name=re.compile("moss")))
    expect(page.get_by_role("heading", level=1)).to_contain_text("of moss short")
    answer = page.locator("section.answer").filter(has_text="carded together").first
    hand.press(answer.locator("button.ink"))
    expect(page.locator(".said")).to_contain_text("stands in for moss")
    expect(page.locator("#tray")).to_contain_text("moss blend stands in for moss")
    expect(page.locator("#tray .short").filter(has_text="moss")).to_have_count(0)
    hand.place(3)
    expect(page.locator("a.lot").filter(has_text="moss blend")).to_have_count(1)


def card_picture() -> bytes:
    """A white card and a heap of moss on a table, under a warm lamp."""
    lamp = (1.0, 0.9, 0.78)

    def lit(colour):
        return tuple(round(value * each * 0.9) for value, each in zip(colour, lamp, strict=True))

    image = Image.new("RGB", (900, 600), lit((120, 100, 80)))
    draw = ImageDraw.Draw(image)
    draw.rectangle((80, 150, 360, 450), fill=lit((243, 243, 243)))
    draw.ellipse((480, 130, 820, 470), fill=lit(MOSS))
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


@pytest.mark.parametrize("device", [DESK, PHONE], ids=["desk", "phone"])
def test_from_a_photograph_to_the_colour_of_a_bag(own_site, opened, device):
    page = opened(own_site, device)
    sign_in(page)
    page.goto("/s/saltgrass/stash/?words=grey+fell")
    page.locator("a.lot").click()
    page.get_by_role("link", name="Its colour").click()
    page.get_by_label(re.compile("picture")).set_input_files(
        {"name": "x.png", "mimeType": "image/png", "buffer": card_picture()}
    )
    page.get_by_role("button", name="Use this picture").click()
    shot = page.locator("#shot")
    expect(shot).to_be_visible()
    settled(page)
    shot.scroll_into_view_if_needed()
    box = at_rest(shot)
    for x in (220 / 900, 650 / 900):
        shot.click(position={"x": box["width"] * x, "y": box["height"] / 2})
    expect(page.locator(".spot:visible")).to_have_count(2)
    page.get_by_role("button", name="Read the colour").click()
    expect(page.get_by_text("The picture says this")).to_be_visible()
    page.get_by_role("button", name="Keep it").click()
    expect(page.locator(".said")).to_contain_text("has its colour")
    seen = page.locator(".big-wool use").first.get_attribute("fill")
    away = max(abs(int(seen[i : i + 2], 16) - value) for i, value in zip((1, 3, 5), MOSS, strict=True))
    assert away < 16, seen


def test_a_shelf_is_recounted_by_keys(own_site, opened):
    page = opened(own_site, DESK)
    sign_in(page)
    page.keyboard.press("3")
    expect(page.get_by_role("heading", level=1)).to_contain_text("The shelf")
    Keys(page).press(page.get_by_role("link", name="Walk along the shelf"))
    Keys(page).press(page.get_by_role("link", name=re.compile("Drawer C3")))
    names = []
    for grams in ("35", "", "60.5", "11.9"):
        expect(page.get_by_label("On the scale")).to_be_focused()
        names.append(page.get_by_role("heading", level=1).inner_text())
        page.keyboard.type(grams)
        page.keyboard.press("Enter")
        settled(page)
    expect(page.get_by_role("heading", level=1)).to_contain_text("Drawer C3: 1 of 4 not weighed today")
    Keys(page).press(page.get_by_role("link", name=f"{names[1].split(maxsplit=1)[0]} on the scale"))
    for grams in ("41", "", ""):
        expect(page.get_by_label("On the scale")).to_be_focused()
        page.keyboard.type(grams)
        page.keyboard.press("Enter")
        settled(page)
    expect(page.get_by_role("heading", level=1)).to_contain_text("Drawer C3 is true")
    assert len(set(names)) >= 3
    assert page.locator("ul.work").get_by_text("today").count() >= 3


def test_the_stash_goes_out_comes_in_and_goes_out_the_same(own_site, opened):
    page = opened(own_site, DESK)
    sign_in(page)

    def out() -> bytes:
        return page.request.get("/s/saltgrass/stash/files/stash.csv").body()

    def bring_in(name: str, table: bytes) -> None:
        page.goto("/s/saltgrass/stash/files/")
        page.get_by_label(re.compile("A table of bags")).set_input_files(
            {"name": name, "mimeType": "text/csv", "buffer": table}
        )
        page.get_by_role("button", name="Look at it first").click()
        expect(page.get_by_role("heading", level=1)).to_contain_text(name)

    before = out()
    bring_in("same.csv", before)
    expect(page.locator(".fate-line")).to_contain_text("as it is")
    expect(page.get_by_text("There is nothing new in it")).to_be_visible()
    more = b"name;form;breed;grams\r\nsea holly;tops;Merino;12,5\r\n"
    for new in (True, False):
        bring_in("more.csv", more)
        expect(page.locator(".fate-line")).to_contain_text("new bag" if new else "came in before")
        if new:
            page.get_by_role("button", name="Take it in").click()
            expect(page.get_by_role("link", name="To the shelf")).to_be_visible()
    assert out().count(b"sea holly") == 1
    assert before in out().replace(out().splitlines(keepends=True)[-1], b"")


def test_the_map_is_asked_by_mouse_and_by_keys(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    page.keyboard.press("4")
    expect(page.get_by_role("heading", level=1)).to_contain_text("The colour map")
    box = at_rest(page.locator("#map"))
    page.mouse.click(box["x"] + box["width"] * 0.9, box["y"] + box["height"] * 0.1)
    expect(page.locator("#tray h2")).to_contain_text("L a b 55")
    page.get_by_label("The map").select_option("lightness")
    expect(page.get_by_role("heading", level=1)).to_contain_text("upwards by lightness")
    page.keyboard.press("Escape")
    page.locator("#picture").focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(page.locator("#tray")).to_contain_text("Nearly this, on the shelf")
    page.get_by_text("What will it look like?").first.click()
    picture = page.locator(".tufts img").first
    picture.scroll_into_view_if_needed()
    page.wait_for_function("() => document.querySelector('.tufts img').naturalWidth > 0")


UNCOVERED = """() => {
  for (const board of document.querySelectorAll("[data-board]")) {
    const all = [...board.querySelectorAll("a.pick circle")].map((each) => each.getBoundingClientRect());
    const round = all.map((box) => [box.left + box.width / 2, box.top + box.height / 2, box.width / 2]);
    for (const [n, [x, y, r]] of round.entries())
      for (const [x2, y2, r2] of round.slice(n + 1))
        if (Math.hypot(x - x2, y - y2) < (r + r2) * 0.68) return `two at ${x.toFixed()}, ${y.toFixed()}`;
    const small = round.find(([, , r]) => 2 * r < 13.5);
    if (small) return `a mark of ${(2 * small[2]).toFixed(1)} px`;
  }
  return "";
}"""


@pytest.mark.parametrize("device", [DESK, PHONE], ids=["desk", "phone"])
def test_no_bag_of_the_map_covers_another_and_the_nearest_answers(site, opened, device):
    page = opened(site, device)
    sign_in(page)
    page.goto("/s/saltgrass/colour/")
    assert page.evaluate(UNCOVERED) == ""
    mark = page.locator("#map a.pick").last
    name = mark.get_attribute("aria-label").split(",")[0]
    box = at_rest(mark.locator("circle"))
    beside = (box["x"] + box["width"] + 5, box["y"] + box["height"] / 2)
    if device == DESK:
        page.mouse.click(*beside)
    else:
        page.touchscreen.tap(*beside)
    expect(page.locator("#tray h2").first).to_contain_text(name)


def test_arrows_go_to_the_bag_that_lies_there(site, opened):
    page = opened(site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/colour/")
    where = "document.activeElement.querySelector('circle').getBoundingClientRect()"
    page.locator('[data-board="ladder"] a.pick').first.focus()
    before = page.evaluate(f"{where}.x")
    for _ in range(8):
        page.keyboard.press("ArrowRight")
    assert page.evaluate(f"{where}.x") > before
    assert page.evaluate("document.activeElement.closest('[data-board]').dataset.board") == "disc", "over to the disc"
    above = page.evaluate(f"{where}.y")
    page.keyboard.press("ArrowUp")
    assert page.evaluate(f"{where}.y") <= above


def test_a_held_finger_lifts_a_loupe_and_lets_go_on_a_bag(site, opened):
    page = opened(site, PHONE)
    sign_in(page)
    page.goto("/s/saltgrass/colour/")
    mark = page.locator("#map a.pick").last
    name = mark.get_attribute("aria-label").split(",")[0]
    box = at_rest(mark.locator("circle"))
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    finger = page.context.new_cdp_session(page)
    finger.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [{"x": x + 30, "y": y + 10}]})
    expect(page.locator(".loupe")).to_be_visible()
    finger.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [{"x": x, "y": y}]})
    finger.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    expect(page.locator(".loupe")).to_have_count(0)
    expect(page.locator("#tray h2").first).to_contain_text(name)
