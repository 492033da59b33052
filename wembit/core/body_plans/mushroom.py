"""A mushroom."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, dome, dots, frustum, on, part, root

PLAN = BodyPlan(
    key="mushroom", name="mushroom", group="grown", measure=HIGH, usual_mm=70,
    colours={"core": "#e9e2d2", "stalk": "#e8dcc4", "cap": "#a33a2a", "spot": "#f1ede3"},
    parts=[
        part(1, "stalk", "base", frustum(24, 18, 44), "firm", [core("core"), cover("stalk")], None, root(22, 90)),
        part(1, "cap", "roof", dome(62, 30), "firm", [core("core"), cover("cap"), dots("spot", 9, 7, laid="over")], None,
             on("stalk", 1, None, 90, 0, sink=4)),
    ],
)  # fmt: skip
