"""A flat star of five points."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, part, root, slab

PLAN = BodyPlan(
    key="star", name="star", group="flat", measure=HIGH, usual_mm=70,
    colours={"core": "#e9e2d2", "main": "#c9a253"},
    parts=[
        part(1, "star", "body",
             slab(12, "0,-21.6 26.7,-17.4 48.6,-35.0 45.9,-10 70.6,-0 45.9,10 48.6,35.0 26.7,17.4 0,21.6 13,0"), "firm",
             [core("core"), cover("main")], None, root(35, 90)),
    ],
)  # fmt: skip
