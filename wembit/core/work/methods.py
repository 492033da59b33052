"""How a part is made: by its shape, its size, what is inside it and whether there is wire in it.

What holds for a method is said once, here; a step says what is particular to its part. All common practice.
"""

from __future__ import annotations

from dataclasses import dataclass

from .worked import FILLING, Worked

LARGE_MM = 45.0  # a core so thick is wound layer by layer
FLAT_MM = 6.0  # a flat piece up to so thick is laid out in thin layers
BY_SHAPE = {"capsule": "rod", "cylinder": "rod", "frustum": "tapered", "cone": "tapered", "silhouette": "built",
            "dome": "domed", "box": "squared"}  # fmt: skip
FILLED = 0.2  # a core with so much filling by weight is mostly filling by volume
PINCH_G, PINCH_MM = 0.15, 12.0  # a piece of no more, and no longer, is rolled between two fingers


@dataclass(frozen=True)
class Method:
    """`title`: what is done, before the part's name; `general`: how, said once; `check`: what to look for; `pace`: how much
    longer a gram takes than in a rolled core.
    """

    title: str
    general: str
    check: str = ""
    pace: float = 1.0


METHODS: dict[str, Method] = {
    "rolled": Method(
        "Roll {}",
        "Roll the wool as tight as it goes, fold the ends in and hold them. Stab deep from all sides, turn it after "
        "every few stabs, lift it from the pad often. Shape it from two thirds of its firmness on.",
    ),
    "wound": Method(
        "Wind {}",
        "Roll a small hard middle first. Lay strips round it crosswise, each stabbed through before the next; a hollow "
        "that stays soft is filled before the next layer hides it.",
        "No soft place anywhere?",
    ),
    "wrapped": Method(
        "Wrap {}",
        "Press the filling into a ball and bind it with a strand. It does not felt: wool laid round it crosswise holds "
        "it, stabbed only as deep as the wool is, until no filling comes through.",
        "Does filling come through anywhere?",
        0.6,
    ),
    "pinch": Method(
        "Roll {} from a pinch",
        "Roll it between two fingers with its ends folded in, then on the pad with one needle, shallow. A small thing "
        "stabbed on gets smaller; add a wisp rather than begin too big.",
    ),
    "rod": Method(
        "Roll {} like a rod",
        "Roll a strip on the pad under the flat hand, as long as the part and thicker. Stab along it while it turns, "
        "the ends last, straight in.",
        "Straight, and as thick as the template all along?",
    ),
    "tapered": Method(
        "Roll {} to a taper",
        "Lay more wool at the broad end, roll it on the pad, and turn the thin end between two fingers while you stab it.",
        "Does it taper evenly, with no step?",
    ),
    "built": Method(
        "Build {} along its line",
        "Roll the thickest place first, then lay wisps towards both ends until its outline lies on the template, from "
        "the side and from above.",
        "Does its outline lie on the template, from the side and from above?",
        1.1,
    ),
    "domed": Method(
        "Roll {} with a flat base",
        "Roll a ball, press it on the pad and stab from above and from the rim; the base stays on the pad until it is flat.",
        "Does its base lie flat?",
    ),
    "squared": Method(
        "Square {}",
        "Roll it loosely, press it square between two boards or fingers, and stab face after face straight in; the edges "
        "last, from both sides.",
        "Are the corners square?",
        1.2,
    ),
    "sheet": Method(
        "Cut {} from pre-felt",
        "Draw round the template and cut it out a little larger. Stab both faces in turn until it is firm, then fold the cut "
        "edge in or close it with short stabs.",
        "Both faces alike, the edge closed?",
        0.5,
    ),
    "flat": Method(
        "Lay out {} flat",
        "Thin layers crosswise on the pad, a little larger than the template. Stab flat, lift and turn it over often, so "
        "that both faces are alike.",
        "Both faces alike, nothing stuck to the pad?",
        1.2,
    ),
    "thick flat": Method(
        "Fold {} flat",
        "Fold the wool to the outline, thicker than it should be. Stab both faces in turn, then straight in along the "
        "rim; notches last, with one needle.",
        "Both faces alike, the rim closed?",
        1.1,
    ),
    "ring": Method(
        "Roll a strand for {}",
        "Roll a strand on the pad and felt it even, so long that it goes round and a finger’s breadth more; both ends stay "
        "loose until it lies in its place.",
        "Of one thickness all along? Does it go round with a finger’s breadth over?",
        1.2,
    ),
    "limb": Method(
        "Wind {} on wire",
        "Thin strips, wound tight and aslant from the end inwards, the bent end wrapped in first. Stab shallow past the "
        "wire while you turn it. A strip stops where the bare end begins.",
        "No wire to be felt, of one thickness?",
        1.5,
    ),
}

