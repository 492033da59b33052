"""The order of work: what waits for what, in every school."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.schools import QUESTIONS, asked, way
from wembit.core.work.steps import Wool, Worked, minutes_range, needles_for, needs_of, steps
from wembit.demo.figures import FIGURES

SCHOOLS = st.fixed_dictionaries({}, optional={key: st.sampled_from(list(q.ways)) for key, q in QUESTIONS.items()})


def worked(figure) -> list[Worked]:
    """A demo figure as the order of work sees it, a gram a layer."""
    return [
        Worked(
            part.name, part.name, part.kind, part.count, part.seat.get("on"), part.firmness or "",
            tuple(Wool(layer["role"], figure.slots[layer["slot"]], layer["slot"], 1.0, row_cm=30, area_cm2=20, pulled_mm=44)
                  for layer in part.layers),
            "wire" if part.shape["kind"] == "wrap" else "", part.seat.get("bead_mm", 0.0),
        )
        for part in figure.parts
    ]  # fmt: skip


BY_NAME = {figure.name: worked(figure) for figure in FIGURES}
NAMES = st.sampled_from(sorted(BY_NAME))


def places(name, school=None) -> dict[str, int]:
    return {step.id: n for n, step in enumerate(steps(BY_NAME[name], school or {}))}


@settings(max_examples=80)
@given(NAMES, SCHOOLS)
def test_in_every_school_each_step_comes_after_what_it_waits_for(name, school):
    found = steps(BY_NAME[name], school)
    place = {step.id: n for n, step in enumerate(found)}
    assert len(place) == len(found), "no step stands twice"
    for step in found:
        assert all(place[step_id] < place[step.id] for step_id in step.after if step_id in place), step.id


@settings(max_examples=40)
@given(NAMES, SCHOOLS)
def test_no_part_and_no_wool_is_forgotten(name, school):
    found = steps(BY_NAME[name], school)
    taken = [wool for step in found for wool in step.wools]
    assert len(taken) == sum(len(part.wools) for part in BY_NAME[name])
    assert {step.part for step in found if step.part} >= {part.key for part in BY_NAME[name] if part.wools}
    assert found[0].id == "gather"
    assert found[-1].id == "away"
    assert all(caution in CAUTIONS for step in found for caution in step.cautions)
    assert all(step.minutes > 0 for step in found)


def test_a_hedgehogs_coat_is_planted_before_its_ears_are_fitted():
    place = places("Hedgehog")
    assert place["prepare:locks"] < place["coat:body"] < place["join:ear"]
    assert place["join:face"] < place["coat:body"]


def test_eyes_early_in_the_middle_or_last():
    early, middle, last = (places("Hare, crouched", {"eyes": when}) for when in ("early", "middle", "last"))
    assert early["eyes:eye"] < early["finish"]
    assert last["eyes:eye"] == last["finish"] - 1
    assert middle["eyes:eye"] > middle["cover:head"]
    assert last["eyes:eye"] > last["join:ear"]


def test_wire_is_bent_before_it_is_wound_and_warned_of():
    found = {step.id: step for step in steps(BY_NAME["Heron"], {})}
    assert "wire:leg" in found["make:leg"].after
    assert "wire" in found["make:leg"].cautions


def test_a_pair_is_worked_side_by_side_from_equal_halves():
    found = {step.id: step for step in steps(BY_NAME["Hare, crouched"], {})}
    assert "side by side" in found["make:foreleg"].words
    assert "within a few per cent" in found["make:foreleg"].compare
    assert "alike enough" in found["make:ear"].compare, "ears may differ more than legs that carry"
    free = {step.id: step for step in steps(BY_NAME["Hare, crouched"], {"twins": "free"})}
    assert "need not match" in free["make:foreleg"].words
    assert "Beside" not in free["make:foreleg"].compare


def test_what_carries_is_reinforced_tried_with_a_pin_and_covered_at_the_seam():
    found = {step.id: step for step in steps(BY_NAME["Otter, upright"], {})}
    assert "with a pin first" in found["join:hind foot"].words
    assert "crosswise over the joint" in found["join:hind foot"].words
    assert "A thin wisp over the seam" in found["join:head"].words
    assert "mouth" in found["cover:head"].words
    glued = {step.id: step for step in steps(BY_NAME["Otter, upright"], {"attach": "glue"})}
    assert glued["join:head"].wait_hours > 0
    assert "glue" in glued["join:head"].cautions
    part = {step.id: step for step in steps(BY_NAME["Otter, upright"], {"parts": {"ear": {"attach": "stitch"}}})}
    assert "Stitch" in part["join:ear"].words
    assert "Stitch" not in part["join:head"].words


def test_clay_is_baked_first_and_fittings_come_before_the_last_look():
    found = steps(BY_NAME["Snail"], {}, [("clay", "beak"), ("brooch_back", "")])
    place = {step.id: n for n, step in enumerate(found)}
    assert place["prepare:clay"] < place["make:foot"] < place["fit:1"] < place["finish"]
    by_id = {step.id: step for step in found}
    assert "clay" in by_id["prepare:clay"].cautions
    assert "wire" in by_id["fit:1"].cautions
    assert "with a pin first" in by_id["fit:1"].words


def test_the_head_may_come_first():
    place = places("Hare, crouched", {"build": "head"})
    assert place["make:head"] < place["make:body"]
    assert places("Hare, crouched")["make:body"] < place["make:body"]


def test_never_a_bundle_on_faces_and_finer_for_details():
    # higher gauges are finer: 36 and 38 for bulk, 40 and 42 for detail  # common practice
    assert "36" in needles_for("medium", "core", False)
    assert "42" in needles_for("firm", "detail", True)
    found = {step.id: step for step in steps(BY_NAME["Otter, upright"], {"needles": "bundle"})}
    assert "two or three" in found["make:body"].needles
    assert "never a bundle" in found["make:muzzle"].needles


def test_a_question_is_asked_only_where_it_is_needed_and_once():
    needs = needs_of(BY_NAME["Lighthouse"])
    assert "eyes" not in asked(needs, {})
    assert "trim" not in asked(needs, {})
    assert "attach" in asked(needs, {})
    assert "trim" in asked(needs_of(BY_NAME["Hedgehog"]), {})
    assert "attach" not in asked(needs, {"attach": "glue"})
    assert way({"attach": "nonsense"}, "attach") == "loose end"


# a simple figure half an hour to an hour, a detailed one ten times that  # common practice
@pytest.mark.parametrize("name", sorted(BY_NAME))
def test_times_are_those_of_the_bench(name):
    minutes = sum(step.minutes for step in steps(BY_NAME[name], {}))
    assert 30 < minutes < 600
    low, high = minutes_range(minutes)
    assert low < minutes < high


BALL = Worked("ball", "ball", "ball", 1, None, "medium", ())


@pytest.mark.parametrize(
    ("part", "needs"),
    [
        (BALL, set()),
        (replace(BALL, wools=(Wool("core", "sand", "core", 1.0, form="batt"),)), {"bulk"}),
        (replace(BALL, wools=(Wool("core", "sand", "core", 1.0, form="tops"),)), {"bulk", "tops"}),
        (replace(BALL, wools=(Wool("cover", "sand", "main", 1.0, form="tops"),)), {"cover"}),
        (replace(BALL, wools=(Wool("coat", "sand", "main", 1.0, form="locks"),)), {"coat"}),
        (replace(BALL, wools=(Wool("detail", "sand", "main", 1.0, form="tops"),)), set()),
        (replace(BALL, count=2), set()),
        (replace(BALL, count=2, wools=(Wool("core", "sand", "core", 1.0, form="batt"),)), {"bulk", "pairs"}),
        (replace(BALL, count=2, wools=(Wool("cover", "sand", "core", 1.0, form="batt"),)), {"cover"}),
        (replace(BALL, on="body"), set()),
        (replace(BALL, on="body", wools=(Wool("detail", "sand", "main", 1.0, form="tops"),)), {"joins"}),
        (replace(BALL, kind="eye"), {"eyes"}),
        (replace(BALL, kind="head"), {"head"}),
    ],
)
def test_what_a_part_brings_makes_the_questions_arise(part, needs):
    assert needs_of([part]) == needs


def test_the_questions_of_a_figure_are_those_of_its_parts_together():
    head = replace(BALL, kind="head", on="ball", wools=(Wool("core", "sand", "core", 1.0, form="tops"),))
    assert needs_of([BALL, head]) == {"bulk", "tops", "joins", "head"}


def test_clay_waits_until_it_is_cold():
    baked = next(step for step in steps([BALL], {}, [("clay", "beak")]) if step.id == "prepare:clay")
    assert (baked.minutes, baked.wait_hours, baked.cautions, baked.wools) == (20, 2, ("clay",), ())
