"""A beast that climbs with its arms about a stem or a cup's rim: squirrel, bear, cat, lizard."""

from wembit.core.body_plans.beasts import COAT, DARK, head
from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import capsule, core, cover, ellipsoid, on, part, root, silhouette

PLAN = BodyPlan(
    key="climbing", name="climbing beast", group="on four legs", measure=HIGH, usual_mm=130,
    colours=COAT | DARK,
    parts=[
        part(1, "body", "body", silhouette("0:30 12:42 36:44 66:38 88:30 98:22", 0.86), "medium",
             [core("core"), cover("coat", 0.75), cover("belly", 0.25)], None, root(72, 82)),
        *head(on("body", 0.97, None, 30, 0, by=0.35, sink=7)),
        part(2, "foreleg", "arm", capsule(13, 44), "firm", [core("core"), cover("coat")], None,
             on("body", 0.78, 130, 42, 18, sink=9)),
        part(2, "forefoot", "foot", ellipsoid(15, 12, 9), "firm", [core("dark")], None,
             on("foreleg", 0.95, None, 20, 0, by=0.3, sink=3)),
        part(2, "hind leg", "leg", capsule(15, 44), "firm", [core("core"), cover("coat")], None,
             on("body", 0.14, 128, -35, 22, sink=9)),
        part(2, "hind foot", "foot", ellipsoid(18, 13, 9), "firm", [core("dark")], None,
             on("hind leg", 0.95, 0, 30, 0, by=0.3, sink=5)),
        part(1, "tail", "tail", silhouette("0:10 20:18 46:22 66:16 78:4", 1), "soft", [core("core"), cover("coat")], None,
             on("body", 0.04, 0, -58, 180, sink=6)),
    ],
)  # fmt: skip
