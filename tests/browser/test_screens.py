"""Every main screen with the demo, at desk and phone width: nothing for axe to find, nothing wider than the screen, nothing
too small to read or to press.
"""

import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import AXE, DESK, PHONE, sign_in
from tests.conftest import some

UUID = "[0-9a-f-]{36}"
PAGES = {
    "today": "",
    "shelf": "stash/",
    "stocktake": "stash/stocktake/",
    "delivery": "stash/delivery/",
    "colour": "colour/",
    "colour answers": "colour/?colour=6f7d43&grams=6",
    "colour by lightness": "colour/?view=lightness",
    "colours of a picture": "colour/picture/",
    "palette in": "colour/palette/in/",
    "shade card": "colour/shade-card/",
    "files": "stash/files/",
    "walk": "stash/walk/",
    "notions": "stash/notions/",
    "breeds": "stash/breeds/",
    "figures": "figures/",
    "new figure": "figures/new/",
    "figure to begin": "figures/new/standing/?head=2",
    "plan": "plan/",
    "new project": "plan/new/",
    "bench": "bench/",
    "learnt": "bench/learnt/",
    "hand": "bench/hand/",
    "restock": "restock/",
    "worth": "costs/",
    "suppliers": "restock/suppliers/",
    "letters": "letters/",
    "house": "house/",
    "find": "find/?words=moss",
    "second hand": "second-hand/",
    "what was done": "deeds/",
}
THINGS = {  # the page that it stands on, and its address
    "lot": ("shelf", f"stash/lot/{UUID}/"),
    "figure": ("figures", f"figures/{UUID}/"),
    "project": ("plan", f"plan/{UUID}/"),
    "making": ("bench", f"bench/{UUID}/"),
    "shortage": ("restock", f"restock/item/{UUID}/"),
    "parcel": ("restock", f"restock/order/{UUID}/arrival/"),
    "answers": ("item", f"restock/project/{UUID}/{UUID}/"),
    "notion": ("notions", f"stash/notions/{UUID}/"),
    "walk in a drawer": ("walk", f"stash/walk/{UUID}/"),
}
FIGURE_PAGES = {
    "like": "like/?head=-2",
    "size": "size/?way=times&times=1.4",
    "divide": "divide/?grams=10&share_body=half&share_head=rest",
    "order": "order/",
    "step": "order/?step=make:body",
    "turned": "?see=turn&turn=40&tilt=20",
    "named": "?see=named",
    "four views": "four-views/",
    "list": "list/",
    "templates": "templates/",
    "colourways": "colours/",
    "compare": "compare/",
    "draw": "draw/",
    "pictures": "pictures/",
    "layer": "?part=body&layer=1",
    "cut open": "?see=cut",
    "beside a hand": "?see=hand",
    "whole again": "?see=whole",
}
LINKED = {  # the page that a link to it stands on
    "what if": ("project", "a[href*='what-if']"),
    "fibre": ("lot", "#tray h2 a"),
    "cost": ("figure", "a[href*='costs/figure']"),
}
OTHERS = (*LINKED, "pull list", "tell a colour", "part", "board")
BASE = "/s/saltgrass/"
MEASURED = (Path(__file__).parent / "lib" / "measured.js").read_text()
ASKED = """{resultTypes: ["violations"], selectors: false, preload: false,
            rules: {"color-contrast": {enabled: false}, "color-contrast-enhanced": {enabled: true}}}"""


def looked_over(page) -> list[str]:
    """What axe, with enhanced contrast, finds on the page as it stands."""
    page.evaluate(AXE)
    found = page.evaluate(f"axe.run(document, {ASKED})")
    return [f"{each['id']}: {node['html'][:160]}" for each in found["violations"] for node in each["nodes"][:3]]


@pytest.fixture(params=[DESK, PHONE], ids=["desk", "phone"])
def page(request, site, opened):
    page = opened(site, request.param)
    sign_in(page)
    return page


