"""A newt or an axolotl: long, low, three gills a side, a fin along its tail."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import bead, capsule, core, cover, ellipsoid, on, part, root, silhouette, slab, wrap

PLAN = BodyPlan(
    key="newt", name="newt", group="in the water", measure=LONG, usual_mm=140,
    colours={"core": "#e9e2d2", "skin": "#e6c4bb", "gill": "#c46a72"},
    parts=[
        part(1, "body", "body", silhouette("0:14 16:24 44:27 70:25 84:18", 1.1), "medium",
             [core("core"), cover("skin")], None, root(18, 2)),
        part(1, "head", "head", ellipsoid(40, 46, 27), "firm", [core("core"), cover("skin")], None,
             on("body", 0.96, None, 2, 0, by=0.25, sink=8)),
        part(6, "gill", "gill", wrap(4.4, 26, 0.6), "firm", [core("gill")], None,
             on("head", 0.3, 60, 30, 130, sink=4, bends=[[14, 34], [12, 10]], pair=True,
                copies=[{"angle": 42, "pitch": 50}, {"angle": 72, "pitch": 22}, {"angle": 100, "pitch": -6}]), bare_mm=12),
        part(2, "foreleg", "leg", capsule(9, 26), "firm", [core("skin")], None, on("body", 0.78, 118, -38, 66, sink=6)),
        part(2, "hind leg", "leg", capsule(9, 26), "firm", [core("skin")], None, on("body", 0.2, 118, -38, 104, sink=6)),
        part(1, "tail", "tail", silhouette("0:16 24:13 52:8 74:3", 0.7), "medium", [core("skin")], None,
             on("body", 0.05, None, 2, 180, sink=8)),
        part(1, "tail fin", "fin", slab(3, "0,-6 20,-15 48,-15 70,-8 80,0 70,7 44,11 16,10 0,6"), "medium",
             [core("skin")], None, on("tail", 0.12, None, 2, 180, sink=4, face="side")),
        bead(2, "eye", 4, on("head", 0.8, 48, sink=1)),
    ],
    feet=("foreleg", "hind leg"),
)  # fmt: skip
