"""A dome with its flat side down: gnome's hat, pincushion, ladybird without legs."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, dome, part, root

PLAN = BodyPlan(
    key="dome", name="dome", group="solids", measure=HIGH, usual_mm=40, colours={"core": "#e9e2d2", "main": "#7d8790"},
    parts=[part(1, "dome", "body", dome(64, 36), "firm", [core("core"), cover("main")], None, root(18, 90))],
)  # fmt: skip