class Addresses:
    """The address of each page by its name; one of a thing is looked for when it is asked for."""

    def __init__(self, page) -> None:
        self.page, self.found = page, {name: BASE + path for name, path in PAGES.items()}

    def __getitem__(self, name: str) -> str:
        if name not in self.found:
            self.found[name] = self._looked_for(name)
        return self.found[name]

    def _looked_for(self, name: str) -> str:
        if name in FIGURE_PAGES:
            return self["figure"] + FIGURE_PAGES[name]
        if name in THINGS:
            start, thing = THINGS[name]
            return re.search(BASE + thing, self._at(self[start]).content()).group(0)
        if name in LINKED:
            start, link = LINKED[name]
            return self._at(self[start]).locator(link).first.get_attribute("href")
        match name:
            case "item":
                href = self._at(self["restock"]).locator("a.tide").first.get_attribute("href")
                return re.search(f"{BASE}restock/item/{UUID}/", href).group(0)
            case "pull list":
                return self["project"] + "pull-list/"
            case "tell a colour":
                return f"{BASE}colour/tell/{self['lot'].rstrip('/').rsplit('/', 1)[1]}/"
            case "part":
                return self["figure"] + self._at(self["figure"]).locator(".strip-of-parts a.pick").first.get_attribute(
                    "href"
                )
            case "board":
                return self._begun_drawing()
        raise KeyError(name)

    def _at(self, address: str):
        self.page.goto(address)
        return self.page

    def _begun_drawing(self) -> str:
        self._at(self["figures"]).locator("a.pick").filter(has_text="Heron").first.click()
        self.page.get_by_role("link", name="Draw a part").click()
        self.page.get_by_role("button", name="Begin to draw").click()
        self.page.locator("#board").wait_for()
        return self.page.url


def test_axe_finds_nothing_and_nothing_sticks_out(page):
    troubles = []
    wide_screen = page.viewport_size["width"]
    there = Addresses(page)
    for name in some([*PAGES, *THINGS, *FIGURE_PAGES, *OTHERS], 5, f"pages {wide_screen}"):
        answer = page.goto(there[name])
        assert answer.status == 200, f"{name}: {answer.status}"
        page.evaluate("document.querySelectorAll('details').forEach(each => each.open = true)")
        troubles += [f"{name}: {each}" for each in looked_over(page)]
        wide, screen = page.evaluate("[document.documentElement.scrollWidth, window.innerWidth]")
        if wide > screen + 1:
            troubles.append(f"{name}: {wide} px wide on a screen of {screen}")
        troubles += [f"{name}: {each}" for each in page.evaluate(MEASURED)]
        if page.evaluate(
            "[...document.querySelectorAll('.live-now')].some((one) => one.scrollWidth > one.clientWidth)"
        ):
            troubles.append(f"{name}: what the strip says of it is cut")
        if page.locator("[style]").count():
            troubles.append(f"{name}: a style attribute, which the policy forbids")
    assert not troubles, "\n".join(troubles)


def test_what_is_to_be_changed_is_seen_wherever_it_stands(site, opened):
    """On a phone whose lower half is the keyboard, of a form that is longer than what is left."""
    page = opened(site, {**PHONE, "viewport": {"width": 390, "height": 420}})
    sign_in(page)
    page.goto("/s/saltgrass/stash/stocktake/")
    page.get_by_text("Drawer, dye lot, picture").tap()
    page.get_by_label("Dye lot").fill("the one of the long winter, " * 3)
    page.get_by_role("button", name="On the shelf, next bag").tap()
    expect(page.locator(".fault").first).to_be_in_viewport()


def test_the_door_is_as_open_to_all(site, opened):
    page = opened(site, PHONE)
    page.goto("/sign-in/")
    assert not looked_over(page)


def test_a_day_is_one_word_on_a_phone(opened, site):
    page = opened(site, PHONE)
    sign_in(page)
    page.goto(BASE)
    flags = page.locator(".fortnight .when")
    assert flags.count() > 0
    heights = flags.evaluate_all(
        "all => all.map(each => each.offsetHeight / parseFloat(getComputedStyle(each).lineHeight))"
    )
    assert max(heights) < 1.6, "not broken within a word"
