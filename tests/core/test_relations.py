"""Parts that follow other parts, and wool divided by shares."""

from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.errors import BadInput
from wembit.core.grams.relations import WOOL, Relation, grams, holds, order, resolve
from wembit.core.portions import TooMuch, Wish, divide
from wembit.core.shape.sizes import CLOSED, grown, resized, size, sizes
from wembit.core.shape.solids import KINDS, solid
from wembit.core.units import Unreadable, share


def part(kind="capsule", firmness="firm", layers=None, count=1, **lengths):
    layers = layers or [{"role": "core", "fibre": "a"}]
    return {"name": "p", "count": count, "shape": {"kind": kind, **lengths}, "firmness": firmness, "layers": layers}


BODY = part("ellipsoid", "medium", length_mm=100, width_mm=60, height_mm=55)
LEG = part(diameter_mm=12, length_mm=40, count=4)
TAIL = part("sphere", "soft", diameter_mm=17)
COVER = {"role": "cover", "fibre": "b", "micron_um": 21, "srgb": "#6f7d43", "over": "#e9e2d2"}


def test_body_legs_and_head_two_to_one_to_one():
    # body : leg : head = 2 : 1 : 1 in length; the body enlarged to 15 cm: legs and head 7.5 cm  # common practice
    parts = {"body": {**BODY, "shape": {**BODY["shape"], "length_mm": 150}}, "leg": LEG, "head": TAIL}
    half = [Relation("length_mm", "body", "length_mm", 0.5)]
    found = resolve(parts, {"leg": half, "head": [Relation("diameter_mm", "body", "length_mm", 0.5)]})
    assert found["leg"]["length_mm"] == pytest.approx(75)
    assert found["head"]["diameter_mm"] == pytest.approx(75)
    assert found["leg"]["diameter_mm"] == pytest.approx(12 * 75 / 40), "it keeps its proportions"
    alone = resolve(parts, {"leg": [Relation("length_mm", "body", "length_mm", 0.5, whole=False)]})
    assert alone["leg"] == {"kind": "capsule", "length_mm": pytest.approx(75), "diameter_mm": 12}


def test_a_tail_takes_a_third_of_a_legs_wool():
    # legs of 1.2 g: tail 0.4 g  # common practice
    leg = grams(LEG, 1)
    found = resolve({"leg": LEG, "tail": TAIL}, {"tail": [Relation(WOOL, "leg", WOOL, 1 / 3)]})
    assert grams({**TAIL, "shape": found["tail"]}, 1) == pytest.approx(leg / 3, rel=1e-6)
    fixed = resolve({"tail": TAIL}, {"tail": [Relation(WOOL, None, WOOL, 0.4)]})
    assert grams({**TAIL, "shape": fixed["tail"]}, 1) == pytest.approx(0.4, rel=1e-6)


def test_a_shell_goes_round_the_crab_with_2_mm_to_spare():
    crab, rim = part(diameter_mm=23, length_mm=36), part("torus", outer_diameter_mm=38, tube_diameter_mm=8)
    relation = [Relation("hole_mm", "crab", "diameter_mm", 1, gap_mm=2, whole=False)]
    found = resolve({"crab": crab, "rim": rim}, {"rim": relation})["rim"]
    assert size(found, "hole_mm") == pytest.approx(25)
    assert found["outer_diameter_mm"] == pytest.approx(41)
    larger = resolve({"crab": crab, "rim": rim}, {"rim": relation}, scale=2)["rim"]
    assert 2 * size(larger, "hole_mm") == pytest.approx(2 * 23 + 2), "still 2 mm at twice the size"


@settings(max_examples=40)
@given(st.floats(0.3, 4), st.floats(0.1, 3), st.sampled_from(["length_mm", WOOL]), st.booleans())
def test_relations_keep_their_sense_under_scaling(scale, times, what, covered):
    """At every scale the share is the share, whatever grows with the square and whatever with the cube."""
    leg = {**LEG, "layers": [*LEG["layers"], COVER]} if covered else LEG
    of = "length_mm" if what != WOOL else WOOL
    size_of = "diameter_mm" if what != WOOL else WOOL
    found = resolve({"leg": leg, "tail": TAIL}, {"tail": [Relation(size_of, "leg", of, times)]}, scale)["tail"]
    if what == WOOL:
        assert grams({**TAIL, "shape": found}, scale) == pytest.approx(times * grams(leg, scale), rel=1e-6)
    else:
        assert found["diameter_mm"] * scale == pytest.approx(times * 40 * scale)


def test_a_chain_is_followed_in_order_and_a_ring_is_named():
    chain = {"c": [Relation("length_mm", "b", "length_mm", 0.5)], "b": [Relation("length_mm", "a", "length_mm", 0.5)]}
    assert order(chain) == ["b", "c"]
    found = resolve({"a": BODY, "b": LEG, "c": LEG}, chain)
    assert found["c"]["length_mm"] == pytest.approx(25)
    with pytest.raises(BadInput, match="in a ring: a, c, b, a"):
        order({"a": [Relation("length_mm", "c", "length_mm", 1)], **chain})
    with pytest.raises(BadInput, match="in a ring: a, a"):
        order({"a": [Relation("length_mm", "a", "width_mm", 1)]})


