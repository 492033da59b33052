"""A bird that sits: robin, sparrow, kingfisher, hen, owl."""

from wembit.core.body_plans.birds import FEATHERS
from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import bead, capsule, cone, core, cover, ellipsoid, on, part, root, silhouette, slab

PLAN = BodyPlan(
    key="perched", name="sitting bird", group="birds", measure=HIGH, usual_mm=80,
    colours=FEATHERS,
    parts=[
        part(1, "body", "body", silhouette("0:12 12:30 32:42 54:40 70:28 80:16", 0.95), "medium",
             [core("core"), cover("back", 0.55), cover("belly", 0.45)], None, root(40, 38)),
        part(1, "head", "head", ellipsoid(34, 31, 31), "firm", [core("core"), cover("back", 0.6), cover("belly", 0.4)], None,
             on("body", 0.92, None, 0, 0, by=0.42, sink=7)),
        part(1, "beak", "snout", cone(9, 18), "very_firm", [core("beak")], None, on("head", 0.95, None, -4, 0, sink=4)),
        part(2, "wing", "wing", slab(4, "0,-7 12,-13 34,-14 56,-8 68,0 48,8 20,11 6,8"), "medium", [core("wing")], None,
             on("body", 0.74, 78, 218, 0, sink=1, face="side")),
        part(1, "tail", "tail", slab(4, "0,-6 26,-9 34,-8 34,8 26,9 0,6"), "medium", [core("wing")], None,
             on("body", 0.05, 0, -30, 180, sink=8, face="top")),
        part(2, "leg", "leg", capsule(4, 20), "very_firm", [core("beak")], None, on("body", 0.34, 160, -90, 0, sink=5)),
        part(6, "toe", "toe", capsule(3.2, 12), "very_firm", [core("beak")], None,
             on("leg", 0.98, None, -2, 0, sink=1, copies=[{"yaw": -30}, {"yaw": 0}, {"yaw": 30}])),
        bead(2, "eye", 4, on("head", 0.66, 66, sink=1)),
    ],
)  # fmt: skip
