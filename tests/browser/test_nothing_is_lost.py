"""Nothing that is typed or touched is lost: quick hands, slow lines, fingers, presses that fail."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, at_rest, settled, sign_in
from tests.browser.test_figure_by_hand import at_part, place_of

pytestmark = pytest.mark.sampled("journeys", 4)


def test_two_sizes_with_tab_between_are_both_kept(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    at_part(page, "Hare", "body")
    fields = page.locator("form.sizes input[name$=_mm]")
    fields.nth(0).click()
    fields.nth(0).fill("")
    page.keyboard.type("61", delay=120)
    page.keyboard.press("Tab")
    page.keyboard.press("Control+A")
    page.keyboard.type("43", delay=120)
    page.keyboard.press("Tab")
    settled(page)
    expect(page.locator("#saving")).to_have_text("saved")
    page.reload()
    assert (fields.nth(0).input_value(), fields.nth(1).input_value()) == ("61", "43")


@pytest.mark.parametrize("latency_ms", [0, 400])
def test_thirteen_quick_clicks_on_the_board_are_thirteen_points(opened, own_site, latency_ms):
    page = opened(own_site, DESK)
    sign_in(page)
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Heron").first.click()
    settled(page)
    page.get_by_text("Draw a part").first.click()
    page.get_by_role("button", name=re.compile("Begin")).first.click()
    page.locator("#board").wait_for()
    settled(page)
    line = page.context.new_cdp_session(page)
    line.send("Network.enable")
    conditions = {"offline": False, "latency": latency_ms, "downloadThroughput": -1, "uploadThroughput": -1}
    line.send("Network.emulateNetworkConditions", conditions)
    box = at_rest(page.locator("#board"))
    before = page.locator("#board [data-point]").count()
    for n in range(13):
        page.mouse.click(box["x"] + 60 + 24 * n, box["y"] + 80 + 60 * (n % 2))
        page.wait_for_timeout(250)
    settled(page)
    expect(page.locator("#board [data-point]")).to_have_count(before + 13)
    page.reload()
    expect(page.locator("#board [data-point]")).to_have_count(before + 13)


def test_a_finger_drags_a_part_and_the_page_stays(opened, own_site):
    page = opened(own_site, PHONE)
    sign_in(page)
    at_part(page, "Hare", "ear")
    page.locator("#drawing").scroll_into_view_if_needed()
    x, y = place_of(page, "ear")
    scrolled = page.evaluate("scrollY")
    session = page.context.new_cdp_session(page)

    def touch(kind, *at):
        points = [{"x": at[0], "y": at[1]}] if at else []
        session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    with page.expect_response(re.compile("nudge")) as answered:
        touch("touchStart", x, y)
        for step in range(1, 6):
            touch("touchMove", x, y - 6 * step)
        touch("touchEnd")
    assert answered.value.status == 200
    assert page.evaluate("scrollY") == scrolled


def test_a_press_that_fails_says_so_and_goes_on_by_itself(browser, own_site):
    context = browser.new_context(base_url=own_site, **DESK)
    page = context.new_page()
    sign_in(page)
    page.goto("/s/saltgrass/bench/")
    page.locator(".on-the-bench a.pick").first.click()
    page.locator("form.take").wait_for()
    page.get_by_label("On the scale").fill("0.02")
    answers = iter([503])

    def fail_once(route):
        status = next(answers, None)
        if status:
            route.fulfill(status=status, body="")
        else:
            route.continue_()

    page.route(re.compile("/take/$"), fail_once)
    page.get_by_role("button", name="Take it").click()
    expect(page.locator("#saving")).to_have_text("kept on this device")
    expect(page.locator("#queue")).to_contain_text("0.02")
    expect(page.locator("#hand .story")).to_contain_text(re.compile(r"0\.02\s*g\s*taken"), timeout=40_000)
    expect(page.locator("#queue")).not_to_contain_text("0.02")
    context.close()


def test_without_a_line_a_form_waits_and_is_sent_when_there_is_one(browser, own_site):
    context = browser.new_context(base_url=own_site, **DESK)
    page = context.new_page()
    sign_in(page)
    page.goto("/s/saltgrass/plan/new/")
    page.get_by_label("What do you make?").select_option(index=1)
    page.get_by_label("What for?").fill("Fair on the dyke")
    context.set_offline(True)
    page.get_by_role("button", name="Plan it").click()
    expect(page.locator(".unsent")).to_contain_text("no line")
    assert page.get_by_label("What for?").input_value() == "Fair on the dyke"
    context.set_offline(False)
    expect(page.get_by_role("heading", name="Fair on the dyke")).to_be_visible()
    context.close()
