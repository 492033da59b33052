"""A flower on a stalk, its petals in a ring."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, dome, on, part, root, slab, wrap

PLAN = BodyPlan(
    key="flower", name="flower", group="grown", measure=HIGH, usual_mm=120,
    colours={"green": "#4d6b3a", "petal": "#d79a93", "heart": "#c9a253"},
    parts=[
        part(1, "stalk", "base", wrap(6, 84, 1.2), "firm", [core("green")], None, root(42, 90), bare_mm=10),
        part(1, "heart", "head", dome(24, 12), "firm", [core("heart")], None, on("stalk", 1, None, 90, 0, sink=2)),
        part(7, "petal", "petal", slab(3, "0,-5 10,-10 22,-11 32,-6 36,0 32,6 22,11 10,10 0,5"), "medium",
             [core("petal")], None,
             on("heart", 0.12, 0, 22, 0, sink=5, face="top", pair=False,
                copies=[{"angle": round(n * 360 / 7), "yaw": round(180 + n * 360 / 7)} for n in range(7)])),
        part(2, "leaf", "leaf", slab(3, "0,-3 10,-8 24,-8 36,0 24,8 10,8 0,3"), "medium", [core("green")], None,
             on("stalk", 0.3, 90, 30, 90, sink=1, face="top")),
    ],
)  # fmt: skip
