"""A tree, a cone of green on a stem."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import cone, core, cover, frustum, on, part, root

PLAN = BodyPlan(
    key="tree", name="tree", group="grown", measure=HIGH, usual_mm=120,
    colours={"core": "#e9e2d2", "stem": "#6b4a32", "green": "#4d6b3a"},
    parts=[
        part(1, "stem", "base", frustum(18, 14, 32), "firm", [core("stem")], None, root(16, 90)),
        part(1, "low crown", "tower", frustum(70, 38, 40), "medium", [core("core"), cover("green")], None,
             on("stem", 1, None, 90, 0, sink=6)),
        part(1, "high crown", "tower", cone(52, 56), "medium", [core("core"), cover("green")], None,
             on("low crown", 1, None, 90, 0, sink=6)),
    ],
)  # fmt: skip
