"""A beast that climbs with its arms about a stem or a cup's rim: squirrel, bear, cat, lizard."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import (
    bead,
    capsule,
    core,
    cover,
    ellipsoid,
    frustum,
    on,
    part,
    root,
    silhouette,
)

PLAN = BodyPlan(
    key="climbing", name="climbing beast", group="on four legs", measure=HIGH, usual_mm=130,
    colours={"core": "#e9e2d2", "coat": "#a9713f", "belly": "#e8dcc4", "dark": "#33291f", "nose": "#24211f"},
    parts=[
        part(1, "body", "body", silhouette("0:30 12:42 36:44 66:38 88:30 98:22", 0.86), "medium",
             [core("core"), cover("coat", 0.75), cover("belly", 0.25)], None, root(72, 82)),
        part(1, "head", "head", ellipsoid(40, 36, 34), "firm", [core("core"), cover("coat")], None,
             on("body", 0.97, None, 30, 0, by=0.35, sink=7)),
        part(1, "snout", "snout", frustum(19, 12, 20), "firm", [core("belly")], None, on("head", 0.9, None, -12, 0, sink=6)),
        part(1, "nose", "nose", ellipsoid(6, 8, 6), "very_firm", [core("nose")], None, on("snout", 1, None, 0, 0, sink=3)),
        part(2, "ear", "ear", silhouette("0:13 7:15 15:11 24:1", 0.8), "firm", [core("coat")], None,
             on("head", 0.36, 36, 68, 100, sink=5)),
        bead(2, "eye", 4, on("head", 0.76, 52, sink=1)),
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
