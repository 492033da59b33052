"""A beast that sits upright on its haunches: cat, dog, fox, squirrel, rabbit."""

from wembit.core.body_plans.beasts import COAT, head
from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import capsule, core, cover, ellipsoid, on, part, root, silhouette

PLAN = BodyPlan(
    key="sitting", name="sitting beast", group="on four legs", measure=HIGH, usual_mm=130,
    colours=COAT,
    parts=[
        part(1, "body", "body", silhouette("0:34 12:50 34:54 62:44 84:34 96:24", 0.86), "medium",
             [core("core"), cover("coat", 0.7), cover("belly", 0.3)], None, root(50, 72)),
        *head(on("body", 0.97, None, -4, 0, by=0.4, sink=8)),
        part(2, "thigh", "thigh", ellipsoid(46, 20, 42), "medium", [core("core"), cover("coat", 0.7)], None,
             on("body", 0.16, 100, 30, 4, by=0.45, sink=11)),
        part(2, "hind foot", "foot", capsule(13, 36), "firm", [core("coat")], None,
             on("thigh", 0.4, 180, 0, 6, by=0.3, sink=4)),
        part(2, "foreleg", "foreleg", capsule(14, 66), "firm", [core("core"), cover("coat")], None,
             on("body", 0.72, 152, -84, 0, sink=10)),
        part(2, "forefoot", "foot", ellipsoid(18, 14, 10), "firm", [core("coat")], None,
             on("foreleg", 0.94, 180, 0, 0, by=0.35, sink=7)),
        part(1, "tail", "tail", silhouette("0:10 20:18 44:20 64:13 76:4", 1), "soft", [core("core"), cover("coat")], None,
             on("body", 0.06, 0, 8, 180, sink=8)),
    ],
    feet=("forefoot", "hind foot"),
)  # fmt: skip