@pytest.mark.parametrize(
    ("relation", "said"),
    [
        (Relation("length_mm", "nobody", "length_mm", 1), "not there"),
        (Relation("length_mm", "body", "tube_diameter_mm", 1), "no size"),
        (Relation("height_mm", "body", "length_mm", 1), "no size"),
        (Relation("length_mm", "body", "length_mm", 1e-4), "below 0.1 mm"),
        (Relation("length_mm", "body", "length_mm", 1, gap_mm=-200), "below 0.1 mm"),
        (Relation(WOOL, "body", WOOL, 1e9), "no size of the part"),
    ],
)
def test_what_cannot_be_followed_is_told(relation, said):
    with pytest.raises(BadInput, match=said):
        resolve({"body": BODY, "leg": LEG}, {"leg": [relation]})


@given(st.sampled_from(CLOSED), st.floats(0.2, 5))
def test_a_grown_shape_has_every_length_but_the_wire(kind, times):
    shape = {"kind": kind, **{name: 5.0 + i for i, name in enumerate(reversed(KINDS[kind].SIZES))}}
    if kind == "wrap":
        shape["wire_mm"] = 0.5
    found = grown(shape, times)
    for name, mm in sizes(shape).items():
        assert size(found, name) == pytest.approx(mm if name == "wire_mm" else mm * times)


@given(st.floats(0.2, 5), st.floats(0.2, 5))
def test_outlines_are_stretched(long, wide):
    slab = {"kind": "slab", "outline": [[0, -5], [40, -7], [40, 5], [0, 5]], "thickness_mm": 3}
    found = resized(slab, {"length_mm": 40 * long, "width_mm": 12 * wide})
    assert sizes(found) == pytest.approx({"length_mm": 40 * long, "width_mm": 12 * wide, "thickness_mm": 3})
    assert solid(SHAPE(found, "s")).volume == pytest.approx(solid(SHAPE(slab, "s")).volume * long * wide, rel=1e-6)


# 10 g of the main colour: three quarters to the head, the rest in four  # common practice
def test_three_quarters_to_the_head_and_the_rest_in_four():
    wishes = [Wish("head", 1, Fraction(3, 4)), Wish("ear", 2, None), Wish("nose", 1, None), Wish("pin", 1, None)]
    portions, left = divide(10, wishes)
    assert [portion.grams for portion in portions] == [7.5, 1.25, 0.63, 0.62]
    assert left == 0
    assert portions[1].each_g == 0.625


# legs from equal quarters; 1.2 g each: tail 0.4, head 2.4  # common practice
def test_what_no_share_takes_is_left():
    portions, left = divide(8, [Wish("leg", 4, Fraction(3, 5)), Wish("tail", 1, Fraction(1, 20))])
    assert [portion.each_g for portion in portions] == [1.2, 0.4]
    assert left == 2.8


@given(
    st.floats(0.01, 500),
    st.lists(st.tuples(st.integers(1, 6), st.none() | st.fractions(0, Fraction(1, 5))), min_size=1, max_size=5),
)
def test_portions_add_up_to_the_whole(grams_, rows):
    portions, left = divide(grams_, [Wish(str(i), count, share_) for i, (count, share_) in enumerate(rows)])
    whole = round(grams_ / 0.01) * 0.01
    assert sum(portion.grams for portion in portions) + left == pytest.approx(whole, abs=1e-6)
    assert all(portion.grams >= 0 for portion in portions)


def test_more_than_the_whole_is_told():
    with pytest.raises(TooMuch) as told:
        divide(10, [Wish("a", 1, Fraction(3, 4)), Wish("b", 1, Fraction(1, 2))])
    assert told.value.total == Fraction(5, 4)


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("half", Fraction(1, 2)), ("a third", Fraction(1, 3)), ("two thirds", Fraction(2, 3)), ("3/4", Fraction(3, 4)),
        ("three quarters", Fraction(3, 4)), ("¾", Fraction(3, 4)), ("0.5", Fraction(1, 2)), ("0,5", Fraction(1, 2)),
        ("25 %", Fraction(1, 4)), ("1 1/2", Fraction(3, 2)), ("twice", Fraction(2)), ("the same", Fraction(1)),
        ("a half of it", Fraction(1, 2)), ("2", Fraction(2)),
    ],
)  # fmt: skip
def test_shares_as_people_say_them(text, value):
    assert share(text) == value


@pytest.mark.parametrize("text", ["", "much", "-1/2", "0", "1/0", "half a leg"])
def test_what_is_no_share_is_told(text):
    with pytest.raises(Unreadable, match="share"):
        share(text)


def test_a_relation_holds_while_both_shapes_have_its_sizes():
    ball, slab = (
        {"kind": "sphere", "diameter_mm": 9},
        {"kind": "slab", "outline": [[0, 0], [9, 0], [5, 5]], "thickness_mm": 2},
    )
    follows = Relation("diameter_mm", "body", "length_mm", 0.5)
    assert holds(follows, ball, {"kind": "capsule", "length_mm": 40, "diameter_mm": 9})
    assert not holds(follows, ball, ball), "a ball is not long"
    assert not holds(follows, slab, {"kind": "capsule", "length_mm": 40, "diameter_mm": 9})
    assert not holds(follows, ball, None), "what it follows is gone"
    assert holds(Relation(WOOL, "body", WOOL, 1.0), slab, None), "wool is in every shape"
