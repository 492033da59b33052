"""A beast that stands on four legs: fox, badger, cat, dog, bear, pig, lamb."""

from wembit.core.body_plans.beasts import COAT, DARK, head
from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import capsule, core, cover, ellipsoid, frustum, on, part, root, silhouette

PLAN = BodyPlan(
    key="standing", name="standing beast", group="on four legs", measure=LONG, usual_mm=140,
    colours=COAT | DARK,
    parts=[
        part(1, "body", "body", silhouette("0:26 10:38 34:44 62:42 86:43 102:34 110:24", 0.82), "medium",
             [core("core"), cover("coat", 0.75), cover("belly", 0.25)], None, root(68, 2)),
        part(1, "neck", "neck", frustum(36, 28, 30), "medium", [core("core"), cover("coat")], None,
             on("body", 0.88, 0, 38, 0, sink=12)),
        *head(on("neck", 0.86, None, -6, 0, by=0.3, sink=4)),
        part(2, "thigh", "thigh", ellipsoid(40, 16, 34), "medium", [core("core"), cover("coat", 0.7)], None,
             on("body", 0.17, 100, -65, 0, by=0.3, sink=8)),
        part(2, "foreleg", "leg", capsule(15, 56), "firm", [core("core"), cover("coat")], None,
             on("body", 0.82, 142, -88, 0, sink=12)),
        part(2, "hind leg", "leg", capsule(14, 52), "firm", [core("core"), cover("coat")], None,
             on("body", 0.12, 142, -90, 0, sink=12)),
        part(2, "forefoot", "foot", ellipsoid(19, 15, 10), "firm", [core("dark")], None,
             on("foreleg", 0.93, 180, 0, 0, by=0.35, sink=7)),
        part(2, "hind foot", "foot", ellipsoid(20, 15, 10), "firm", [core("dark")], None,
             on("hind leg", 0.93, 180, 0, 0, by=0.35, sink=7)),
        part(1, "tail", "tail", silhouette("0:12 18:20 40:24 58:17 70:4", 1), "soft", [core("core"), cover("coat")], None,
             on("body", 0.04, 0, -12, 180, sink=6)),
    ],
    feet=("forefoot", "hind foot"),
)  # fmt: skip
