"""A ball."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, part, root, sphere

PLAN = BodyPlan(
    key="ball", name="ball", group="solids", measure=HIGH, usual_mm=50,
    colours={"core": "#e9e2d2", "main": "#6f7d43"},
    parts=[
        part(1, "ball", "body", sphere(50), "firm", [core("core"), cover("main")], None, root(25, 0)),
    ],
)  # fmt: skip
