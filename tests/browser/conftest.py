"""A browser against the real server with the demo studio. Whatever the console complains of fails the test."""

from __future__ import annotations

import fcntl
import os
import re
import time
from collections.abc import Callable, Iterator
from itertools import count
from pathlib import Path
from threading import Thread

import psycopg
import pytest
from playwright.sync_api import Browser, Locator, Page, expect, sync_playwright

from tests import templates
from tests.serving import PASSWORD, demo_database, manage, new_database, served, until_it_has_its_database
from wembit.standins.scale.model import Scale
from wembit.standins.scale.server import Bridge
from wembit.standins.supplier.server import Counter

WORKER = os.environ.get("PYTEST_XDIST_WORKER", "")  # two may run side by side, each with databases and files of its own
if WORKER and "WEMBIT_STATIC" in os.environ:
    os.environ["WEMBIT_STATIC"] += f"/{WORKER}"
expect.set_options(timeout=20_000)
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip
DESK = {"viewport": {"width": 1280, "height": 800}}
PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True, "device_scale_factor": 2}
LEAVING = """
  const leaving = (event) => { if (!event.defaultPrevented) window.leaving = true; };
  window.addEventListener("submit", leaving);
  window.addEventListener("click", (event) => {
    const link = event.target.closest && event.target.closest("a[href]:not([download], [target])");
    const page = (address) => new URL(address, location).href.split("#")[0];
    if (link && page(link.getAttribute("href")) !== page("")) leaving(event);
  });
"""  # a page that is about to be left says so: see `settled`
OWN = f"browser_own{WORKER}"
HARMLESS = "status of (422|401)|^htmx:(sendAbort|afterRequest)|Service Worker registration blocked by Playwright"
AXE = (Path(__file__).parent / "lib" / "axe.min.js").read_text()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def demo(tmp_path_factory) -> str:
    """The name of a database with the demo, to be copied; one worker makes it, the others wait."""
    if templates.are_made():
        return templates.DEMO
    shared = tmp_path_factory.getbasetemp().parent if WORKER else tmp_path_factory.getbasetemp()
    made = shared / "demo.made"
    with open(shared / "demo.lock", "w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            demo_database("browser_demo")
            made.touch()
    return "browser_demo"


@pytest.fixture(scope="session")
def scale() -> Iterator[Scale]:
    """The stand-in of the bench's scale, whose bridge the served pages know."""
    with Bridge(Scale(time.monotonic)) as bridge:
        Thread(target=bridge.serve_forever, daemon=True).start()
        os.environ["WEMBIT_SCALE"] = bridge.address
        yield bridge.scale
        bridge.shutdown()


@pytest.fixture(scope="session")
def counter(tmp_path_factory) -> Iterator[Counter]:
    """The stand-in of a supplier, on whose panel days pass for the served pages, too."""
    days = tmp_path_factory.mktemp("days") / "days"
    days.write_text("0")
    with Counter(days) as there:
        Thread(target=there.serve_forever, daemon=True).start()
        os.environ["WEMBIT_SUPPLIER"], os.environ["WEMBIT_DAYS_FILE"] = there.address, str(days)
        yield there
        there.shutdown()


@pytest.fixture
def supplier(counter) -> Iterator[Counter]:
    """The supplier with an empty book; the days that pass are taken back."""
    counter.book.forget()
    yield counter
    counter.days.write_text("0")


@pytest.fixture(scope="session")
def site(demo, scale, counter) -> Iterator[str]:
    """The demo served, for tests that change nothing."""
    with served(new_database(f"browser_shared{WORKER}", like=demo)) as address:
        yield address


@pytest.fixture(scope="session")
def own_server(demo, scale, counter) -> Iterator[str]:
    """A server whose database is made anew for each test that changes it."""
    with served(new_database(OWN, like=demo)) as address:
        yield address


_RENEWED = count(1)


@pytest.fixture
def own_site(demo, own_server) -> str:
    """A demo of one's own, for a test that changes it. Its stamp is like no earlier one's, so that nothing that the server
    keeps of an earlier test is taken for its own.
    """
    with psycopg.connect(new_database(OWN, like=demo), autocommit=True) as connection:
        connection.execute("UPDATE studio_studio SET stamp = stamp + %s", [1_000_000 * next(_RENEWED)])
    until_it_has_its_database(own_server)  # which was not there for a while
    return own_server


@pytest.fixture
def empty_site() -> Iterator[str]:
    """A house without any studio yet."""
    if templates.are_made():
        database = new_database(f"browser_empty{WORKER}", like=templates.MIGRATED)
    else:
        database = new_database(f"browser_empty{WORKER}")
        manage(database, "migrate", "--verbosity", "0")
    with served(database) as address:
        yield address


@pytest.fixture
def opened(browser) -> Iterator[Callable[..., Page]]:
    """`opened(address, DESK)`: a page in a context of its own. At the end nothing may have been complained of."""
    contexts, troubles = [], []

    def open_page(address: str, device: dict = DESK) -> Page:
        context = browser.new_context(base_url=address, **{"service_workers": "block", **device})
        context.add_init_script(LEAVING)
        contexts.append(context)
        page = context.new_page()
        page.set_default_timeout(20_000)
        page.on("pageerror", lambda error: troubles.append(f"error in a script: {error}"))
        page.on("requestfailed", lambda request: _failed(request, troubles))
        page.on("console", lambda message: _said(message, troubles))
        page.on("response", lambda answer: answer.status >= 500 and troubles.append(f"{answer.status} {answer.url}"))
        page.on("dialog", lambda dialog: dialog.accept())
        return page

    yield open_page
    for context in contexts:
        context.close()
    assert not troubles, "\n".join(troubles)


def _failed(request, troubles: list[str]) -> None:
    if "ERR_ABORTED" not in (request.failure or ""):  # a page left or a search typed on
        troubles.append(f"{request.method} {request.url}: {request.failure}")


def _said(message, troubles: list[str]) -> None:
    """Errors and warnings of the console; a form that came back (422), a session that ended (401) or a search typed on, whose
    earlier request is let go, is none. What fails by itself is said by `htmx:sendError` or `htmx:responseError`.
    """
    if message.type in ("error", "warning") and not re.search(HARMLESS, message.text):
        troubles.append(f"console {message.type}: {message.text}")


def at_rest(target: Locator) -> dict[str, float]:
    """The box of an element once nothing scrolls any more."""
    before = None
    while (box := target.bounding_box()) != before:
        before = box
        target.page.wait_for_timeout(120)
    assert box
    return dict(box)


def name_of(page, part: str):
    """The name of a part on its drawing, as it is shown at this width, to be pressed."""
    names = page.locator(".named .label text, .by-name a").filter(has_text=re.compile(rf"^(\d+ × )?{part}\b"))
    return names.locator("visible=true").first


def sign_in(page: Page, username: str = "mira") -> None:
    """Signed in by keyboard: the first field has the focus."""
    page.goto("/")
    expect(page.get_by_label("name").first).to_be_focused()
    page.keyboard.type(username)
    page.keyboard.press("Tab")
    page.keyboard.type(PASSWORD)
    page.keyboard.press("Enter")
    page.locator("header.strip").wait_for()


def tab_to(page: Page, target: Locator, most: int = 250) -> Locator:
    """Tab until that element has the focus: what cannot be reached so fails."""
    target.wait_for()
    for _ in range(most):
        if target.evaluate("node => node === document.activeElement"):
            return target
        page.keyboard.press("Tab")
    raise AssertionError(f"Tab never came to {target}")


def write(page: Page, target: Locator, text: str) -> None:
    """Tab to a field and write into it, over what stands there."""
    tab_to(page, target)
    page.keyboard.press("Control+a")
    page.keyboard.type(text)


def settled(page: Page) -> None:
    """Wait until the page is not being left and no piece of it is being fetched or swapped."""
    busy = ".htmx-request, .htmx-swapping, .htmx-settling"
    page.wait_for_function(
        f"() => !window.leaving && document.readyState === 'complete' && !document.querySelector('{busy}')"
    )
