"""A beetle with six legs: ladybird, stag beetle, bee."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import bead, core, cover, dots, ellipsoid, on, part, root, wrap

PLAN = BodyPlan(
    key="beetle", name="beetle", group="small beasts", measure=LONG, usual_mm=60,
    colours={"core": "#e9e2d2", "back": "#a33a2a", "dark": "#24211f"},
    parts=[
        part(1, "body", "body", ellipsoid(54, 40, 30), "firm",
             [core("core"), cover("back", 0.62), cover("dark", 0.38), dots("dark", 7, 6, laid="over")], None, root(19, 0)),
        part(1, "head", "head", ellipsoid(18, 24, 17), "firm", [core("dark")], None,
             on("body", 0.95, None, -4, 0, by=0.3, sink=2)),
        part(6, "leg", "leg", wrap(4, 26, 0.6), "firm", [core("dark")], None,
             on("body", 0.5, 132, -10, 90, sink=3, bends=[[13, 12], [13, -58]], pair=True,
                copies=[{"t": 0.74, "yaw": 55}, {"t": 0.5, "yaw": 92}, {"t": 0.28, "yaw": 128}]),
             bare_mm=8),
        part(2, "feeler", "feeler", wrap(2.4, 15, 0.6), "firm", [core("dark")], None,
             on("head", 0.8, 40, 40, 35, sink=2), bare_mm=8),
        bead(2, "eye", 3, on("head", 0.72, 74, sink=0.8)),
    ],
)  # fmt: skip
