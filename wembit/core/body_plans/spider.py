"""A spider with eight legs."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import bead, core, cover, ellipsoid, on, part, root, wrap

PLAN = BodyPlan(
    key="spider", name="spider", group="small beasts", measure=LONG, usual_mm=90,
    colours={"core": "#e9e2d2", "back": "#4a382b", "leg": "#33291f"},
    parts=[
        part(1, "body", "body", ellipsoid(28, 25, 20), "firm", [core("core"), cover("back")], None, root(24, 4)),
        part(1, "abdomen", "body", ellipsoid(44, 38, 34), "medium", [core("core"), cover("back")], None,
             on("body", 0.04, None, 10, 180, by=0.0, sink=6)),
        part(8, "leg", "leg", wrap(5, 62, 0.8), "firm", [core("leg")], None,
             on("body", 0.5, 100, 30, 90, sink=5, bends=[[22, 40], [22, -40], [18, -72]], pair=True,
                copies=[{"t": 0.78, "yaw": 40}, {"t": 0.6, "yaw": 74}, {"t": 0.42, "yaw": 106}, {"t": 0.24, "yaw": 140}]),
             bare_mm=0, through_mm=22),
        bead(2, "eye", 3, on("body", 0.92, 40, sink=0.8)),
        bead(2, "side eye", 2, on("body", 0.88, 70, sink=0.5)),
    ],
)  # fmt: skip
