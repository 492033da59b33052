"""A snake or a worm, long and bent: snake, worm, eel, caterpillar."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import bead, capsule, cone, core, cover, ellipsoid, on, part, root, slab

PLAN = BodyPlan(
    key="snake", name="snake", group="low on the ground", measure=LONG, usual_mm=150,
    colours={"core": "#e9e2d2", "back": "#7b8a4a", "belly": "#d9c7a0", "dark": "#24211f"},
    parts=[
        part(1, "body", "body", capsule(20, 110), "firm",
             [core("core"), cover("back", 0.75), cover("belly", 0.25)], None, root(10, 0)),
        part(1, "neck", "neck", capsule(18, 44), "firm", [core("core"), cover("back", 0.75), cover("belly", 0.25)], None,
             on("body", 0.97, 0, 62, 0, sink=12)),
        part(1, "head", "head", ellipsoid(34, 24, 18), "firm", [core("back")], None,
             on("neck", 0.95, None, -4, 0, by=0.25, sink=6)),
        part(1, "tail", "tail", cone(18, 60), "firm", [core("back")], None, on("body", 0.04, None, 0, 160, sink=8)),
        part(1, "tongue", "tongue", slab(2, "0,-1 8,-1 13,-3 10,0 13,3 8,1 0,1"), "very_firm", [core("dark")], None,
             on("head", 0.98, None, -6, 0, sink=2, face="top")),
        bead(2, "eye", 4, on("head", 0.7, 52, sink=1)),
    ],
)  # fmt: skip
