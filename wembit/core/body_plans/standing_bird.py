"""A bird on long legs: heron, stork, flamingo, hen."""

from wembit.core.body_plans.birds import FEATHERS
from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import bead, cone, core, cover, ellipsoid, on, part, root, silhouette, slab, wrap

PLAN = BodyPlan(
    key="wading", name="standing bird", group="birds", measure=HIGH, usual_mm=180,
    colours=FEATHERS,
    parts=[
        part(1, "body", "body", silhouette("0:6 12:22 32:36 54:38 72:26 84:12", 0.9), "medium",
             [core("core"), cover("back", 0.6), cover("belly", 0.4)], None, root(90, 22)),
        part(1, "neck", "neck", wrap(12, 66, 1.5), "firm", [core("back")], None,
             on("body", 0.94, 0, 62, 0, sink=6, bends=[[22, 50], [22, 95], [22, 62]]), bare_mm=40),
        part(1, "head", "head", ellipsoid(28, 19, 20), "firm", [core("back")], None,
             on("neck", 1, None, -4, 0, by=0.25, sink=3)),
        part(1, "beak", "snout", cone(8, 32), "very_firm", [core("beak")], None, on("head", 0.95, None, -6, 0, sink=4)),
        part(2, "wing", "wing", slab(4, "0,-7 12,-13 34,-14 56,-8 68,0 48,8 20,11 6,8"), "medium", [core("wing")], None,
             on("body", 0.76, 80, 200, 0, sink=1, face="side")),
        part(1, "tail", "tail", slab(4, "0,-6 22,-9 28,0 22,9 0,6"), "medium", [core("wing")], None,
             on("body", 0.05, 0, -18, 180, sink=8, face="top")),
        part(2, "leg", "leg", wrap(4.2, 76, 1.5), "very_firm", [core("beak")], None,
             on("body", 0.42, 156, -90, 0, sink=6, bends=[[38, -84], [38, -94]]), bare_mm=30),
        part(6, "front toe", "toe", wrap(3, 18, 1), "very_firm", [core("beak")], None,
             on("leg", 1, None, -2, 0, copies=[{"yaw": -28}, {"yaw": 0}, {"yaw": 28}]), bare_mm=0, doubled=True),
        part(2, "back toe", "toe", wrap(3, 12, 1), "very_firm", [core("beak")], None, on("leg", 1, None, -2, 180),
             bare_mm=0, doubled=True),
        bead(2, "eye", 4, on("head", 0.62, 66, sink=1)),
    ],
)  # fmt: skip
