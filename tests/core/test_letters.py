"""Letters to felt: each in one piece without a hole, as high and thick as the others; words that stand."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from tests.core.figures_worked import worked_parts
from wembit.core.body_plans.every_plan import PLANS
from wembit.core.body_plans.letter_shapes import HALF_STRAND, SLIT, STRANDS, letter
from wembit.core.body_plans.letters import DEEP_MM, HIGH_MM, MOST_LETTERS, STRIP_MM, SUNK_MM, word
from wembit.core.body_plans.plan import stored
from wembit.core.body_plans.proportions import extent
from wembit.core.contract.requests import SHAPE
from wembit.core.errors import BadInput
from wembit.core.pose.gaze import SIDE
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.skin import skin_points
from wembit.core.shape.solids import solid
from wembit.core.work.order import steps

HOLES = {"A": 1, "B": 2, "D": 1, "O": 1, "P": 1, "Q": 1, "R": 1, "0": 1, "4": 1, "6": 1, "8": 2, "9": 1, "&": 2}
CHARS = st.text(st.sampled_from("".join(STRANDS) + " "), min_size=1, max_size=MOST_LETTERS).filter(str.strip)


@pytest.mark.parametrize("char", sorted(STRANDS))
def test_a_letter_is_one_piece_without_a_hole_and_one_high(char):
    face = Polygon(letter(char))
    assert face.is_valid
    left, foot, _, head = face.bounds
    assert (left, foot, head) == pytest.approx((0, 0, 1), abs=1e-3)
    assert face.buffer(-0.3 * HALF_STRAND).area > 0.5 * face.area, "nowhere thinner than a strand"
    closed = face.buffer(SLIT).buffer(-SLIT)
    assert len(closed.interiors) == HOLES.get(char, 0), "with the slits closed the holes of the letter are there"


@pytest.mark.parametrize("char", sorted(STRANDS))
def test_a_letter_is_as_thick_as_its_strands(char):
    """All of it lies within half a strand of the lines that it is made along."""
    grown = 1 + 2 * HALF_STRAND
    lines = [LineString([(x, y) for x, y in strand]) for strand in STRANDS[char]]
    least = min(x for line in lines for x, _ in line.coords), min(y for line in lines for _, y in line.coords)
    high = max(y for line in lines for _, y in line.coords) - least[1] + 2 * HALF_STRAND
    for x, y in letter(char):
        at = Point(x * high + least[0] - HALF_STRAND, y * high + least[1] - HALF_STRAND)
        assert min(line.distance(at) for line in lines) <= HALF_STRAND + 0.01 * grown


@given(CHARS)
def test_a_word_stands_on_its_strip_as_long_as_it_is(text):
    parts = stored(word(text))
    letters = text.replace(" ", "")
    assert [part["name"][-1] for part in parts[1:]] == list(letters)
    assert len({part["name"] for part in parts}) == len(parts)
    found, strip = extent(parts), solid(SHAPE(parts[0]["shape"], "shape"))
    assert found.lowest == pytest.approx(0, abs=0.01)
    assert found.high == pytest.approx(STRIP_MM + HIGH_MM - SUNK_MM, abs=0.5)
    assert found.broad == pytest.approx(DEEP_MM, abs=0.01)
    assert found.long == pytest.approx(strip.axis_mm, abs=0.01), "no letter hangs over"


def test_a_word_is_read_from_left_to_right_and_small_letters_as_capitals():
    at = {part["name"]: part["seat"]["t"] for part in stored(word("ab c"))[1:]}
    assert at["A"] < at["B"] < at["C"]
    assert at["C"] - at["B"] > at["B"] - at["A"]


def test_letters_are_not_read_in_a_mirror():
    """Seen from the side, an L has its stem on the left."""
    seats = word("L")
    placed = place([PlacedPart(p.name, p.count, solid(SHAPE(p.shape, "shape")), Seat.of(p.seat)) for p in seats])
    seen = SIDE.flat(skin_points(placed[1])[0])
    right, high = seen[:, 0] - seen[:, 0].min(), seen[:, 1] - seen[:, 1].min()
    stem = right[high > high.max() / 2]
    assert stem.max() < right.max() / 2


@pytest.mark.parametrize(("text", "words"), [("", "from one to"), ("   ", "from one to"), ("A" * 13, "from one to"),
                                             ("\u00c4ra", "leave out")])  # fmt: skip
def test_what_cannot_be_made_is_said(text, words):
    with pytest.raises(BadInput, match=words):
        word(text)


def test_the_same_letters_are_worked_together():
    slots = {slot: slot for slot in PLANS["letters"].colours}
    titles = [step.title for step in steps(worked_parts(word("NUNU"), slots), {}) if step.id.startswith("make:")]
    assert len(titles) == 3
    assert {title.split(" ", 1)[1] for title in titles[1:]} == {"2 × N flat", "2 × U flat"}
