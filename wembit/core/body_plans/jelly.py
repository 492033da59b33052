"""A jellyfish, to hang."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, dome, on, part, root, wrap

PLAN = BodyPlan(
    key="jelly", name="jelly", group="in the water", measure=HIGH, usual_mm=110,
    colours={"core": "#e9e2d2", "bell": "#d79a93", "arm": "#e8dcc4"},
    parts=[
        part(1, "bell", "body", dome(60, 36), "medium", [core("core"), cover("bell")], None, root(96, 90)),
        part(8, "arm", "arm", wrap(5, 76, 0.6), "soft", [core("arm")], None,
             on("bell", 0.03, 0, -90, 0, by=0.06, sink=12, bends=[[26, -80], [26, -104], [24, -78]],
                copies=[{"angle": a, "yaw": a} for a in range(0, 360, 45)]), bare_mm=6),
    ],
)  # fmt: skip
