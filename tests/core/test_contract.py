"""The command line: answers, errors at their place, exit codes."""

import json
import math
import os
import subprocess
import sys

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.__main__ import answer
from wembit.core.contract.validator import Many, Number, must_be_object, text, truth
from wembit.core.errors import BadInput
from wembit.core.verbs import VERBS

BALL = {"name": "b", "shape": {"kind": "sphere", "diameter_mm": 30}, "firmness": "firm", "layers": []}
PACKS = {"grams": 130, "packs": [{"grams": 50, "price": 4.9}, {"grams": 25, "price": 2.6}]}
FIBRE = {"id": "a", "on_hand_g": 10, "lead_days": 5, "packs": [{"grams": 50, "price": 4.9}]}
FORECAST = {"today": "2026-11-25", "fibres": [FIBRE]}
COLOUR = {"target": {"srgb": "#6f7d43"}, "lots": [{"id": "x", "srgb": "#334455"}]}
ALLOCATE = {"lots": [{"id": "l", "fibre": "f", "grams": 3}], "demands": []}
HOURS = dict.fromkeys(("mon", "tue", "wed", "thu", "fri", "sat", "sun"), 2)
SCHEDULE = {"today": "2026-11-25", "hours": HOURS, "jobs": []}
SOUND = {
    "cover": {"srgb": "#ffffff", "over": "#000000", "micron_um": 22},
    "match": COLOUR,
    "blend": {**COLOUR, "grams": 6},
    "calibrate": {"records": [], "ask": [{"maker": "m", "firmness": "firm"}]},
    "allocate": ALLOCATE,
    "schedule": SCHEDULE,
}


def fault(verb, request):
    raw = request if isinstance(request, bytes) else json.dumps(request).encode()
    with pytest.raises(BadInput) as caught:
        answer(verb, raw)
    return caught.value


def shape(**fields):
    return {"parts": [{**BALL, "shape": fields}]}


def layer(**fields):
    return {"parts": [{**BALL, "layers": [fields]}]}


