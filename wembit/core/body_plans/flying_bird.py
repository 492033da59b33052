"""A bird with its wings spread, to hang: swallow, gull, owl."""

from wembit.core.body_plans.birds import FEATHERS
from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import bead, cone, core, cover, ellipsoid, on, part, root, silhouette, slab

PLAN = BodyPlan(
    key="flying", name="flying bird", group="birds", measure=LONG, usual_mm=130,
    colours=FEATHERS,
    parts=[
        part(1, "body", "body", silhouette("0:8 14:22 40:32 66:30 86:18", 0.95), "medium",
             [core("core"), cover("back", 0.55), cover("belly", 0.45)], None, root(40, 4)),
        part(1, "head", "head", ellipsoid(30, 27, 27), "firm", [core("core"), cover("back", 0.6), cover("belly", 0.4)], None,
             on("body", 0.96, None, 4, 0, by=0.35, sink=5)),
        part(1, "beak", "snout", cone(8, 14), "very_firm", [core("beak")], None, on("head", 0.95, None, -4, 0, sink=4)),
        part(2, "wing", "wing", slab(4, "0,-16 22,-22 50,-18 84,-6 92,0 60,12 24,16 0,13"), "medium", [core("wing")], None,
             on("body", 0.6, 70, 14, 100, sink=5, face="top")),
        part(1, "tail", "tail", slab(4, "0,-6 30,-14 40,-11 34,0 40,11 30,14 0,6"), "medium", [core("wing")], None,
             on("body", 0.05, 0, -2, 180, sink=8, face="top")),
        bead(2, "eye", 4, on("head", 0.66, 66, sink=1)),
    ],
)  # fmt: skip
