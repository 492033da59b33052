"""A figure turned by keys and under a finger, printed in four views; an order of work read step by step."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, at_rest, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)
BY_KEY = [("f", 90, 0), ("b", 270, 0), ("s", 0, 0), ("a", 0, 90), ("u", 0, -90)]


MOVES = """async () => {
  const table = document.querySelector("[data-turntable]");
  table.dispatchEvent(new KeyboardEvent("keydown", {key: "ArrowRight", bubbles: true}));
  await new Promise(requestAnimationFrame);
  await new Promise(requestAnimationFrame);
  return !table.querySelector("canvas").hidden;
}"""


def at(page):
    drawn = page.locator("svg.turned")
    return int(drawn.get_attribute("data-turn")), int(drawn.get_attribute("data-tilt"))


def painted(page) -> int:
    """How many dots of the canvas are painted."""
    return page.evaluate("""() => {
      const canvas = document.querySelector(".turn-stand canvas");
      const dots = canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height).data;
      let count = 0;
      for (let each = 3; each < dots.length; each += 4) count += dots[each] > 0;
      return count;
    }""")


def opened_on(page, figure: str, more: str = ""):
    page.goto(page.url.rstrip("/").split("/s/")[0] + "/s/saltgrass/figures/")
    page.get_by_role("link", name=re.compile(figure)).first.click()
    expect(page.get_by_role("heading", name=re.compile(figure))).to_be_visible()
    if more:
        page.goto(page.url.split("?")[0] + more)


def test_an_octopus_is_turned_by_keys_and_printed_in_four_views(opened, site):
    page = opened(site, DESK)
    sign_in(page)
    opened_on(page, "Octopus")
    page.get_by_role("link", name="turned").click()
    settled(page)
    table = page.locator("[data-turntable]")
    table.focus()
    begun = at(page)
    with page.expect_response(lambda answer: "/turned/mesh/" in answer.url):
        page.keyboard.press("ArrowRight")
    expect(page.locator("svg.turned")).to_have_attribute("data-turn", str(begun[0] + 15))
    page.keyboard.press("ArrowLeft")
    expect(page.locator("svg.turned")).to_have_attribute("data-turn", str(begun[0]))
    assert page.evaluate(MOVES), "faces at once, before the server's drawing comes"
    assert painted(page) > 1000
    expect(page.locator("svg.turned")).to_have_attribute("data-turn", str(begun[0] + 15))
    expect(page.locator(".turn-stand canvas")).to_be_hidden()
    page.keyboard.press("ArrowUp")
    expect(page.locator("svg.turned")).to_have_attribute("data-tilt", str(begun[1] + 15))
    for key, turn, tilt in BY_KEY:
        page.keyboard.press(key)
        expect(page.locator("svg.turned")).to_have_attribute("data-turn", str(turn))
        expect(page.locator("svg.turned")).to_have_attribute("data-tilt", str(tilt))
    page.get_by_role("link", name="Four views to print").click()
    expect(page.locator(".four-views svg")).to_have_count(4)
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print it")).to_be_hidden()
    boxes = [each.bounding_box() for each in page.locator(".four-views svg").all()]
    assert len({round(box["width"]) for box in boxes}) == 1, "one scale"
    assert max(box["x"] + box["width"] for box in boxes) <= 1280


def test_a_finger_turns_it_and_without_a_line_the_faces_stay(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    opened_on(page, "Hare", "?see=turn&turn=0&tilt=0")
    box = at_rest(page.locator(".turn-stand"))
    page.locator(".turn-stand").scroll_into_view_if_needed()
    box = at_rest(page.locator(".turn-stand"))
    finger = page.context.new_cdp_session(page)
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def touch(kind, *points):
        finger.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": [{"x": a, "y": b} for a, b in points]})

    with page.expect_response(lambda answer: "/turned/mesh/" in answer.url):
        touch("touchStart", (x, y))
    for k in range(1, 9):
        touch("touchMove", (x - 12 * k, y + 4 * k))
    expect(page.locator(".turn-stand canvas")).to_be_visible()  # it stays while the finger holds it
    assert painted(page) > 1000
    scrolled = page.evaluate("scrollY")
    touch("touchEnd")
    expect(page.locator(".turn-stand canvas")).to_be_hidden()
    turn, tilt = at(page)
    assert 30 < turn < 100, "a drag to the left shows more of the front"
    assert 5 < tilt < 45
    assert page.evaluate("scrollY") == scrolled, "the page stays where it is"


def test_the_order_of_an_octopus_is_read_step_by_step_on_a_phone(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    opened_on(page, "Octopus")
    page.goto(page.url.split("?")[0] + "order/?step=gather")
    titles = [page.locator("#tray h2").first.inner_text()]
    for away, number in ((-120, "2 "), (120, "1 ")):
        box = at_rest(page.locator(".one-state"))
        x, y = box["x"] + box["width"] / 2, box["y"] + 60
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + away, y + 5, steps=4)
        page.mouse.up()
        expect(page.locator("#tray h2").first).to_contain_text(number)
    following = page.get_by_role("link", name="Next", exact=True)
    while following.count():
        box = following.bounding_box()
        assert box["height"] >= 72
        assert box["y"] + box["height"] <= 844, "Next stays under the thumb"
        before = titles[-1]
        following.click()
        expect(page.locator("#tray h2").first).not_to_have_text(before)
        titles.append(page.locator("#tray h2").first.inner_text())
    words = [title.split(" ", 1)[1] for title in titles]
    assert [int(title.split()[0]) for title in titles] == list(range(1, len(titles) + 1))
    thread, wind, join = (
        next(n for n, each in enumerate(words) if each.startswith(verb)) for verb in ("Thread", "Wind", "Join 8")
    )
    assert thread < wind < join, "the bare wire goes through before it is wound"
    assert words[-1] == "Put away"
