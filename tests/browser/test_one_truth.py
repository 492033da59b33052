"""One walk through all rooms: a figure made larger, planned six times, changed, short, answered, delivered, made; every room
says the same at every step, Z takes back the last thing, and what left the shelf is what the ledger says.
"""

import csv
import datetime as dt
import io
import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import DESK, settled, sign_in
from tests.browser.hands import Keys

pytestmark = pytest.mark.sampled("journeys", 4)

WOOL = "slate"  # the heron's back


def words(page: Page) -> str:
    """What a reader reads of the page."""
    return re.sub(r"[\s\u202f]+", " ", page.locator("body").inner_text())


def grams(text: str, pattern: str) -> float:
    found = re.search(pattern, text)
    assert found, f"{pattern} is not in: {text[:3000]}"
    return float(found[1])


class Walk:
    """The addresses of the walk, and what its rooms say of one wool."""

    def __init__(self, page: Page) -> None:
        self.page, self.hand = page, Keys(page)
        self.home = "/s/saltgrass/"
        self.figure = self.project = self.item = ""

    def at(self, address: str) -> str:
        if not self.page.url.endswith(address):
            self.page.goto(self.home + address)
        settled(self.page)
        return words(self.page)

    def press(self, name: str | re.Pattern[str]) -> None:
        self.page.get_by_role("button", name=name).first.click()
        settled(self.page)

    def said(self, text: str) -> None:
        expect(self.page.locator(".said")).to_contain_text(text)

    def take_back(self) -> None:
        self.page.locator("body").press("z")
        settled(self.page)

    def rooms(self) -> dict[str, float]:
        """What is needed of the wool, still to take, promised and short, as plan, restock and pull list say it."""
        plan = self.at(f"plan/{self.project}/")
        needed = grams(plan, rf"\b{WOOL} ([\d.]+) g \(")
        section = re.search(
            rf"\b{WOOL} [\d.]+ g \(.*?(?= {'|'.join(OTHERS)} [\d.]+ (?:g|mm|m|pieces)|Pull list)", plan
        )[0]
        short = float((re.search(r"([\d.]+) g short", section) or [0, 0])[1])
        left = float((re.search(r"([\d.]+) g to go", section) or [0, needed])[1])
        if "all of it" in section:
            left = 0.0
        pulled = self.at(f"plan/{self.project}/pull-list/")
        laid = sum(float(found) for found in re.findall(rf"\b{WOOL}, .*? ([\d.]+) g(?: [\d.]+ g)? ", pulled))
        lost = float((re.search(rf"\b{WOOL} ([\d.]+) g short", pulled) or [0, 0])[1])
        assert lost == short, "the pull list is short of what the plan is short of"
        assert laid + lost == pytest.approx(left, abs=0.11), "what is laid out and what is missing is what is left"
        tide = self.at(f"restock/item/{self.item}/")
        of_it = float((re.search(r"Heron fair, starts .*?: ([\d.]+) g", tide) or [0, 0])[1])
        assert of_it == pytest.approx(left, abs=0.06), "restock holds what is left for the project"
        return {"needed": needed, "left": left, "short": short}

    def on_shelf(self) -> float:
        """What all bags of the wool hold, as the fibre's page says it."""
        return grams(self.at(f"restock/item/{self.item}/"), r"([\d.]+) g on the shelf")


OTHERS: list[str] = []


def test_every_room_says_the_same_from_plan_to_finish(opened, own_site):
    page = opened(own_site, DESK)
    sign_in(page)
    walk = Walk(page)
    page.goto(walk.home + "figures/")
    page.locator("a.pick").filter(has_text="Heron").first.click()
    settled(page)
    walk.figure = re.search(r"figures/([0-9a-f-]{36})", page.url)[1]

    made_larger(walk)
    planned_six(walk)
    a_part_changed_and_all_follow(walk)
    a_layer_off_and_back(walk)
    answered_and_taken_back(walk)
    an_unknown_bag_weighed(walk)
    made_and_finished(walk)


