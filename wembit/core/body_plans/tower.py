"""A tower, a lighthouse, a chess king."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import cone, core, cover, dome, frustum, on, part, root

PLAN = BodyPlan(
    key="tower", name="tower", group="built", measure=HIGH, usual_mm=140,
    colours={"core": "#e9e2d2", "wall": "#f1ede3", "band": "#a33a2a", "rock": "#7d8790"},
    parts=[
        part(1, "ground", "base", dome(66, 24), "firm", [core("rock")], None, root(12, 90)),
        part(1, "lower tower", "tower", frustum(42, 36, 40), "firm", [core("core"), cover("wall")], None,
             on("ground", 1, None, 90, 0, sink=6)),
        part(1, "upper tower", "tower", frustum(36, 30, 40), "firm", [core("core"), cover("band")], None,
             on("lower tower", 1, None, 90, 0)),
        part(1, "roof", "roof", cone(40, 30), "firm", [core("core"), cover("band")], None, on("upper tower", 1, None, 90, 0)),
    ],
)  # fmt: skip
