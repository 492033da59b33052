"""The shelf as a piece of furniture."""

from itertools import pairwise

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, PHONE, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)
ROWS = """() => {
  const rows = new Map();
  for (const board of document.querySelectorAll(".board")) {
    const { bottom, left, right } = board.getBoundingClientRect();
    const row = rows.get(Math.round(bottom)) || [];
    rows.set(Math.round(bottom), [...row, [left, right]]);
  }
  const { left, right } = document.querySelector(".boards").getBoundingClientRect();
  return { rows: [...rows.values()], left, right };
}"""


@pytest.mark.parametrize("device", [DESK, PHONE], ids=["desk", "phone"])
def test_boards_fill_the_width_and_kinds_share_one(opened, site, device):
    page = opened(site, device)
    sign_in(page)
    page.goto("/s/saltgrass/stash/")
    found = page.evaluate(ROWS)
    assert any(len(row) > 1 for row in found["rows"]), "two kinds stand on one board"
    for row in found["rows"]:
        assert row[0][0] == pytest.approx(found["left"], abs=1)
        assert row[-1][1] == pytest.approx(found["right"], abs=1)
        for one, two in pairwise(row):
            assert one[1] == pytest.approx(two[0], abs=1), "an upright between them, no gap"


@pytest.mark.parametrize("motion", ["no-preference", "reduce"])
def test_what_is_written_leaves_the_bag_as_a_slice(opened, site, motion):
    page = opened(site, {**PHONE, "reduced_motion": motion})
    sign_in(page)
    page.goto("/s/saltgrass/stash/")
    page.locator(".lot").filter(has_text="chalk").first.tap()
    page.get_by_label("How much?").fill("half the bag")
    expect(page.locator("#slice .leaving")).to_have_count(1)
    expect(page.locator("#slice .slice-words")).to_contain_text("stays")
    moves = page.evaluate("getComputedStyle(document.querySelector('.leaving')).animationName")
    assert moves == ("none" if motion == "reduce" else "leaves")
    page.get_by_label("How much?").fill("")
    expect(page.locator("#slice .leaving")).to_have_count(0)