def made_larger(walk: Walk) -> None:
    page = walk.page
    before = grams(walk.at(f"figures/{walk.figure}/size/"), r"now ([\d.]+) mm high")
    page.get_by_text("By so much wool, a part's length, so many times").click()
    page.get_by_label("Every length, times").fill("1.2")
    page.get_by_role("button", name="See it").last.click()
    settled(page)
    page.get_by_role("button", name=re.compile("Make it")).click()
    settled(page)
    after = grams(walk.at(f"figures/{walk.figure}/size/"), r"now ([\d.]+) mm high")
    assert after == pytest.approx(1.2 * before, rel=0.01)
    walk.at(f"figures/{walk.figure}/?part=body")
    long = float(page.locator("form.sizes input[name$=_mm]").first.input_value())
    assert f"{long:g}" in walk.at(f"figures/{walk.figure}/order/?step=make:body")


def planned_six(walk: Walk) -> None:
    page = walk.page
    page.goto(walk.home + "plan/new/")
    option = page.get_by_label("What do you make?").locator("option").filter(has_text="Heron").first
    page.get_by_label("What do you make?").select_option(value=option.get_attribute("value"))
    page.get_by_label("How many?").fill("6")
    page.get_by_label("What for?").fill("Heron fair")
    start = (dt.date.today() + dt.timedelta(days=12)).isoformat()
    page.get_by_text("Sizes, when to start").click()
    page.get_by_label("When do you start?").fill(start)
    walk.press("Plan it")
    walk.project = re.search(r"plan/([0-9a-f-]{36})", page.url)[1]
    OTHERS[:] = page.locator("ul.needs b").all_inner_texts()
    text = words(page)
    assert "black eyes 12 pieces" in text, "two each"
    assert "wire" in text
    page.goto(walk.home + "restock/")
    walk.item = re.search(
        r"restock/item/([0-9a-f-]{36})",
        page.locator("a[href*='/item/']").filter(has_text=WOOL).first.get_attribute("href"),
    )[1]
    rooms = walk.rooms()
    takes = re.search(rf"{WOOL} .*?, seen ([\d.]+) g", walk.at(f"plan/{walk.project}/list/"))
    assert float(takes[1]) == pytest.approx(rooms["needed"], abs=0.06)


def a_part_changed_and_all_follow(walk: Walk) -> None:
    before = walk.rooms()["needed"]
    page = walk.page
    walk.at(f"figures/{walk.figure}/?part=body")
    field = page.locator("form.sizes input[name$=_mm]").first
    longer = round(float(field.input_value()) * 1.15, 1)
    field.fill(f"{longer:g}")
    field.press("Tab")
    settled(page)
    expect(page.locator("#saving")).to_have_text("saved")
    after = walk.rooms()["needed"]
    assert after > before * 1.02, "the plan follows the figure"
    walk.take_back()
    assert walk.rooms()["needed"] == before
    page.locator("body").press("Shift+Z")
    settled(page)
    assert walk.rooms()["needed"] == after


def a_layer_off_and_back(walk: Walk) -> None:
    before, page = walk.rooms(), walk.page
    walk.at(f"figures/{walk.figure}/?part=body")
    rows = page.locator("#part-grams .layer-list a")
    count = rows.count()
    rows.filter(has_text=WOOL).first.click()
    settled(page)
    walk.press("Leave it off")
    assert walk.rooms()["needed"] < before["needed"]
    walk.take_back()
    assert walk.rooms() == before
    walk.at(f"figures/{walk.figure}/?part=body")
    assert rows.count() == count


def answered_and_taken_back(walk: Walk) -> None:
    """The bags turn out light: the plan is short, and another wool stands in until Z."""
    page = walk.page
    for bag, weight in (("SL-9", "9"), ("SL-7", "4")):
        page.goto(walk.home + f"stash/?words={WOOL}")
        page.locator("a.lot").filter(has_text=WOOL).nth(0 if bag == "SL-9" else 1).click()
        settled(page)
        page.get_by_label("How much?").fill(weight)
        walk.press("It weighs this")
    before = walk.rooms()
    assert before["short"] > 1
    assert walk.on_shelf() == 13
    walk.at(f"restock/project/{walk.project}/{walk.item}/")
    page.get_by_role("button", name="Use it").first.click()
    settled(page)
    plan = walk.at(f"plan/{walk.project}/")
    assert f"stands in for {WOOL}" in plan
    walk.take_back()
    walk.said("an answer to a shortage")
    assert walk.rooms() == before


