"""A person or a doll that stands."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import (
    bead,
    capsule,
    core,
    cover,
    dome,
    ellipsoid,
    on,
    part,
    root,
    silhouette,
    sphere,
)

PLAN = BodyPlan(
    key="person", name="standing person", group="upright", measure=HIGH, usual_mm=160,
    colours={"core": "#e9e2d2", "skin": "#d8b08c", "dress": "#6f7d43", "hair": "#4a382b", "shoe": "#33291f"},
    parts=[
        part(1, "body", "body", silhouette("0:44 10:46 30:38 48:36 62:32 70:18", 0.75), "medium",
             [core("core"), cover("dress")], None,
             root(86, 90)),
        part(1, "neck", "neck", capsule(13, 20), "firm", [core("skin")], None, on("body", 0.97, None, 90, 0, sink=7)),
        part(1, "head", "head", ellipsoid(36, 34, 40), "firm", [core("core"), cover("skin")], None,
             on("neck", 0.9, None, 0, 0, by=0.45, sink=8)),
        part(1, "hair", "hair", dome(37, 20), "soft", [core("hair")], None, on("head", 0.46, 0, 90, 0, sink=14)),
        part(1, "nose", "nose", sphere(5), "very_firm", [core("skin")], None, on("head", 1, None, 0, 0, sink=3)),
        bead(2, "eye", 4, on("head", 0.9, 62, sink=1.5)),
        part(2, "arm", "arm", capsule(12, 54), "firm", [core("core"), cover("dress")], None,
             on("body", 0.84, 90, -68, 90, sink=7)),
        part(2, "hand", "hand", ellipsoid(13, 8, 11), "firm", [core("skin")], None,
             on("arm", 0.98, None, -68, 90, by=0.3, sink=2)),
        part(2, "leg", "leg", capsule(15, 60), "firm", [core("core"), cover("skin")], None,
             on("body", 0.04, 90, -90, 0, by=0.14, sink=21)),
        part(2, "shoe", "foot", ellipsoid(26, 16, 13), "firm", [core("shoe")], None,
             on("leg", 0.95, 180, 0, 0, by=0.35, sink=6)),
    ],
)  # fmt: skip
