"""Cutting lists against worked examples of the trade."""

import math
from dataclasses import replace

import pytest

from wembit.core.craft.armature import Wire, cutting_list, lengths
from wembit.core.pose.rows import Row


def total(*wires):
    return sum(wire.total_mm for wire in wires)


# three toes of 2 cm, each bent double: 12 cm; centre 4 cm and two legs of 5 cm with feet: 38 cm  # common practice
def test_a_wire_bird_takes_38_cm_before_wrapping_back():
    toes = Wire("toe", 3, 20, 1, bare_mm=0, doubled=True)
    assert toes.total_mm == 120
    legs = Wire("leg", 2, 50, 1, bare_mm=0, loop_mm=120, through_mm=40)
    assert legs.cuts == [(1, 380)]


# a body of 10 cm with legs of 5 cm and a neck: 2 × 10 + 8 × 5 + 2 × 5 + 8 × 1.3 = 80 cm  # common practice
def test_a_four_legged_body_takes_80_cm():
    body = Wire("body", 1, 100, 1, bare_mm=0, doubled=True)
    legs = Wire("leg", 4, 50, 1, bare_mm=26, doubled=True)
    neck = Wire("neck", 1, 50, 1, bare_mm=0, doubled=True)
    assert total(body, legs, neck) == pytest.approx(804)


# the demo figures' wires, worked out on paper
@pytest.mark.parametrize(
    ("wires", "mm"),
    [
        ([Wire(f"arm {n}", 2, 78, 1, bare_mm=0, loop_mm=6, through_mm=34) for n in range(4)], 4 * 202),
        ([Wire("leg", 2, 88, 1.5, bare_mm=30)], 236),
        ([Wire("neck", 1, 88, 1.5, bare_mm=50)], 138),
        ([Wire("front toe", 6, 20, 1, 0, doubled=True), Wire("back toe", 2, 14, 1, 0, doubled=True)], 296),
        ([Wire("long feeler", 2, 13, 0.6)], 52),
        ([Wire("front", 2, 46, 1, 14, doubled=True), Wire("back", 2, 48, 1, 14, doubled=True)], 432),
        ([Wire("stalk", 2, 12, 0.6)], 50),
    ],
)
def test_the_demo_figures_wires(wires, mm):
    assert total(*wires) == mm
    assert sum(lengths(cutting_list(wires)).values()) == mm


def test_twisted_strands_take_more():
    assert Wire("leg", 1, 100, 1, bare_mm=0, doubled=True, twist=0.1).total_mm == pytest.approx(220)


# worked on paper: gills of 30, 24 and 18 mm on both sides, 13 mm bare each
def test_a_row_whose_pieces_differ_is_cut_by_the_size_of_each():
    gills = Wire("gill", 6, 30, 0.6, sizes=tuple(Row(size=0.6, both=True).sizes(6)))
    assert gills.cuts == [(2, 43), (2, 37), (2, 31)]
    assert gills.total_mm == 222
    assert [(cut.pieces, cut.cut_mm) for cut in cutting_list([gills])] == gills.cuts
    paired = replace(gills, through_mm=10)
    assert paired.cuts == [(1, 96), (1, 84), (1, 72)]
    assert paired.pieces == sum(count for count, _ in paired.cuts)
    assert replace(paired, count=3, sizes=()).cuts == [(2, 96)], "an odd one takes a whole one"


def test_a_former_takes_no_room_but_has_to_be_cut():
    wire = Wire("tail", 1, 80, 2, former=True)
    assert wire.room_mm3 == 0
    assert wire.total_mm == 93
    stays = Wire("tail", 1, 80, 2)
    assert stays.room_mm3 == pytest.approx(math.pi * 80)


def test_the_list_is_thick_before_thin_and_long_before_short():
    cuts = cutting_list([Wire("a", 1, 10, 1), Wire("b", 1, 90, 1), Wire("c", 1, 5, 2)])
    assert [cut.part for cut in cuts] == ["c", "b", "a"]
