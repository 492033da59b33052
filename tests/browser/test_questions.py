"""What a maker asks, and the page that answers: in the first view at a desk, within one thumb's scroll on a phone."""

import re
from collections.abc import Iterable
from functools import cache
from pathlib import Path

import pytest

from tests.browser.conftest import DESK, PHONE, settled, sign_in
from tests.browser.test_screens import Addresses
from tests.conftest import some

LISTED = Path(__file__).parents[2] / "docs" / "questions.md"
THUMB_PX = 600  # how far one swipe of a thumb moves a phone's page, assumed
G = r"\d[\d.]*\s*g"
ANSWERS = {  # the page, where on it, what the answer reads like
    "How much olive is free?": ("olive", "#tray p", rf"{G} free"),
    "Where does it lie?": ("olive", "#tray p", r"drawer \w+"),
    "Who has been promised it?": ("promised", "#tray li", rf"{G} for .+, due"),
    "Which bags were never weighed?": ("walk", ".picture a", r"\d+ not weighed"),
    "What do I take now?": ("making", "#tray p", rf"{G}; take twice that"),
    "What do I have in hand?": ("bench", ".picture", r"next: .+ g"),
    "What can I begin?": ("bench", "#picture form", r"to begin, due"),
    "What must I order, and by when?": ("today", ".fortnight li", rf"Order .+ {G} more"),
    "What is late?": ("today", ".fortnight li", r"late"),
    "What is on its way?": ("today", ".fortnight li", r"Marram Wool Shed"),
    "What does the heron take in all?": ("heron", "h1", rf"{G} \("),
    "How big will it be?": ("heron", "h1", r"mm high, .+ long"),
    "Which wools does it take, and are they there?": ("heron", ".takes-row, .takes", G),
    "What does its head take?": ("head", "#tray .weight", G),
    "Where do I begin with it, and how long does it take?": ("order", ".state", r"1 Lay everything out.*\d+ min"),
    "Is everything in the house for it?": ("needs list", ".picture", r"(\d+ not|all) in the house"),
    "When is it due?": ("plan", ".sill text", r"due \d+ \w\w\w"),
    "Does it stand?": ("heron", ".stands", r"weight lies"),
    "What is the project short of?": ("short project", "#tray .short", G),
    "When does the moss run out?": ("moss tide", "#tray p", r"short .*from"),
    "In which packs do I buy it, for how much?": ("moss tide", "#tray p", r"Cheapest .+ \d+ ×"),
    "What can stand in for it?": ("answers", ".picture", rf"{G} free"),
    "Which of my wools is nearly this colour?": ("colour answers", "#tray .pair", r"(same|close|related)"),
    "What did I do today?": ("what was done", ".picture", r"Nothing yet|Take back"),
}
LOWEST = """([where, like]) => {
  const fits = (node) => new RegExp(like).test(node.textContent.replace(/\\s+/g, " "));
  let highest = null;
  for (let node of document.querySelectorAll(where)) {
    if (!fits(node)) continue;
    for (let child; (child = [...node.children].find(fits)); ) node = child;  // the smallest that says all of it
    const { width, bottom } = node.getBoundingClientRect();
    if (width && (highest === null || bottom < highest)) highest = bottom;
  }
  return highest;
}"""


def addresses(page, wanted: Iterable[str]) -> dict[str, str]:
    """Of the pages that are wanted, each found as a maker finds it."""
    there = Addresses(page)

    def picked(start, words):
        page.goto(there[start])
        pick = page.locator("a.pick, a.tide").filter(has_text=re.compile(words)).filter(visible=True).first
        hold = pick.locator(".hold")  # of a figure on the sill, whose words stand above it
        (hold if hold.count() else pick).click()
        settled(page)
        return page.url

    @cache
    def heron():
        return picked("figures", "Heron").split("?")[0]

    @cache
    def short_project():
        return picked("plan", "Winter market")

    def promised():
        page.goto(short_project())
        return page.locator("#tray .needs a[href*='/lot/']").first.get_attribute("href")

    ways = {
        "olive": lambda: picked("shelf", "^\\s*olive"),
        "moss tide": lambda: picked("restock", "moss"),
        "heron": heron,
        "head": lambda: heron() + "?part=head",
        "order": lambda: heron() + "order/",
        "short project": short_project,
        "needs list": lambda: short_project() + "list/",
        "promised": promised,
    }
    return {key: ways[key]() if key in ways else there[key] for key in dict.fromkeys(wanted)}


@pytest.mark.sampled("questions", 1)
@pytest.mark.parametrize(("device", "reach"), [(DESK, 0), (PHONE, THUMB_PX)], ids=["desk", "phone"])
def test_each_question_is_answered_in_the_first_view(opened, site, device, reach):
    page = opened(site, device)
    sign_in(page)
    high = device["viewport"]["height"] + reach
    asked = some(ANSWERS.items(), 8, f"questions at {high}")
    there = addresses(page, (key for _, (key, _, _) in asked))
    lost = []
    for question, (key, where, like) in asked:
        if page.url.split("#")[0] != there[key]:
            page.goto(there[key])
            settled(page)
        page.evaluate("window.scrollTo(0, 0)")
        lowest = page.evaluate(LOWEST, [where, like])
        if lowest is None or lowest > high:
            lost.append(f"{question} {there[key]}: {'nowhere' if lowest is None else f'{lowest:.0f} of {high} px'}")
    assert not lost, "\n".join(lost)


def test_the_list_of_questions_is_the_tested_one():
    assert re.findall(r"^\d+\. (.+?\?)", LISTED.read_text(), re.MULTILINE) == list(ANSWERS)
