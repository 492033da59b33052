"""A beast that lies with its legs before it: cat, lamb, dog, calf."""

from wembit.core.body_plans.beasts import COAT, head
from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import capsule, core, cover, ellipsoid, frustum, on, part, root, silhouette

PLAN = BodyPlan(
    key="lying", name="lying beast", group="on four legs", measure=LONG, usual_mm=150,
    colours=COAT,
    parts=[
        part(1, "body", "body", silhouette("0:30 12:46 38:50 72:46 98:42 114:26", 0.95), "medium",
             [core("core"), cover("coat", 0.75), cover("belly", 0.25)], None, root(24, 2)),
        part(1, "neck", "neck", frustum(34, 28, 30), "medium", [core("core"), cover("coat")], None,
             on("body", 0.88, 0, 48, 0, sink=14)),
        *head(on("neck", 0.86, None, -6, 0, by=0.3, sink=4)),
        part(2, "thigh", "thigh", ellipsoid(44, 18, 36), "medium", [core("core"), cover("coat", 0.7)], None,
             on("body", 0.2, 104, 20, 0, by=0.5, sink=9)),
        part(2, "hind foot", "foot", capsule(13, 34), "firm", [core("coat")], None,
             on("thigh", 0.55, 170, 0, 8, by=0.3, sink=4)),
        part(2, "foreleg", "arm", capsule(14, 48), "firm", [core("core"), cover("coat")], None,
             on("body", 0.86, 140, -6, 6, sink=10)),
        part(1, "tail", "tail", silhouette("0:9 20:14 48:15 66:10 76:4", 1), "soft", [core("core"), cover("coat")], None,
             on("body", 0.04, 90, -6, 150, sink=6)),
    ],
)  # fmt: skip
