"""A fish, held up by a thread or lying: carp, whale, shark."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import bead, core, cover, on, part, root, silhouette, slab

PLAN = BodyPlan(
    key="fish", name="fish", group="in the water", measure=LONG, usual_mm=120,
    colours={"core": "#e9e2d2", "back": "#3f6f78", "belly": "#d6d2c2", "fin": "#8aa5a2"},
    parts=[
        part(1, "body", "body", silhouette("0:8 14:18 40:38 66:44 88:36 102:22 110:8", 0.55), "medium",
             [core("core"), cover("back", 0.6), cover("belly", 0.4)], None, root(40, 0)),
        part(1, "tail", "tail", slab(4, "0,-5 14,-12 30,-20 26,0 30,20 14,12 0,5"), "medium", [core("fin")], None,
             on("body", 0.02, None, 0, 180, sink=5, face="side")),
        part(1, "back fin", "fin", slab(4, "0,-4 8,-14 22,-12 40,-2 40,4 0,4"), "medium", [core("fin")], None,
             on("body", 0.74, 0, 8, 180, sink=4, face="side")),
        part(2, "breast fin", "fin", slab(3, "0,-4 10,-7 24,-4 26,3 10,6 0,4"), "medium", [core("fin")], None,
             on("body", 0.72, 120, -20, 150, sink=2, face="top")),
        bead(2, "eye", 5, on("body", 0.9, 66, sink=1)),
    ],
)  # fmt: skip
