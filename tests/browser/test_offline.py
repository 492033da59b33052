"""The bench without a line: what was opened opens, pulls wait on the device and arrive once, in order."""

import os

import psycopg
import pytest
from playwright.sync_api import expect

from tests.browser.conftest import OWN, PHONE, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)
KEPT = "() => navigator.serviceWorker.controller && sessionStorage[`ahead ${location.pathname}`]"


@pytest.fixture
def context(browser, own_site):
    """A phone that keeps what it has seen."""
    context = browser.new_context(base_url=own_site, **PHONE)
    yield context
    context.close()


def at_the_bench(page) -> str:
    """The first making in hand, kept on the device; its address."""
    sign_in(page)
    page.goto("/s/saltgrass/bench/")
    page.wait_for_function(KEPT)
    page.locator(".on-the-bench a.pick").first.tap()
    settled(page)
    page.wait_for_function(KEPT)
    return page.url


def take(page, grams: str) -> None:
    page.locator("form.take [name=amount]").fill(grams)
    key = page.locator("form.take [name=key]").input_value()
    page.get_by_role("button", name="Take it").tap()
    expect(page.locator("form.take [name=key]")).not_to_have_value(key)


def pulled(since: int) -> list[str]:
    """The amounts of all pulls after the first `since`, in the order in which they came."""
    with psycopg.connect(os.environ["DATABASE_URL"].rsplit("/", 1)[0] + f"/{OWN}") as connection:
        rows = connection.execute(
            "SELECT -m.amount FROM stash_movement m JOIN stash_entry e ON e.id = m.entry_id WHERE m.kind = 'pulled'"
            " ORDER BY e.recorded_at, e.id"
        ).fetchall()
    return [f"{amount:.2f}" for (amount,) in rows[since:]]


def test_thirty_pulls_of_two_tabs_with_a_reload_between_arrive_once_and_in_order(context):
    one = context.new_page()
    making, before = at_the_bench(one), len(pulled(0))
    wanted = [f"{0.01 * n:.2f}" for n in range(1, 31)]
    context.set_offline(True)
    for grams in wanted[:12]:
        take(one, grams)
    expect(one.locator("#queue [data-waits]")).to_contain_text("12 pulls wait on this device")
    one.reload()
    expect(one.locator("#queue [data-waits]")).to_contain_text("12 pulls wait on this device")
    for grams in wanted[12:20]:
        take(one, grams)
    two = context.new_page()
    two.goto(making)
    for grams in wanted[20:]:
        take(two, grams)
    expect(one.locator("#queue [data-waits]")).to_contain_text("30 pulls wait on this device")
    assert len(pulled(before)) == 0
    context.set_offline(False)
    for page in (one, two):
        expect(page.locator("#queue")).to_be_hidden()
    assert pulled(before) == wanted
    one.reload()
    one.wait_for_timeout(500)
    assert len(pulled(before)) == 30, "none came twice"


def test_every_piece_of_a_making_in_hand_opens_without_a_line(context):
    page = context.new_page()
    at_the_bench(page)
    name = page.locator("#hand h1").inner_text()
    context.set_offline(True)
    page.locator("[rel=next]").tap()
    expect(page.locator("#hand h1")).not_to_have_text(name)
    page.goto("/s/saltgrass/bench/")
    expect(page.locator("h1")).to_contain_text("The bench")
    page.locator(".on-the-bench a.pick").first.tap()
    expect(page.locator("#hand h1")).to_be_visible()


def test_a_bag_that_was_emptied_meanwhile_is_told_and_settled_by_the_maker(context):
    page = context.new_page()
    at_the_bench(page)
    before = len(pulled(0))
    context.set_offline(True)
    take(page, "400")
    take(page, "0.02")
    context.set_offline(False)
    refused = page.locator("#queue li")
    expect(refused).to_have_count(1)
    expect(refused).to_contain_text("400 for")
    expect(page.locator("#queue [data-refused]")).to_have_text("Not kept, look at each:")
    assert pulled(before) == ["0.02"], "the other one went"
    refused.get_by_role("link", name="Open it").tap()
    settled(page)
    expect(page.locator("#queue li")).to_have_count(1)
    page.get_by_role("button", name="Forget it").tap()
    expect(page.locator("#queue")).to_be_hidden()
    assert pulled(before) == ["0.02"]


def test_who_signs_out_leaves_no_page_behind(context):
    page = context.new_page()
    at_the_bench(page)
    assert page.evaluate("() => caches.keys()").count("bench-pages") == 1
    page.goto("/s/saltgrass/house/")
    page.get_by_role("button", name="Sign everybody out").tap()
    expect(page.get_by_label("name").first).to_be_visible()
    page.goto("/s/saltgrass/bench/")
    assert "bench-pages" not in page.evaluate("() => caches.keys()")


def test_what_is_being_written_stays_when_the_line_is_back(context):
    page = context.new_page()
    at_the_bench(page)
    before = len(pulled(0))
    context.set_offline(True)
    amount = page.locator("form.take [name=amount]")
    planned = amount.input_value()
    take(page, "0.02")
    expect(amount).to_have_value(planned)
    amount.fill("0.07")
    context.set_offline(False)
    expect(page.locator("#queue")).to_be_hidden()
    page.wait_for_timeout(500)
    assert pulled(before) == ["0.02"]
    expect(amount).to_have_value("0.07")
