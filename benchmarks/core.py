"""The core: an estimate inside the process, and verbs of the command line in new processes."""

from __future__ import annotations

import json
import statistics
import subprocess
import sys
import time

from tests.serving import CHECKOUT
from wembit.core.grams.estimate import estimate

SHAPES = [
    {"kind": "ellipsoid", "length_mm": 70, "width_mm": 40, "height_mm": 44},
    {"kind": "capsule", "diameter_mm": 12, "length_mm": 45},
    {"kind": "slab", "outline": [[0, 6], [12, 9], [30, 4], [38, 0], [30, -4], [12, -9], [0, -6]], "thickness_mm": 4},
    {"kind": "frustum", "diameter1_mm": 20, "diameter2_mm": 8, "length_mm": 60},
    {"kind": "silhouette", "stations": [[0, 4], [20, 30], [50, 36], [80, 10]], "depth_ratio": 0.8},
]


def figure(parts: int) -> dict:
    """A request with that many parts, each with core, cover and padding."""
    layers = [
        {"role": "core", "fibre": "core"},
        {"role": "padding", "fibre": "soft", "thickness_mm": 2, "firmness": "airy"},
        {"role": "cover", "fibre": "fawn", "share": 0.8, "micron_um": 24, "srgb": "#b08858", "over": "#eeeae0"},
    ]
    rows = [
        {
            "name": f"part {n}",
            "count": 1 + n % 2,
            "shape": SHAPES[n % len(SHAPES)],
            "firmness": "firm",
            "layers": layers[:: 2 if n % 5 == 2 else 1],
        }
        for n in range(parts)
    ]
    return {"scale": 1, "parts": rows}


def in_process(parts: int) -> str:
    request, times = figure(parts), []
    for _ in range(200):
        begun = time.perf_counter()
        estimate(request)
        times.append((time.perf_counter() - begun) * 1000)
    return f"{statistics.median(times):6.2f} ms median  {sorted(times)[190]:6.2f} ms p95"


def new_process(verb: str, request: dict) -> str:
    times = []
    for _ in range(7):
        begun = time.perf_counter()
        command = [sys.executable, "-m", "wembit.core", verb]
        done = subprocess.run(command, input=json.dumps(request), capture_output=True, text=True, cwd=CHECKOUT)
        times.append((time.perf_counter() - begun) * 1000)
        if done.returncode:
            raise RuntimeError(done.stdout + done.stderr)
    return f"{statistics.median(times):6.0f} ms median  {min(times):6.0f} ms at best"


def rows() -> list[tuple[str, str]]:
    packs = {
        "grams": 137,
        "packs": [{"grams": 25, "price": 2.9}, {"grams": 50, "price": 4.9}, {"grams": 100, "price": 8.4}],
    }
    found = [(f"estimate of {parts} parts", in_process(parts)) for parts in (10, 30, 90, 200)]
    found.append(("command line: estimate, 30 parts", new_process("estimate", figure(30))))
    found.append(("command line: packs", new_process("packs", packs)))
    return found
