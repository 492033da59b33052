"""A heron drawn from a picture: the distance is said, the outline clicked, a point dragged and keyed, the part made;
then its templates are printed."""

import re
from pathlib import Path

import pytest

from tests.browser.conftest import DESK, PHONE, at_rest, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)

# the body's outline on the demo's sketch, as shares of the picture
OUTLINE = [(0.14, 0.61), (0.37, 0.435), (0.555, 0.41), (0.58, 0.45), (0.48, 0.55), (0.30, 0.595)]


def begin(page):
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Heron").first.click()
    page.get_by_role("link", name="Draw a part").click()
    page.locator('input[name="reference"]').nth(1).check()
    page.get_by_role("button", name="Begin to draw").click()
    page.locator("#board").wait_for()
    page.wait_for_function("() => window.htmx !== undefined")


def spot(page, share):
    """Where a share of the picture lies on the screen."""
    return page.evaluate(
        """([x, y]) => { const board = document.getElementById("board"); const box = board.viewBox.baseVal;
        const point = new DOMPoint(x * box.width, y * box.height).matrixTransform(board.getScreenCTM());
        return [point.x, point.y]; }""",
        share,
    )


def drag(page, handle, share):
    box = at_rest(page.locator(handle))
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(*spot(page, share), steps=5)
    with page.expect_response(lambda answer: answer.request.method == "POST" and "/draw/" in answer.url):
        page.mouse.up()
    settled(page)


def mark_the_line(page):
    """The crosses onto the sketch's line of 100 mm: 4 px a mm, its left end 30 mm from the edge, 18 mm from below."""
    wide, high = page.evaluate("() => { const box = board.viewBox.baseVal; return [box.width, box.height]; }")
    drag(page, "#mark-0", (120 / wide, (high - 72) / high))
    drag(page, "#mark-1", (520 / wide, (high - 72) / high))


def grams(page) -> float:
    return float(page.locator("#drawn-weight .weight .num").inner_text())


def test_a_heron_is_drawn_from_a_picture(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    begin(page)
    mark_the_line(page)
    assert page.evaluate("() => Number(document.getElementById('board').dataset.mm)") == pytest.approx(0.25, rel=0.02)
    for number, share in enumerate(OUTLINE):
        page.mouse.click(*spot(page, share))
        page.locator(f"#point-{number}").wait_for()
        settled(page)
    before = grams(page)
    drag(page, "#point-1", (OUTLINE[1][0], OUTLINE[1][1] - 0.04))
    larger = grams(page)
    assert larger > before * 1.05
    page.locator("#point-1").focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowDown")
    page.wait_for_function(f"() => Number(document.querySelector('#drawn-weight .num').textContent) < {larger}")
    with page.expect_response(lambda answer: answer.request.method == "POST" and "/draw/" in answer.url):
        page.locator("#point-3").focus()
        page.keyboard.press("Delete")
    page.locator("#point-5").wait_for(state="detached")
    settled(page)
    page.get_by_label("Called").fill("drawn body")
    page.get_by_role("button", name="Make it a part").click()
    page.locator(".strip-of-parts .in-hand").filter(has_text="drawn body").wait_for()


def test_points_are_put_and_moved_with_a_finger(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    begin(page)
    for number, share in enumerate([OUTLINE[0], OUTLINE[1], OUTLINE[3], OUTLINE[5]]):
        page.locator("#board").scroll_into_view_if_needed()
        page.touchscreen.tap(*spot(page, share))
        page.locator(f"#point-{number}").wait_for()
        settled(page)
    assert grams(page) > 0


def test_templates_are_printed_and_their_line_measured(opened, site):
    page = opened(site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Heron").first.click()
    page.get_by_role("link", name="Templates at true size").click()
    shown = page.locator(".sheets svg #check").first.get_attribute("d")
    assert shown == "M10.00 283.00L110.00 283.00"
    with page.expect_download() as coming:
        page.get_by_role("link", name="PDF to print").click()
    pdf = Path(coming.value.path()).read_bytes()
    lines = re.findall(rb"n ([\d.]+) ([\d.]+) m ([\d.]+) ([\d.]+) l S", pdf)
    level = [(float(c) - float(a)) * 25.4 / 72 for a, b, c, d in lines if b == d]
    assert max(level) == pytest.approx(100, abs=0.01)
