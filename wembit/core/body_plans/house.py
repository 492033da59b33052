"""A house with a roof."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, on, part, root, slab

PLAN = BodyPlan(
    key="house", name="house", group="built", measure=HIGH, usual_mm=90,
    colours={"core": "#e9e2d2", "wall": "#f1ede3", "roof": "#a33a2a", "door": "#3f6f78"},
    parts=[
        part(1, "wall", "base", {"kind": "box", "length_mm": 60, "width_mm": 48, "height_mm": 44}, "firm",
             [core("core"), cover("wall")], None,
             root(22, 0)),
        part(1, "roof", "roof", slab(54, "0,-34 34,0 0,34"), "firm", [core("core"), cover("roof")], None,
             on("wall", 0.5, 0, 90, 0, sink=0, face="side")),
        part(1, "door", "door", slab(3, "0,-7 18,-7 23,0 18,7 0,7"), "firm", [core("door")], None,
             on("wall", 0.999, None, 90, 0, sink=22, face="front")),
    ],
)  # fmt: skip
