"""What a figure takes besides wool."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.craft.armature import Make, Wire, cutting_list
from wembit.core.craft.notions import (
    DARK_L,
    FITTINGS,
    PALE_L,
    Needed,
    OnShelf,
    eyes,
    fittings,
    in_unit,
    nearest,
    of_make,
    small_parts,
    tools,
    wire,
    wisps_g,
)
from wembit.core.grams.scaling import scaled_fitting


def shelf(*sizes, notion="eyes", free=10.0):
    return [OnShelf(str(n), notion, f"{size} mm", size, free, "pc") for n, size in enumerate(sizes)]


# eyes of 3 or 4 mm are common, 2 to 12 exist  # common practice
@given(st.floats(0.3, 3))
def test_eyes_go_to_the_nearest_size(scale):
    needed = eyes([("eye", 2, 4.0 * scale)])[0]
    assert needed.amount == 2
    assert needed.size_mm == pytest.approx(4 * scale)
    found = nearest(needed, shelf(2, 3, 4, 5, 6, 8, 10, 12))
    if found:
        nearer = min(abs(size - needed.size_mm) for size in (2, 3, 4, 5, 6, 8, 10, 12))
        assert abs(found.size_mm - needed.size_mm) == pytest.approx(nearer, abs=0.02)
    else:
        assert needed.size_mm < 2 / 1.3


def test_no_eye_is_near_enough():
    assert nearest(eyes([("eye", 2, 4.0)])[0], shelf(8, 12)) is None
    assert nearest(Needed("glue", "glue", None, 1, "pc", ""), shelf(4)) is None


def test_of_one_size_the_fuller_bag_is_taken():
    two = [*shelf(4, free=3.0), OnShelf("b", "eyes", "other", 4, 9.0, "pc")]
    assert nearest(eyes([("eye", 2, 4.0)])[0], two).id == "b"


def test_wire_by_gauge_and_formers_come_back():
    found = wire(
        cutting_list([Wire("leg", 2, 88, 1.5, 30), Wire("toe", 6, 20, 1, 0), Wire("tail", 1, 60, 1, former=True)])
    )
    assert {(each.size_mm, each.back): each.amount for each in found} == {
        (1.5, False): 236,
        (1, False): 120,
        (1, True): 73,
    }


def test_wire_is_told_by_its_metal_and_what_covers_it():
    needed = Needed("wire", "copper wire", 1.0, 400, "mm", "", make=Make("copper"))
    bare, paper, iron, unknown = (
        OnShelf(name, "wire", name, 1.0, 900, "mm", make=made)
        for name, made in [("bare", Make("copper", "bare")), ("paper", Make("copper", "paper")),
                           ("iron", Make("iron", "paper")), ("unknown", Make())]
    )  # fmt: skip
    assert of_make(needed, [bare, paper, iron, unknown]) == [bare, paper]
    assert of_make(needed, [iron, unknown]) == [unknown], "nobody said what it is"
    assert of_make(needed, [iron]) == []
    covered = replace(needed, make=Make("", "paper"))
    assert of_make(covered, [bare, paper, iron, unknown]) == [paper, iron]
    assert of_make(replace(needed, make=Make()), [bare, iron, unknown]) == [bare, iron, unknown]
    assert (Make("copper", "paper").words, Make("iron").words, Make().words) == ("paper-covered copper", "iron", "")


def test_wires_of_one_gauge_and_two_makes_are_two_lines():
    cuts = cutting_list([Wire("leg", 4, 60, 1.0, make=Make("iron")), Wire("wing", 2, 90, 1.0, make=Make("copper", "lacquer")),
                         Wire("tail", 1, 50, 1.0, make=Make("iron"))])  # fmt: skip
    found = {needed.words: (needed.amount, needed.what_for) for needed in wire(cuts)}
    assert found == {"lacquered copper wire": (206, "wing"), "iron wire": (4 * 73 + 63, "leg, tail")}


def test_a_fitting_brings_its_wisp_and_its_thread():
    kept = [{"notion": "brooch_back", "amount": 1}, {"notion": "bell", "amount": 2, "part": "ear"}]
    found = fittings(kept, {"ear": 2})
    assert [(each.notion, each.amount) for each in found] == [
        ("brooch_back", 1), ("thread", 300), ("bell", 4), ("thread", 400),
    ]  # fmt: skip
    assert wisps_g(kept, {"ear": 2}) == pytest.approx(0.3 + 0.4)


def test_a_fitting_keeps_its_words_size_and_caution():
    kept = [
        {"notion": "bead", "amount": 2, "part": "ear", "size_mm": 4.0, "words": "dewdrop"},
        {"notion": "loop", "amount": 50},
    ]
    assert fittings(kept, {"ear": 3, "": 9}) == [
        Needed("bead", "dewdrop", 4.0, 6, "pc", "ear", caution="small parts"),
        Needed("thread", "thread", None, 360, "mm", "dewdrop"),
        Needed("loop", "hanging loop", None, 450, "mm", "", caution="hang"),
        Needed("thread", "thread", None, 200, "mm", "hanging loop"),
    ]


@given(st.floats(0.1, 5), st.integers(1, 9))
def test_counts_follow_the_parts_and_lengths_the_scale(scale, count):
    long = scaled_fitting({"notion": "thread", "amount": 40, "part": "snout"}, scale)
    thread = fittings([long], {"snout": count})[0]
    assert thread.amount == pytest.approx(40 * count * scale)
    bead = fittings([scaled_fitting({"notion": "bead", "amount": 2, "part": "snout"}, scale)], {"snout": count})[0]
    assert bead.amount == 2 * count


def test_small_parts_are_told_apart():
    found = small_parts([*eyes([("eye", 2, 4.0)]), Needed("thread", "thread", None, 40, "mm", "")])
    assert [each.notion for each in found] == ["eyes"]
    assert all(each.words for each in FITTINGS.values())


def test_one_pad_for_pale_and_one_for_dark_and_a_spare_of_each_needle():
    # dark fibres creep into a pale face; two needles a small kit, one is spare  # common practice
    laid = tools(True, True, [92, 20], True)
    assert [(tool.words, tool.amount) for tool in laid if tool.notion == "pad"] == [
        ("pad for pale", 1),
        ("pad for dark", 1),
    ]
    assert [tool.amount for tool in laid if tool.notion == "needle"] == [2, 2, 2]
    assert "glue" in {tool.notion for tool in laid}
    assert [tool.words for tool in tools(False, False, [92], False) if tool.notion == "pad"] == ["pad"]


def test_a_needle_is_found_by_the_gauge_on_its_box():
    box = [OnShelf("a", "needle", "triangle 38", None, 9, "pc"), OnShelf("b", "needle", "star 40", None, 6, "pc")]
    asked = Needed("needle", "needles 40, one of them spare", None, 2, "pc", "")
    assert nearest(asked, box).id == "b"
    assert nearest(Needed("needle", "needles 42", None, 2, "pc", ""), box) is None


@pytest.mark.parametrize(
    ("details", "coats", "paints", "glued", "words"),
    [
        (False, False, [92], False, ["needles 36–38, one of them spare", "needles 40, one of them spare", "pad"]),
        (True, False, [], False,
         ["needles 36–38, one of them spare", "needles 40, one of them spare", "needles 42, one of them spare", "pad"]),
        (False, True, [PALE_L, DARK_L], True,
         ["needles 36–38, one of them spare", "needles 40, one of them spare", "pad for pale", "pad for dark",
          "glue, and an awl", "sharp scissors"]),
        (False, False, [PALE_L - 0.1, DARK_L], False,
         ["needles 36–38, one of them spare", "needles 40, one of them spare", "pad"]),
        (False, False, [PALE_L, DARK_L + 0.1], False,
         ["needles 36–38, one of them spare", "needles 40, one of them spare", "pad"]),
    ],
)  # fmt: skip
def test_tools_are_laid_out_for_what_is_made(details, coats, paints, glued, words):
    found = tools(details, coats, paints, glued)
    assert [each.words for each in found] == words
    assert all(each.back and each.unit == "pc" and each.size_mm is None for each in found), "tools come back"
    assert all(each.caution == "count" and each.amount == 2 for each in found if each.notion == "needle")
    assert {each.words: each.caution for each in found if each.caution and each.notion != "needle"} == {
        **({"glue, and an awl": "glue"} if glued else {}),
        **({"sharp scissors": "scissors"} if coats else {}),
    }
    assert all(each.amount == 1 for each in found if each.notion == "pad")


def test_lengths_of_what_is_counted_become_whole_pieces_of_the_makings_together():
    cleaner = Needed("pipe_cleaner", "pipe cleaner", 3, 150, "mm", "legs")
    assert [in_unit(cleaner, "pc", times) for times in (0, 1, 2, 3)] == [0, 1, 1, 2]  # 300 mm a piece, from memory
    assert in_unit(cleaner, "mm", 3) == 450
    assert in_unit(Needed("eyes", "eyes", 4, 2, "pc", "eye"), "pc", 3) == 6


def test_of_two_alike_the_one_that_is_needed_already_is_taken():
    shelf_ = [OnShelf("a", "eyes", "black", 4, 9, "pc"), OnShelf("b", "eyes", "amber", 4, 2, "pc")]
    four = eyes([("eye", 2, 4.0)])[0]
    assert nearest(four, shelf_).id == "a"
    assert nearest(four, shelf_, {"b"}).id == "b"
    assert nearest(replace(four, size_mm=None), shelf_, {"b"}).id == "b"
    assert nearest(four, [*shelf_, OnShelf("c", "eyes", "red", 4.5, 9, "pc")], {"c"}).id == "a", (
        "nearer in size comes first"
    )