@pytest.mark.parametrize(
    ("verb", "request_", "where"),
    [
        ("estimate", shape(kind="sphere", diameter_mm=-3), "parts[0].shape.diameter_mm"),
        ("estimate", shape(kind="sphere", diameter_mm="3"), "parts[0].shape.diameter_mm"),
        ("estimate", shape(kind="sphere", diameter_mm=True), "parts[0].shape.diameter_mm"),
        ("estimate", shape(kind="sphere", diameter_mm=None), "parts[0].shape.diameter_mm"),
        ("estimate", shape(kind="sphere"), "parts[0].shape.diameter_mm"),
        ("estimate", shape(kind="ball", diameter_mm=3), "parts[0].shape.kind"),
        ("estimate", shape(diameter_mm=3), "parts[0].shape.kind"),
        ("estimate", shape(kind="sphere", diameter_mm=3, length_mm=4), "parts[0].shape.length_mm"),
        ("estimate", shape(kind="capsule", diameter_mm=12, length_mm=11), "parts[0].shape.length_mm"),
        ("estimate", shape(kind="torus", outer_diameter_mm=20, tube_diameter_mm=11), "parts[0].shape.tube_diameter_mm"),
        ("estimate", shape(kind="wrap", length_mm=9, diameter_mm=2, wire_mm=2), "parts[0].shape.wire_mm"),
        ("estimate", {"scale": 0.4, **shape(kind="wrap", length_mm=9, diameter_mm=2, wire_mm=1)}, "parts[0].shape.wire_mm"),
        ("estimate", shape(kind="slab", thickness_mm=3, outline=[[0, 0], [9, 9], [9, 0], [0, 9]]), "parts[0].shape.outline"),
        ("estimate", shape(kind="slab", thickness_mm=3, outline=[[0, 0], [9, 0]]), "parts[0].shape.outline"),
        ("estimate", shape(kind="slab", thickness_mm=3, outline=[[0, 0], [9, 0], [5]]), "parts[0].shape.outline[2]"),
        ("estimate", shape(kind="silhouette", stations=[[0, 3], [9, 8], [9, 3]]), "parts[0].shape.stations[2][0]"),
        ("estimate", shape(kind="silhouette", stations=[[0, -3], [9, 8]]), "parts[0].shape.stations[0][1]"),
        ("estimate", {"parts": [{**BALL, "density_g_cm3": 0.1}]}, "parts[0].density_g_cm3"),
        ("estimate", {"parts": [{k: v for k, v in BALL.items() if k != "firmness"}]}, "parts[0].firmness"),
        ("estimate", {"parts": [{**BALL, "firmness": "hard"}]}, "parts[0].firmness"),
        ("estimate", {"parts": [{**BALL, "count": 1.5}]}, "parts[0].count"),
        ("estimate", {"parts": [{**BALL, "count": 0}]}, "parts[0].count"),
        ("estimate", {"parts": [{**BALL, "visible": 1.1}]}, "parts[0].visible"),
        ("estimate", {"parts": [{**BALL, "armature_mm3": 99999}]}, "parts[0].armature_mm3"),
        ("estimate", {"parts": [{**BALL, "colour": 1}]}, "parts[0].colour"),
        ("estimate", layer(role="core"), "parts[0].layers[0].fibre"),
        ("estimate", layer(role="core", fibre="a", share=0.5), "parts[0].layers"),
        ("estimate", layer(role="core", fibre="a", firmness="firm", density_g_cm3=1), "parts[0].layers[0].density_g_cm3"),
        ("estimate", layer(role="skin", fibre="a"), "parts[0].layers[0].role"),
        ("estimate", layer(role="padding", fibre="a", thickness_mm=2), "parts[0].layers[0].firmness"),
        ("estimate", layer(role="padding", fibre="a", thickness_mm=9, firmness="airy"), "parts[0].layers[0].thickness_mm"),
        ("estimate", layer(role="coat", fibre="a", row_spacing_mm=6, grams_per_cm=0.03, pulled_mm=20, finished_mm=11),
         "parts[0].layers[0].finished_mm"),
        ("estimate", layer(role="cover", fibre="a", micron_um=20, srgb="red", over="#000000"), "parts[0].layers[0].srgb"),
        ("estimate", {"parts": [{**BALL, "shape": {"kind": "none"}, "layers": [{"role": "core", "fibre": "a"}]}]},
         "parts[0].layers[0].role"),
        ("estimate", {"parts": {}}, "parts"),
        ("estimate", {}, "parts"),
        ("estimate", b'{"parts": [], "parts": []}', "parts"),
        ("estimate", b'{"scale": NaN, "parts": []}', "scale"),
        ("estimate", b'{"scale": 1e400, "parts": []}', "scale"),
        ("estimate", b"[]", "request"),
        ("estimate", b"nonsense", "request"),
        ("estimate", b"\xff\xfe", "request"),
        ("estimate", b"[" * 100_000, "request"),
        ("packs", {**PACKS, "packs": []}, "packs"),
        ("packs", {**PACKS, "grams": -1}, "grams"),
        ("packs", {"grams": 1, "packs": [{"grams": 0, "price": 1}]}, "packs[0].grams"),
        ("packs", {"grams": 1, "packs": [{"grams": 5, "price": -1}]}, "packs[0].price"),
        ("forecast", {**FORECAST, "service": 1}, "service"),
        ("forecast", {**FORECAST, "today": "25.11.2026"}, "today"),
        ("forecast", {**FORECAST, "today": "2026-02-30"}, "today"),
        ("forecast", {**FORECAST, "fibres": [FIBRE, FIBRE]}, "fibres[1].id"),
        ("forecast", {**FORECAST, "fibres": [{**FIBRE, "demands": [{"date": "2026-12-01", "grams": 3, "sigma": 6}]}]},
         "fibres[0].demands[0].sigma"),
        ("forecast", {**FORECAST, "fibres": [{**FIBRE, "habit": {"weekly_g": 1}}]}, "fibres[0].habit.weekly_sd_g"),
        ("forecast", {**FORECAST, "fibres": [{**FIBRE, "lead_sd_days": -2}]}, "fibres[0].lead_sd_days"),
        ("cover", {**SOUND["cover"], "least_g_m2": 500}, "least_g_m2"),
        ("match", {**COLOUR, "lots": COLOUR["lots"] * 2}, "lots[1].id"),
        ("match", {**COLOUR, "target": {"srgb": "#6f7d43", "lab": [50, 0, 0]}}, "target.lab"),
        ("match", {**COLOUR, "lots": [{"id": "x", "lab": [50, 120, -120]}]}, "lots[0].lab"),
        ("match", {**COLOUR, "limit": 0}, "limit"),
        ("match", {**COLOUR, "lots": [{"id": "x", "reflectance": [0.5] * 35}]}, "lots[0].reflectance"),
        ("blend", {**COLOUR, "grams": 0}, "grams"),
        ("blend", {**COLOUR, "grams": 6, "lots": [{"id": "x", "srgb": "#334455", "grams": -1}]}, "lots[0].grams"),
        ("blend", {**COLOUR, "grams": 6, "parts": 17}, "parts"),
        ("calibrate", {"records": [{"maker": "m", "planned_g": 1, "actual_g": 1}], "ask": []}, "records[0].firmness"),
        ("allocate", {**ALLOCATE, "lots": ALLOCATE["lots"] * 2}, "lots[1].id"),
        ("schedule", {**SCHEDULE, "hours": dict.fromkeys(HOURS, 0)}, "hours"),
        ("schedule", {**SCHEDULE, "hours": {"mon": 3}}, "hours.tue"),
    ],
)  # fmt: skip
def test_a_fault_is_named_at_its_place(verb, request_, where):
    found = fault(verb, request_)
    assert found.where == where
    json.dumps(found.as_json(), allow_nan=False)


