"""How fast a figure of forty parts turns in the browser: frames a second on a phone-sized screen, with a slower processor."""

from __future__ import annotations

import json
from pathlib import Path

from playwright.sync_api import sync_playwright

from tests.serving import CHECKOUT
from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.ground import ground_of
from wembit.core.drawing.surface import under
from wembit.core.drawing.turning_mesh import turned
from wembit.core.drawing.views import Dress, grounded
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.shape.solids import solid

from .core import SHAPES

PARTS, SLOWER, TURNS = 40, (1, 4), 60
PAGE = """<!doctype html><style>.turn-stand{display:grid}.turn-stand>*{grid-area:1/1;width:100%;height:338px}</style>
<figure data-turntable tabindex="0" data-mesh="/mesh" data-drawn="/drawn?"><div class="turn-stand">
<svg class="turned" viewBox="0 0 1 1" data-turn="0" data-tilt="0"></svg><canvas hidden></canvas></div></figure>
<script src="/turning.js"></script>"""
MEASURE = """async (turns) => {
  const root = document.querySelector("[data-turntable]");
  const press = () => new KeyboardEvent("keydown", {key: "ArrowRight", shiftKey: true, bubbles: true});
  const key = () => root.dispatchEvent(press());
  root.focus(); key();
  await new Promise((done) => setTimeout(done, 400));
  const begun = performance.now();
  for (let turn = 0; turn < turns; turn += 1) { key(); await new Promise(requestAnimationFrame); }
  return turns * 1000 / (performance.now() - begun);
}"""


def mesh() -> dict:
    """Forty parts in two colours each on one body, as the product sends them."""
    parts = [PlacedPart("body", 1, solid(SHAPE(SHAPES[0], "s")), Seat.of({"on": None, "centre_mm": 40}))]
    for n in range(1, PARTS):
        seat = {"on": "body", "t": (n % 9 + 1) / 10, "angle": n * 47 % 360, "pitch": 40, "yaw": n * 31 % 360}
        parts.append(PlacedPart(f"part {n}", 1, solid(SHAPE(SHAPES[n % len(SHAPES)], "s")), Seat.of(seat)))
    pieces = grounded(place(parts))
    found = turned(pieces, {part.name: Dress("#b08a5e", (under("#f1ede3", 0.4),)) for part in parts})
    ground, paints = ground_of(pieces), ["#b08a5e", "#f1ede3"]
    return {
        "points": [round(float(each) * 10) for points in found.points for each in points.ravel()],
        "faces": [[paints.index(paint), *ring] for paint, ring in found.faces],
        "pieces": [count for count, _ in found.pieces], "lifts": [lift for _, lift in found.pieces],
        "bands": found.bands, "strokes": [],
        "paints": paints, "edges": [0.28, 0.28],
        "shadow": [[xy for point in ring for xy in point] for ring in ground.shadow],
        "coin": [xy for point in ground.coin for xy in point],
        "wide": ground.radius, "half": ground.radius, "high": ground.height,
    }  # fmt: skip


def rows() -> list[tuple[str, str]]:
    script = Path(CHECKOUT, "wembit/web/static/turning.js").read_text()
    sent = json.dumps(mesh())
    found = [("turning, faces of 40 parts", f"{sent.count('[')} rings, {len(sent) / 1000:.0f} kB")]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        for slower in SLOWER:
            page = browser.new_page(viewport={"width": 390, "height": 844}, device_scale_factor=2)
            page.route("**/mesh", lambda route: route.fulfill(body=sent, content_type="application/json"))
            page.route("**/drawn**", lambda route: route.abort())
            page.route("**/turning.js", lambda route: route.fulfill(body=script, content_type="text/javascript"))
            page.route("**/", lambda route: route.fulfill(body=PAGE, content_type="text/html"))
            page.goto("http://turntable.invalid/")
            page.context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": slower})
            frames = page.evaluate(MEASURE, TURNS)
            found.append((f"turning, 390 × 338 at 2 dots, processor ÷ {slower}", f"{frames:.0f} frames a second"))
            page.close()
        browser.close()
    return found
