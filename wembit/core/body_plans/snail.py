"""A snail with its house."""

from wembit.core.body_plans.plan import LONG, BodyPlan
from wembit.core.body_plans.writing import (
    NOTHING,
    capsule,
    core,
    cover,
    detail,
    ellipsoid,
    on,
    part,
    root,
    silhouette,
    sphere,
    torus,
    wrap,
)

PLAN = BodyPlan(
    key="snail", name="snail", group="low on the ground", measure=LONG, usual_mm=80,
    colours={"core": "#e9e2d2", "foot": "#d9c7a0", "shell": "#8a6a45", "dark": "#33291f"},
    parts=[
        part(1, "foot", "body", silhouette("0:3 9:10 22:16 40:17 56:14 66:8 70:3", 1.25), "firm", [core("foot")], None,
             root(8, 0)),
        part(1, "shell", "shell", ellipsoid(44, 30, 42), "firm", [core("core"), cover("shell")], None,
             on("foot", 0.42, 0, 8, 0, by=0.5, sink=5)),
        part(1, "lip", "shell", torus(28, 6), "firm", [core("shell")], None, on("foot", 0.64, 0, 30, 0, by=0.5, sink=8)),
        part(2, "whorl", "line", NOTHING, None, [detail("dark", 460)], None,
             on("shell", 0.5, 90, line="spiral", turns=2.5, width_mm=2)),
        part(1, "neck", "head", capsule(16, 32), "firm", [core("foot")], None, on("foot", 0.86, 0, 52, 0, sink=7)),
        part(2, "long feeler", "feeler", wrap(3, 16, 0.6), "firm", [core("foot")], None,
             on("neck", 0.84, 50, 66, 26, sink=2), bare_mm=12),
        part(2, "feeler tip", "eye", sphere(5), "very_firm", [core("dark")], None, on("long feeler", 1, None, 66, 26, sink=1)),
        part(2, "short feeler", "feeler", capsule(3.5, 9), "very_firm", [core("foot")], None,
             on("neck", 0.92, 120, -5, 30, sink=2)),
    ],
)  # fmt: skip
