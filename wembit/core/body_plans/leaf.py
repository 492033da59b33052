"""A flat leaf."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import core, part, root, slab

PLAN = BodyPlan(
    key="leaf", name="leaf", group="flat", measure=LONG, usual_mm=70, colours={"green": "#6f7d43"},
    parts=[
        part(1, "leaf", "leaf",
             slab(4, "0,-1.5 12,-1.5 14,-6 22,-14 34,-18 46,-16 58,-9 68,-2 72,0 68,2 58,9 46,16 34,18 22,14"
                                        " 14,6 12,1.5 0,1.5"), "medium", [core("green")], None, root(18, 0)),
    ],
)  # fmt: skip
