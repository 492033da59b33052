"""An egg on its end."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, part, root, silhouette

PLAN = BodyPlan(
    key="egg", name="egg", group="solids", measure=HIGH, usual_mm=60,
    colours={"core": "#e9e2d2", "main": "#d9c7a0"},
    parts=[
        part(1, "egg", "body",
             silhouette("0:0 1:12 3:19 7:28 13:36 20:41 27:42 34:40 42:34 49:26 54:19 58:10 59.4:5 60:0", 1), "firm",
             [core("core"), cover("main")], None, root(30, 90)),
    ],
)  # fmt: skip