JOINS: dict[str, str] = {
    "loose end": "Spread the loose end over the place and stab it in from all round, deep in the middle first, then the rim.",
    "pinned": "Pin it, spread the loose end and stab it in from all round; the pins come out one by one, and are counted.",
    "stitch": "Two rounds of small stitches at the root, the thread drawn into the wool; a strand over it hides it.",
    "glue": "Glue on both, hold it until it grips, and leave it until it is dry.",
    "wisp": "Hold it in place and lay a wisp across the seam like tape, half on each; stab both halves in, then a "
    "second wisp crosswise.",
    "ring": "Lay the strand round its place, its ends over each other at the back, and felt them together; then stab along "
    "its inner edge all round.",
    "wire in": "Bore with the awl, as deep as the bare wire is long and a little aslant. The awl stays in the hole until the "
    "wire is ready. Push it in to the end of the winding.",
    "locks": "Lay the cut ends on the place and stab them in deep, in a row; the tips stay loose and are not felted.",
    "closed": "Spread the end of the winding over the place and stab it in all round, shallow past the wire.",
}

SKINS: dict[str, str] = {
    "cover": "Thin layers crosswise, each stabbed down before the next, until nothing beneath shows. Look at it from the "
    "side under a lamp before you go on.",
    "coat": "Rows from below upwards, and on a face from the back towards the nose, so that each row lies over the one "
    "before. Stab along the middle of a folded lock, or along the cut end of a straight one; then fold it down.",
    "patch": "Tack the rim first, then fill towards the middle, shallow. Half of what is pulled goes back.",
    "spots": "Roll them all from one pinch before the first is set. Tack each at its rim, then the middle.",
    "line": "Twist a strand a little, lay it down dry, look, then tack it shallow; deep stabs make a line vanish.",
    "border": "Wisps laid across the line where two colours meet, stabbed shallow, so that no edge is left.",
}
FACE = {
    "sockets": "Stab in one place until a dent stays, both dents before either is deepened; compare upside down.",
    "mouth": "A row of close stabs along the line, from the middle outwards, draws it in; corners last, a little upwards.",
    "brow": "A wisp over each eye, tacked at its rim and left proud; cheeks the same, smaller than you think.",
    "eyes": "Both are tried with pins before either is set: one line, one height, as far from the middle. Look from the front "
    "and upside down.",
}
GENERAL = {**{key: method.general for key, method in METHODS.items()}, **JOINS, **SKINS, **FACE}


def method_of(part: Worked) -> str:
    """The method of a part that is felted by itself: a key of `METHODS`."""
    cores = part.of("core", "weighed")
    grams = sum(wool.grams for wool in cores)
    filling = sum(wool.grams for wool in cores if wool.form == FILLING)
    told = {
        "limb": bool(part.wire) and not part.former,
        "ring": part.shape == "torus",
        "sheet": part.shape == "slab" and bool(cores) and all(wool.form == "prefelt" for wool in cores),
        "flat": part.shape == "slab" and part.thick_mm <= FLAT_MM,
        "thick flat": part.shape == "slab",
        "wrapped": bool(filling) and filling >= FILLED * grams,
        "pinch": grams / max(part.count, 1) <= PINCH_G and part.long_mm < PINCH_MM,
        BY_SHAPE.get(part.shape, ""): part.shape in BY_SHAPE,
        "wound": part.thick_mm >= LARGE_MM,
    }
    return next((method for method, holds in told.items() if holds), "rolled")
