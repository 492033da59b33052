"""How long the steps take, what waits, what bears, which host is waited for: each constant by an example of its own.

Rates are common practice: minutes a gram by firmness, a fifth of a minute a cm² of cover, 0.8 a cm of coat, 5 a join.
"""

from dataclasses import replace

import pytest
from scipy.stats import lognorm

from wembit.core.work.order import steps
from wembit.core.work.step import minutes_range
from wembit.core.work.worked import Wool, Worked

BODY = Worked("body", "body", "body", 1, None, "firm", (
    Wool("core", "core", "core", 10.0),
    Wool("cover", "moss", "main", 3.0, area_cm2=100.0),
    Wool("detail", "fog", "spots", 0.2), Wool("detail", "oat", "line", 0.2),
    Wool("coat", "moss", "coat", 2.0, row_cm=50.0),
))  # fmt: skip
LEGS = Worked("leg", "leg", "leg", 4, "body", "medium", (Wool("core", "core", "core", 2.0),))
EARS = Worked("ear", "ear", "ear", 2, "body", "medium", (Wool("core", "core", "core", 0.1),))


def by_id(parts, school=None, **more):
    return {step.id: step for step in steps(parts, school or {}, **more)}


@pytest.mark.parametrize(
    ("firmness", "minutes"), [("airy", 20), ("soft", 30), ("medium", 45), ("firm", 70), ("very_firm", 110), ("", 50)]
)
def test_a_core_of_ten_grams(firmness, minutes):
    assert by_id([replace(BODY, firmness=firmness)])["make:body"].minutes == pytest.approx(minutes)


def test_covers_coats_details_and_joins():
    found = by_id([BODY, LEGS])
    assert found["cover:body"].minutes == pytest.approx(20)
    assert found["coat:body"].minutes == pytest.approx(30)
    assert found["trim:body"].minutes == pytest.approx(10)
    whole = by_id([BODY, LEGS], {"trim": "row"})
    assert whole["coat:body"].minutes == pytest.approx(40)
    assert found["detail:body"].minutes == pytest.approx(8)
    assert found["join:leg"].minutes == pytest.approx(20)
    assert found["make:leg"].minutes == pytest.approx(9)


def test_nothing_takes_less_than_two_minutes_a_piece():
    found = by_id(
        [
            replace(BODY, wools=(Wool("core", "core", "core", 0.05), Wool("cover", "moss", "main", 0.1, area_cm2=1))),
            EARS,
        ]
    )
    assert found["make:body"].minutes == 2
    assert found["cover:body"].minutes == 2
    assert found["make:ear"].minutes == 4


@pytest.mark.parametrize("minutes", [2.0, 45.0, 600.0])
def test_eight_of_ten_times_lie_in_the_range(minutes):
    # a lognormal about its median with σ 0.35, by scipy
    low, high = minutes_range(minutes)
    told = lognorm(s=0.35, scale=minutes)
    assert told.cdf(low) == pytest.approx(0.1, abs=1e-5)
    assert told.cdf(high) == pytest.approx(0.9, abs=1e-5)


@pytest.mark.parametrize(
    ("how", "hours"), [("glue", 12), ("bored", 12), ("loose end", 0), ("pinned", 0), ("stitch", 0), ("wisp", 0)]
)
def test_glue_waits_overnight_and_felt_does_not(how, hours):
    legs = replace(LEGS, wire="1 mm wire", cut_list=((4, 60),), bare_mm=13) if how == "bored" else LEGS
    join = by_id([BODY, legs], {"attach": how})["join:leg"]
    assert join.wait_hours == hours
    assert ("glue" in join.cautions) is (hours > 0)


@pytest.mark.parametrize(
    ("kind", "bears"), [("leg", True), ("foot", True), ("neck", True), ("arm", False), ("tail", False)]
)
def test_what_carries_gets_a_wisp_crosswise(kind, bears):
    join = by_id([BODY, replace(LEGS, kind=kind)])["join:leg"]
    assert ("It carries" in join.words) is bears


def test_a_part_waits_for_what_it_sits_on_and_for_that_to_be_joined():
    head = replace(LEGS, key="head", name="head", kind="head", count=1)
    snout = replace(LEGS, key="snout", name="snout", kind="snout", count=1, on="head")
    found = by_id([BODY, head, snout])
    assert {"make:body", "make:head"} <= set(found["join:head"].waits_for)
    assert {"make:head", "join:head"} <= set(found["join:snout"].waits_for)
    assert "join:snout" not in found["join:head"].waits_for
    assert found["join:snout"].title == "Join snout to head"


def test_late_parts_wait_for_the_cover_and_the_coat_and_the_cover_for_the_others():
    legs = replace(LEGS, wools=(Wool("core", "moss", "main", 2.0),))  # of the cover's colour, which goes over the seam
    found = by_id([BODY, legs, EARS])
    assert {"cover:body", "coat:body"} <= set(found["join:ear"].waits_for)
    assert {"join:leg"} <= set(found["cover:body"].waits_for)
    assert "join:ear" not in found["cover:body"].waits_for
    assert found["coat:body"].waits_for[0] == "detail:body"


def test_eyes_take_three_minutes_each_and_wait_for_their_glue():
    eyes = Worked("eye", "eyes", "eye", 2, "body", "", (), bead_mm=5.0)
    found = by_id([BODY, eyes])["eyes:eye"]
    assert found.minutes == 6
    assert found.wait_hours == 12
    assert "Set 2 × eyes" in found.title
