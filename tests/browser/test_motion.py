"""Motion only where something goes from one place to another, and none for those who asked for none."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import DESK, name_of, settled, sign_in

pytestmark = pytest.mark.sampled("journeys", 4)
COUNTED = """
  window.moves = [];
  const animate = Element.prototype.animate;
  Element.prototype.animate = function (frames, how) {
    window.moves.push({ part: this.dataset.partKey || this.className, ms: how.duration, from: frames[0].transform });
    return animate.call(this, frames, how);
  };
"""


@pytest.mark.parametrize("motion", ["no-preference", "reduce"])
def test_a_part_that_is_made_larger_grows(opened, own_site, motion):
    page = opened(own_site, {**DESK, "reduced_motion": motion})
    page.add_init_script(COUNTED)
    sign_in(page)
    page.goto("/s/saltgrass/figures/")
    page.locator("a.pick").filter(has_text="Hare").first.click()
    name_of(page, "ear").click()  # nothing stands on it: the rest stays where it is
    settled(page)
    assert page.evaluate("moves") == [], "looking moves nothing"
    field = page.locator("form.sizes input[name$=_mm]").first
    field.fill(str(round(float(field.input_value()) * 1.3, 1)))
    field.press("Enter")
    settled(page)
    expect(page.locator("#tray .fault")).to_have_count(0)
    moves = page.evaluate("moves")
    if motion == "reduce":
        assert moves == []
    else:
        assert {move["ms"] for move in moves} == {200}
        assert {move["part"] for move in moves} == {"ear"}, "the others stay where they are"
        sizes = [re.search(r"matrix\(([\d.]+), 0, 0, ([\d.]+)", move["from"]).groups() for move in moves]
        assert all(0.5 < min(map(float, each)) < 0.999 for each in sizes), "from smaller to as it is now"
