"""A word of flat letters that stand on a strip."""

from __future__ import annotations

from wembit.core.body_plans.letter_shapes import STRANDS, letter, wide
from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import PlanPart, core, cover, on, part, root
from wembit.core.errors import BadInput

MOST_LETTERS = 12
HIGH_MM, THICK_MM, STRIP_MM, DEEP_MM = 60.0, 14.0, 8.0, 22.0
GAP, SPACE, SUNK_MM = 0.12, 0.35, 2.0  # between letters, and for a blank, of their height; how deep each foot is let in
FIRST = "Moss"
NAMES = ("", "second ", "third ", "fourth ")


def word(text: str) -> list[PlanPart]:
    """The parts of a word. Raises `BadInput` for what is no letter, too long or empty."""
    text = " ".join(text.upper().split())
    if strange := next((char for char in text if char not in STRANDS and char != " "), ""):
        raise BadInput("letters", f"Only A to Z, 0 to 9 and & can be made: leave out “{strange}”", strange)
    if not text or len(text) > MOST_LETTERS:
        raise BadInput("letters", f"Write from one to {MOST_LETTERS} letters", len(text))
    places, x = [], GAP
    for char in text:
        if char == " ":
            x += SPACE
            continue
        places.append((char, x + wide(char) / 2))
        x += wide(char) + GAP
    strip = {"kind": "box", "length_mm": round(x * HIGH_MM, 1), "width_mm": DEEP_MM, "height_mm": STRIP_MM}
    found = [part(1, "strip", "base", strip, "firm", [core("core"), cover("strip")], None, root(STRIP_MM / 2))]
    told: dict[str, int] = {}
    for char, middle in places:
        n = told[char] = told.get(char, 0) + 1
        name = f"{NAMES[n - 1] if n <= len(NAMES) else f'{n}th '}{char}"
        outline = [[round(HIGH_MM * y, 2), round(HIGH_MM * (wide(char) / 2 - across), 2)] for across, y in letter(char)]
        shape = {"kind": "slab", "outline": outline, "thickness_mm": THICK_MM}
        seat = on("strip", middle / x, 0, 90, 0, sink=SUNK_MM, face="side")
        found.append(part(1, name, "letter", shape, "firm", [core("core"), cover("letter")], None, seat))
    return found


PLAN = BodyPlan(
    key="letters", name="letters", group="flat", measure=HIGH, usual_mm=68,
    colours={"core": "#e9e2d2", "letter": "#3f6f78", "strip": "#c9a253"}, parts=word(FIRST), written=word,
    letters=FIRST,
)  # fmt: skip
