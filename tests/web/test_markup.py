"""How templates, styles and scripts are kept: short lines, greys by name, only the scripts that a page needs."""

import re
from pathlib import Path

from tests.web.helpers import figure_with, get

WEB = Path(__file__).parents[2] / "wembit" / "web"
STYLES = sorted((WEB / "static" / "css").glob("*.css"))
SCRIPTS = sorted((WEB / "static").glob("*.js"))
GREY = re.compile(r"#(?:([0-9a-f]{2})\1\1|([0-9a-f])\2\2)\b")
LONGEST, LONGEST_TAG = 127, 170  # a tag of a template cannot be broken


def test_a_line_of_a_style_or_a_script_is_short():
    long = [
        f"{path.name}:{number}"
        for path in [*STYLES, *SCRIPTS]
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if len(line) > LONGEST and "data:image" not in line
    ]
    assert not long


def test_a_line_of_a_template_is_short():
    long = [
        f"{path.relative_to(WEB)}:{number}"
        for path in WEB.rglob("*.html")
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if len(line) > LONGEST_TAG
    ]
    assert not long


def test_greys_have_names():
    for path in STYLES:
        root = re.search(r":root \{.*?\}", path.read_text(), re.S)
        assert not GREY.findall(path.read_text().replace(root[0] if root else "", "")), path.name


def scripts(page):
    return set(re.findall(r'src="[^"]*?(?:lib/)?(\w+)(?:\.min)?(?:\.[0-9a-f]{12})?\.js"', page))


def test_a_page_loads_the_scripts_that_it_needs(client):
    ball = figure_with(client, "Ball", ("body", "30"))
    assert (
        scripts(get(client, "")) == scripts(get(client, "stash/")) == {"htmx", "keys", "sending", "attending", "sheet"}
    )
    assert scripts(get(client, f"figures/{ball.pk}/")) == {
        "htmx",
        "keys",
        "sending",
        "attending",
        "sheet",
        "drawing",
        "lists",
        "turning",
        "marking",
        "growing",
    }
    assert scripts(get(client, "colour/")) == {"htmx", "keys", "sending", "attending", "sheet", "map"}


def test_of_bootstrap_only_what_is_used_is_shipped():
    sheet = (WEB / "static" / "lib" / "bootstrap.used.css").read_text()
    assert len(sheet) < 30_000
    pages = "\n".join(path.read_text() for path in WEB.rglob("*.html"))
    used = {"btn", "form-control", "form-select", "visually-hidden"}
    for name in used:
        assert re.search(rf"\.{name}\b", sheet) and re.search(rf"\b{name}\b", pages), name