def an_unknown_bag_weighed(walk: Walk) -> None:
    page = walk.page
    page.goto(walk.home + "stash/stocktake/")
    page.get_by_label("Name on the label").fill(WOOL)
    page.locator("[name=breed]").select_option("merino")
    page.locator("[name=form]").select_option("tops")
    page.get_by_text("Drawer, dye lot, picture").click()
    page.get_by_label("Drawer").fill("Z9")
    walk.press("On the shelf, next bag")
    assert "Weigh the bag you have, drawer Z9" in walk.at(f"plan/{walk.project}/")
    page.get_by_role("link", name="Weigh the bag you have").first.click()
    settled(page)
    page.get_by_label("How much?").fill("80")
    walk.press("It weighs this")
    assert walk.rooms()["short"] == 0
    assert walk.on_shelf() == 93


def on_the_scale(page: Page, grams: str) -> None:
    """At the bench: the body, the wool in it, and what the scale shows."""
    page.locator("summary").filter(has_text="pieces by name").click()
    page.locator(".strip-of-parts a").filter(has_text="body").first.click()
    settled(page)
    page.locator(".layer-list a").filter(has_text=WOOL).first.click()
    settled(page)
    page.get_by_label("On the scale").fill(grams)


def made_and_finished(walk: Walk) -> None:
    page, before = walk.page, walk.rooms()
    shelf = walk.on_shelf()
    walk.at(f"plan/{walk.project}/")
    walk.press(re.compile("^Begin"))
    making = re.search(r"bench/([0-9a-f-]{36})", page.url)[1]
    wool = page.locator(".layer-list a, [rel=next]")
    expect(wool.first).to_be_visible()
    on_the_scale(page, "1.5")
    walk.press("Take it")
    assert walk.on_shelf() == pytest.approx(shelf - 1.5, abs=0.051)
    assert walk.rooms()["left"] == pytest.approx(before["left"] - 1.5, abs=0.06)
    walk.at(f"bench/{making}/")
    on_the_scale(page, "0.5")
    walk.press("Put that much back")
    assert walk.on_shelf() == pytest.approx(shelf - 1, abs=0.051)
    for _ in range(2):  # eyes and a wire, each in one press
        walk.at(f"bench/{making}/")
        page.locator(".things-of button").filter(has_text=re.compile("^Take$")).first.click()
        settled(page)
    walk.at(f"bench/{making}/")
    if not page.get_by_role("button", name=re.compile("took what was planned")).is_visible():
        page.get_by_text("Finish this one").click()
    assert "Not weighed:" in words(page)
    page.locator("[name=needles_back]").check()  # as many went out as the last time
    page.get_by_role("button", name=re.compile("took what was planned")).click()
    settled(page)
    assert "1 begun, 1 of them finished" in walk.at(f"plan/{walk.project}/")
    rooms = walk.rooms()
    one = rooms["needed"] / 6
    assert rooms["left"] == pytest.approx(before["needed"] / 6 * 5, rel=0.02), "five are still to be made"
    assert one > 0
    ledger = page.request.get(walk.home + "stash/files/ledger.csv").text()
    moved = sum(amounts(ledger, WOOL))
    assert moved == pytest.approx(walk.on_shelf(), abs=0.06), "the sum of all movements is what lies on the shelf"


def amounts(table: str, name: str) -> list[float]:
    """The amounts of every line of the ledger that is of that wool."""
    rows = list(csv.DictReader(io.StringIO(table.lstrip("\ufeff"))))
    return [float(row["amount"]) for row in rows if row["name"] == name]
