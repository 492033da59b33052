"""A flat heart."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, part, root, slab

PLAN = BodyPlan(
    key="heart", name="heart", group="flat", measure=HIGH, usual_mm=60,
    colours={"core": "#e9e2d2", "main": "#a33a2a"},
    parts=[
        part(1, "heart", "body", slab(14,
             "45.7,0.0 46.7,0.1 49.5,1.0 53.2,3.1 56.9,6.7 59.4,11.7 60.0,17.6 58.4,23.5 54.8,28.6 "
             "49.6,32.0 43.6,33.2 37.4,32.0 31.4,28.6 25.7,23.5 20.4,17.6 15.4,11.7 10.6,6.7 6.4,3.1 "
             "3.0,1.0 0.8,0.1 0.0,0.0 0.8,-0.1 3.0,-1.0 6.4,-3.1 10.6,-6.7 15.4,-11.7 20.4,-17.6 "
             "25.7,-23.5 31.4,-28.6 37.4,-32.0 43.6,-33.2 49.6,-32.0 54.8,-28.6 58.4,-23.5 60.0,-17.6 59.4,-11.7 "
             "56.9,-6.7 53.2,-3.1 49.5,-1.0 46.7,-0.1"), "firm",
             [core("core"), cover("main")], None, root(30, 90)),
    ],
)  # fmt: skip
