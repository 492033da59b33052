"""A cone: hat, tree, gnome."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import cone, core, cover, part, root

PLAN = BodyPlan(
    key="cone", name="cone", group="solids", measure=HIGH, usual_mm=80, colours={"core": "#e9e2d2", "main": "#a33a2a"},
    parts=[part(1, "cone", "body", cone(48, 80), "firm", [core("core"), cover("main")], None, root(40, 90))],
)  # fmt: skip
