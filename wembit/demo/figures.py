"""The eight demo figures of Saltgrass: parts with sizes in mm, layers by colour slot, and where each part sits.

Shapes and layers are those of the core's contract; a slot stands where the contract has a fibre.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from wembit.core.body_plans.writing import (
    NOTHING,
    PlanPart,
    bead,
    capsule,
    cone,
    core,
    cover,
    detail,
    dome,
    dots,
    ellipsoid,
    follows,
    frustum,
    on,
    padding,
    part,
    root,
    silhouette,
    slab,
    sphere,
    torus,
    weighed,
    wrap,
)  # fmt: skip


@dataclass(frozen=True)
class DemoFigure:
    name: str
    story: str
    grams: float
    slots: dict[str, str]
    parts: list[PlanPart]
    fittings: list[dict] = field(default_factory=list)
    way: str = "first"
    ways: dict[str, dict[str, str]] = field(default_factory=dict)


def thread(words: str, length: float) -> dict:
    """So many mm of thread for the whole figure."""
    return {"notion": "thread", "words": words, "amount": length}


HARE = DemoFigure(
    name="Hare, crouched",
    story="Crouched in the grass, 120 mm long. Legs from equal halves, ears free to differ.",
    grams=28.8,
    slots={"core": "core", "back": "fawn", "belly": "chalk", "ear tip": "soot", "ear inside": "rose"},
    parts=[
        part(1, "body", "body", ellipsoid(86, 46, 52), "medium",
             [core("core"), cover("back", 0.75), cover("belly", 0.25), padding("belly", 4, 0.15)], 0.85, root(39, 8)),
        part(1, "head", "head", ellipsoid(42, 29, 31), "firm",
             [core("core"), cover("back", 0.8), cover("belly", 0.2), detail("ear inside", 40, t=1)], 0.9,
             on("body", 0.93, 0, -12, 0, by=0.22, sink=3)),
        part(2, "ear", "ear", slab(3, "0,-4 10,-7 26,-7.5 40,-5 48,0 40,5 26,7.5 10,7 0,4"), "firm",
             [core("back"), detail("ear inside", 180, angle=-90, stretch=4), detail("ear tip", 45, t=1)], 0.95,
             on("head", 0.28, 28, 62, 165, sink=4, face="side")),
        part(2, "thigh", "leg", ellipsoid(42, 17, 36), "medium", [core("core"), cover("back", 0.6)], 0.6,
             on("body", 0.27, 112, 20, 0, by=0.5, sink=9)),
        part(2, "hind foot", "foot", capsule(11, 42), "firm", [core("back")], 0.9,
             on("thigh", 0.25, 180, 0, 0, by=0.3, sink=3)),
        part(2, "foreleg", "leg", capsule(11, 36), "firm", [core("back")], 0.8,
             on("body", 0.84, 135, -80, 0, sink=6)),
        part(1, "tail", "tail", sphere(17), "soft", [core("belly"), detail("ear tip", 90, angle=0)], 0.85,
             on("body", 0.02, 0, 35, 180, sink=4)),
        bead(2, "eye", 5, on("head", 0.62, 68, sink=1.5)),
    ],
    fittings=[thread("whisker thread, 6 × 40 mm", 240)],
    way="fawn",
    ways={"grey": {"back": "mudflat"}, "winter white": {"back": "gull"}},
)  # fmt: skip

SNAIL = DemoFigure(
    name="Snail",
    story="60 mm long, moss shell with a straw line wound two and a half times.",
    grams=4.5,
    slots={"core": "core", "foot": "oat", "shell": "moss", "line": "straw", "feeler tip": "peat"},
    parts=[
        part(1, "foot", "body", silhouette("0:3 7:8 17:12 30:13 41:11 49:7 52:3", 1.25), "firm",
             [core("foot"), detail("line", 120, angle=100, stretch=12, pieces=2)], 0.85, root(6.5, 0)),
        part(1, "shell coil", "shell", ellipsoid(33, 23, 32), "firm", [core("core"), cover("shell", 0.95)], 0.9,
             on("foot", 0.42, 0, 8, 0, by=0.5, sink=4)),
        part(1, "shell lip", "shell", torus(21, 5), "firm", [core("shell")], 0.7,
             on("foot", 0.64, 0, 30, 0, by=0.5, sink=6)),
        part(2, "shell spiral", "line", NOTHING, None, [detail("line", 460)], 1.0,
             on("shell coil", 0.5, 90, line="spiral", turns=2.5, width_mm=2)),
        part(1, "head and neck", "head", capsule(12, 23), "firm", [core("foot")], 0.8,
             on("foot", 0.86, 0, 56, 0, sink=5)),
        part(2, "long feeler", "feeler", wrap(2.6, 13, 0.6), "firm", [core("foot")], 1.0,
             on("head and neck", 0.84, 55, 68, 30, sink=2)),
        part(2, "feeler tip", "eye", sphere(4), "very_firm", [core("feeler tip")], 1.0,
             on("long feeler", 1, None, 68, 30, sink=1)),
        part(2, "short feeler", "feeler", capsule(3, 7), "very_firm", [core("foot")], 1.0,
             on("head and neck", 0.9, 120, -5, 30, sink=2)),
    ],
)  # fmt: skip

ARM_BENDS = [[22, -55], [22, -20], [20, 5], [14, 50]]


def _arm(yaw: float, angle: float) -> PlanPart:
    return part(2, f"arm {yaw}", "arm", wrap(10, 78, 1), "firm", [core("skin"), dots("suckers", 8, 4.222, angle=180)], 1.0,
                on("mantle", 0.1, angle, -20, yaw, sink=5, bends=ARM_BENDS),
                *([] if yaw == 25 else [follows("length_mm", "arm 25", "length_mm", whole=True)]),
                bare_mm=0, loop_mm=6, through_mm=34)  # fmt: skip


OCTOPUS = DemoFigure(
    name="Octopus",
    story="80 mm high, eight wired arms from one weighed amount, 64 suckers as one group.",
    grams=21.4,
    slots={"core": "core", "skin": "plum", "suckers": "rose", "eyeball": "chalk", "pupil": "soot", "iris": "straw"},
    parts=[
        part(1, "mantle", "body", ellipsoid(60, 44, 48), "medium", [core("core"), cover("skin", 0.85)], 0.85,
             root(50, 98)),
        part(1, "skirt", "body", torus(42, 12), "medium", [core("skin")], 0.5,
             on("mantle", 0.13, None, 98, 0, by=0.5)),
        _arm(25, 170), _arm(68, 120), _arm(112, 60), _arm(155, 10),
        part(2, "eyeball", "eye", sphere(11), "very_firm", [core("eyeball"), detail("pupil", 30), detail("iris", 20)],
             0.7, on("mantle", 0.34, 140, 10, 0, by=0.5, sink=4)),
        part(1, "siphon", "snout", frustum(9, 6, 12), "firm", [core("skin")], 0.8,
             on("mantle", 0.16, 205, -20, 0, sink=3)),
    ],
    way="plum",
    ways={"deep sea": {"skin": "sea"}, "rock pool": {"skin": "sandpiper"}},
)  # fmt: skip

HERON = DemoFigure(
    name="Heron",
    story="200 mm high on wired legs that stay; weighed less its wire.",
    grams=14.4,
    slots={"core": "core", "back": "slate", "neck": "fog", "face": "chalk", "bill and legs": "straw", "marks": "soot"},
    parts=[
        part(1, "body", "body", silhouette("0:4 10:18 25:33 45:40 62:36 76:24 84:10", 0.85), "medium",
             [core("core"), cover("back", 0.65), cover("face", 0.35)], 0.85, root(98, 28)),
        part(1, "neck", "neck", wrap(12, 88, 1.5), "firm",
             [core("neck"), detail("marks", 160, angle=150, stretch=20, pieces=2)], 0.95,
             on("body", 0.96, 0, 60, 0, sink=6, bends=[[22, 45], [20, 110], [24, 95], [22, 50]]), bare_mm=50),
        part(1, "head", "head", silhouette("0:8 7:14 14:15 22:11 27:6", 0.85), "firm",
             [core("face"), detail("marks", 90, t=0.4, angle=50, stretch=5, pieces=2)], 1.0,
             on("neck", 1, None, -4, 0, sink=4)),
        part(1, "bill", "snout", cone(7, 36), "very_firm", [core("bill and legs")], 0.95,
             on("head", 0.97, None, -4, 0, sink=4)),
        part(2, "crest plume", "plume", NOTHING, None, [weighed("marks", 0.06)], 1.0,
             on("head", 0.25, 20, -18, 176, sink=2, line="lock", length_mm=34)),
        part(1, "breast plumes", "plume", NOTHING, None, [weighed("neck", 0.35)], 1.0,
             on("body", 0.92, 180, -134, 10, sink=2, line="lock", length_mm=40)),
        part(2, "wing", "wing", slab(4, "0,-6 10,-13 40,-15 66,-10 86,0 60,9 25,14 6,9"), "medium",
             [core("back"), detail("marks", 420, t=1)], 0.6, on("body", 0.74, 78, 208, 0, sink=1, face="side")),
        part(1, "tail", "tail", slab(4, "0,-7 22,-9 28,0 22,9 0,7"), "medium", [core("back")], 0.8,
             on("body", 0.06, 0, -25, 180, sink=8, face="top")),
        part(2, "leg", "leg", wrap(4.2, 88, 1.5), "very_firm", [core("bill and legs")], 1.0,
             on("body", 0.4, 155, -90, 0, sink=8, bends=[[8, -90], [38, -78], [42, -94]]), bare_mm=30),
        part(2, "thigh tuft", "leg", cone(15, 24), "soft", [core("face")], 0.8,
             on("body", 0.4, 155, -86, 0, sink=5)),
        part(6, "front toe", "toe", wrap(3, 20, 1), "very_firm", [core("bill and legs")], 1.0,
             on("leg", 1, None, -2, 0, copies=[{"yaw": -28}, {"yaw": 0}, {"yaw": 28}]), bare_mm=0, doubled=True),
        part(2, "back toe", "toe", wrap(3, 14, 1), "very_firm", [core("bill and legs")], 1.0,
             on("leg", 1, None, -2, 180), follows("length_mm", "front toe", "length_mm", 0.7, whole=True),
             bare_mm=0, doubled=True),
        bead(2, "eye", 4, on("head", 0.55, 72, sink=1)),
    ],
)  # fmt: skip

HEDGEHOG = DemoFigure(
    name="Hedgehog",
    story="90 mm over the spines; the coat is planted in rows from the back and trimmed to 13 mm.",
    grams=19.6,
    slots={"core": "core", "spines": "peat", "belly": "oat", "feet": "umber", "nose": "soot"},
    parts=[
        part(1, "body", "body", ellipsoid(70, 54, 47), "medium",
             [core("core"), cover("belly", 0.35),
              {"role": "coat", "slot": "spines", "row_spacing_mm": 6, "grams_per_cm": 0.035, "pulled_mm": 44,
               "folded": True, "finished_mm": 13, "share": 0.65}], 0.95, root(25, 0)),
        part(1, "face", "head", frustum(30, 11, 24), "firm", [core("belly")], 0.75,
             on("body", 0.88, None, -6, 0, sink=4)),
        part(1, "nose", "nose", sphere(7), "very_firm", [core("nose")], 1.0, on("face", 1, None, 0, 0, sink=2)),
        part(2, "ear", "ear", slab(3, "0,-5 5,-6 10,0 5,6 0,5"), "firm", [core("feet")], 1.0,
             on("face", 0.16, 48, 70, 120, sink=2, face="front")),
        part(4, "foot", "foot", capsule(9, 16), "firm", [core("feet")], 1.0,
             on("body", 0.5, 150, 0, 0, by=0.5, sink=2, copies=[{"t": 0.76}, {"t": 0.26}])),
        bead(2, "eye", 4, on("face", 0.5, 48, sink=1)),
    ],
)  # fmt: skip

OTTER = DemoFigure(
    name="Otter, upright",
    story="140 mm high, a stone in its paw, a soft belly on a medium body.",
    grams=32.2,
    slots={"core": "core", "back": "peat", "belly": "oat", "stone": "slate", "nose": "soot"},
    parts=[
        part(1, "body", "body", silhouette("0:20 12:40 32:47 60:43 88:35 108:30 116:24", 0.9), "medium",
             [core("core"), cover("back", 0.7), cover("belly", 0.3), padding("belly", 5, 0.2)], 0.88, root(60, 84)),
        part(1, "head", "head", ellipsoid(38, 35, 31), "firm",
             [core("core"), cover("back", 0.65), cover("belly", 0.35)], 0.85,
             on("body", 0.98, None, 2, 0, by=0.38, sink=6)),
        part(1, "muzzle", "snout", ellipsoid(15, 20, 13), "firm", [core("belly"), detail("nose", 45, t=1)], 0.6,
             on("head", 0.93, None, -8, 0, by=0.45)),
        part(2, "ear", "ear", dome(9, 5), "firm", [core("back")], 1.0, on("head", 0.32, 62, 40, 110, sink=1.5)),
        part(2, "foreleg", "arm", capsule(12, 42), "firm", [core("back")], 0.85,
             on("body", 0.76, 118, -38, 14, sink=5)),
        part(1, "stone", "ball", ellipsoid(16, 12, 8), "very_firm", [core("stone")], 1.0,
             on("foreleg", 0.98, 0, 10, 0, by=0.5, sink=1)),
        part(2, "hind foot", "foot", ellipsoid(38, 18, 11), "firm", [core("back")], 0.9,
             on("body", 0.06, 140, 0, 14, by=0.28, sink=8)),
        part(1, "tail", "tail", frustum(24, 6, 74), "medium", [core("core"), cover("back")], 0.9,
             on("body", 0.08, 0, -3, 180, sink=10)),
        bead(2, "eye", 4, on("head", 0.74, 58, sink=1)),
    ],
    fittings=[thread("whisker thread, 8 × 30 mm", 240)],
)  # fmt: skip

CRAB = DemoFigure(
    name="Hermit crab",
    story="105 mm over the claws, filling under a wool skin, wired legs, one big claw and one small.",
    grams=14.7,
    slots={"core": "core", "filling": "filling", "shell": "oat", "rim": "rose", "crab": "rust"},
    parts=[
        part(1, "shell whorl 1", "shell", ellipsoid(46, 42, 44), "medium",
             [core("filling", 0.6), core("core", 0.4), cover("shell")], 0.8, root(29, -18)),
        part(1, "shell whorl 2", "shell", sphere(31), "medium", [core("core"), cover("shell")], 0.6,
             on("shell whorl 1", 0.14, 20, 28, 180, by=0.5, sink=13)),
        part(1, "shell whorl 3", "shell", sphere(20), "firm", [core("core"), cover("shell")], 0.6,
             on("shell whorl 2", 0.88, None, 28, 180, by=0.5)),
        part(1, "shell tip", "shell", cone(13, 17), "firm", [core("shell")], 1.0,
             on("shell whorl 3", 0.85, None, 28, 180, sink=3)),
        part(1, "mouth rim", "shell", torus(38, 8), "firm", [core("rim")], 0.7,
             on("shell whorl 1", 0.86, None, -18, 0, by=0.5), follows("outer_diameter_mm", "body", "diameter_mm", gap=15)),
        part(1, "body", "body", capsule(23, 36), "medium", [core("crab")], 0.6,
             on("shell whorl 1", 0.92, None, -4, 0, sink=12)),
        part(1, "big claw", "claw", slab(9, "0,-5 8,-10 22,-10 32,-3 22,-1 33,3 22,10 8,9 0,5"), "firm",
             [core("crab")], 1.0, on("body", 0.84, 110, -14, 10, sink=3, face="side")),
        part(1, "small claw", "claw", slab(7, "0,-4 6,-7 15,-7 22,-2 15,-0.8 23,2 15,7 6,6 0,4"), "firm",
             [core("crab")], 1.0, on("body", 0.84, -110, -14, -10, sink=3, face="side"),
             follows("length_mm", "big claw", "length_mm", 23 / 33, whole=True)),
        part(2, "leg front", "leg", wrap(6, 46, 1), "firm", [core("crab")], 1.0,
             on("body", 0.66, 120, 20, 45, sink=4, bends=[[20, 20], [26, -62]]), bare_mm=14, doubled=True),
        part(2, "leg back", "leg", wrap(6, 48, 1), "firm", [core("crab")], 1.0,
             on("body", 0.5, 120, 20, 80, sink=4, bends=[[22, 20], [26, -62]]), bare_mm=14, doubled=True),
        part(2, "eye stalk", "feeler", wrap(3, 12, 0.6), "firm", [core("crab")], 1.0,
             on("body", 0.88, 35, 60, 20, sink=2)),
        bead(2, "eye", 3, on("eye stalk", 1, None)),
        part(2, "feeler", "line", NOTHING, None, [], 1.0,
             on("body", 0.95, 60, 35, 25, line="thread", length_mm=45)),
    ],
    fittings=[thread("waxed thread for the feelers, 2 × 60 mm", 120)],
)  # fmt: skip

LIGHTHOUSE = DemoFigure(
    name="Lighthouse",
    story="150 mm high on a slate rock, bands of chalk and brick; no lamp inside.",
    grams=32.0,
    slots={"core": "core", "rock": "slate", "wall": "chalk", "band": "brick", "ironwork": "soot", "light": "straw",
           "glass": "sea", "moss": "moss"},
    parts=[
        part(1, "rock", "base", dome(66, 26), "firm",
             [core("rock"), detail("moss", 500, t=0.4, angle=-130, stretch=0.5)], 0.8, root(13, 90)),
        part(1, "tower lower", "tower", frustum(42, 36, 34), "firm", [core("core"), cover("wall", 0.93)], 0.75,
             on("rock", 1, None, 90, 0, sink=6)),
        part(1, "tower band", "tower", frustum(36, 32, 24), "firm", [core("core"), cover("band")], 0.6,
             on("tower lower", 1, None, 90, 0), follows("diameter1_mm", "tower lower", "diameter2_mm")),
        part(1, "tower upper", "tower", frustum(32, 27, 30), "firm", [core("core"), cover("wall")], 0.66,
             on("tower band", 1, None, 90, 0), follows("diameter1_mm", "tower band", "diameter2_mm")),
        part(1, "gallery", "ring", torus(38, 6), "very_firm", [core("ironwork")], 0.75,
             on("tower upper", 1, None, 90, 0, by=0.5, sink=1)),
        part(1, "lantern", "tower", {"kind": "cylinder", "diameter_mm": 20, "length_mm": 18}, "firm",
             [core("light"), detail("ironwork", 160, angle=0, stretch=5, pieces=8)], 0.6,
             on("tower upper", 1, None, 90, 0, sink=2)),
        part(1, "roof", "roof", cone(30, 22), "firm", [core("core"), cover("band")], 0.85,
             on("lantern", 1, None, 90, 0)),
        part(1, "finial", "ball", sphere(6), "very_firm", [core("ironwork")], 1.0,
             on("roof", 1, None, 90, 0, sink=2)),
        part(1, "door", "door", slab(2, "0,-5 12,-5 16,0 12,5 0,5"), "firm", [core("glass")], 1.0,
             on("tower lower", 0.04, 180, 90, 0, sink=-1, face="front")),
        part(1, "cottage", "base", {"kind": "box", "length_mm": 30, "width_mm": 24, "height_mm": 18}, "firm",
             [core("core"), cover("wall", 0.8)], 0.8, on("rock", 0.34, 0, 0, 180, by=0.5, sink=10)),
        part(5, "window", "patch", NOTHING, None, [detail("glass", 150)], 1.0,
             on("tower upper", 0.5, 0, line="patch",
                copies=[{"angle": 180}, {"angle": 90}, {"angle": -90}, {"on": "tower lower", "t": 0.62, "angle": 180},
                        {"on": "tower band", "t": 0.5, "angle": 90}])),
    ],
)  # fmt: skip

FIGURES = [HARE, SNAIL, OCTOPUS, HERON, HEDGEHOG, OTTER, CRAB, LIGHTHOUSE]