def test_the_error_carries_rule_and_value():
    found = fault("estimate", shape(kind="sphere", diameter_mm=-3)).as_json()
    place = "parts[0].shape.diameter_mm"
    assert found == {"error": {"where": place, "what": "must be greater than 0", "got": -3}}


def run(*words, stdin=b""):
    done = subprocess.run(
        [sys.executable, "-m", "wembit.core", *words], input=stdin, capture_output=True, env=os.environ
    )
    return done.returncode, done.stdout.decode(), done.stderr.decode()


def test_the_command_line_answers_in_json():
    code, out, _ = run("packs", stdin=json.dumps(PACKS).encode())
    assert code == 0
    assert json.loads(out) == {"packs": [{"grams": 50, "count": 3}], "grams": 150, "cost": 14.7}


def test_exit_codes():
    assert run("estimate", stdin=b"{}")[0] == 1
    code, out, err = run("knit")
    assert (code, out) == (2, "")
    assert "usage" in err


def test_lines_go_on_after_a_bad_one():
    rows = [json.dumps(PACKS), "nonsense", json.dumps({**PACKS, "grams": 0})]
    code, out, _ = run("packs", "--lines", stdin="\n".join(rows).encode())
    answers = [json.loads(line) for line in out.splitlines()]
    assert code == 1
    assert len(answers) == 3
    assert answers[1]["error"]["where"] == "request"
    assert answers[2]["cost"] == 0


VALUES = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=5),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["parts", "kind", "shape", "x"]), inner)
    ),
    max_leaves=8,
)


@settings(max_examples=150)
@given(st.sampled_from(sorted(VERBS)), VALUES)
def test_no_input_brings_a_traceback(verb, value):
    try:
        found = answer(verb, json.dumps(value).encode())
        json.dumps(found, allow_nan=False)
    except BadInput as trouble:
        json.dumps(trouble.as_json(), allow_nan=False)


def test_huge_numbers_answer_without_infinity():
    request = shape(kind="box", length_mm=1e9, width_mm=1e9, height_mm=1e9)
    request["scale"] = 10_000
    found = answer("estimate", json.dumps(request).encode())
    assert math.isfinite(found["parts"][0]["volume_mm3"])


def test_an_estimate_tells_what_is_trimmed_and_what_hides_what_is_under_it():
    """A ball of 40 mm in a coat of folded locks, 0.05 g a cm in rows of 8 mm, pulled 40 mm long and cut to 12."""
    seen = {"srgb": "#ffffff", "over": "#000000", "micron_um": 40}
    layers = [
        {"role": "core", "fibre": "oat"},
        {"role": "cover", "fibre": "chalk", **seen},
        {
            "role": "coat",
            "fibre": "curl",
            "row_spacing_mm": 8,
            "grams_per_cm": 0.05,
            "pulled_mm": 40,
            "finished_mm": 12,
        },
    ]
    part = {"name": "body", "shape": {"kind": "sphere", "diameter_mm": 40}, "firmness": "firm", "layers": layers}
    core, cover, coat = answer("estimate", json.dumps({"parts": [part]}).encode())["parts"][0]["layers"]
    assert set(core) == {"role", "fibre", "grams"}
    alone = answer("cover", json.dumps(seen).encode())
    assert cover["cover_g_m2"] == pytest.approx(alone["cover_g_m2"])
    assert cover.get("capped", False) == alone.get("capped", False)
    assert coat["grams"]["p50"] == pytest.approx(math.pi * 40**2 / 8 / 10 * 0.05 * 1.08), "with the allowance"
    assert coat["trimmed_g"] == pytest.approx(coat["grams"]["p50"] * (1 - 12 / 20))


@pytest.mark.parametrize(
    ("check", "value", "said"),
    [
        (Number(), -1e300, "at least -1e"),
        (Number(whole=True), 1.5, "a whole number"),
        (text, 3, "must be text"),
        (text, "  ", "must not be empty"),
        (truth, "yes", "true or false"),
        (Many(text, most=1), ["a", "b"], "at most 1"),
        (Many(text, least=1), [], "at least 1"),
        (must_be_object, [], "an object"),
    ],
)
def test_each_check_says_what_it_wants_and_where(check, value, said):
    with pytest.raises(BadInput, match=said) as caught:
        check(value, "parts[0].name")
    assert caught.value.where == "parts[0].name"
