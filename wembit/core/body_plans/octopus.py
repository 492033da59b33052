"""An octopus with eight arms."""

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.writing import core, cover, detail, dots, ellipsoid, on, part, root, sphere, torus, wrap

PLAN = BodyPlan(
    key="octopus", name="octopus", group="in the water", measure=HIGH, usual_mm=80,
    colours={"core": "#e9e2d2", "skin": "#7a4860", "sucker": "#d79a93", "eye white": "#f1ede3", "dark": "#24211f"},
    parts=[
        part(1, "head", "head", ellipsoid(60, 46, 48), "medium", [core("core"), cover("skin")], None, root(50, 98)),
        part(1, "skirt", "skirt", torus(44, 13), "medium", [core("skin")], None, on("head", 0.12, None, 98, 0, by=0.5)),
        part(8, "arm", "arm", wrap(10, 78, 1), "firm", [core("skin"), dots("sucker", 8, 4.2, angle=180)], None,
             on("head", 0.1, 170, -20, 25, sink=5, bends=[[22, -55], [22, -20], [20, 5], [14, 50]], pair=True,
                copies=[{"angle": 170, "yaw": 25}, {"angle": 120, "yaw": 68}, {"angle": 60, "yaw": 112},
                {"angle": 10, "yaw": 155}]),
             bare_mm=0, loop_mm=6, through_mm=34),
        part(2, "eyeball", "eye", sphere(12), "very_firm", [core("eye white"), detail("dark", 34)], None,
             on("head", 0.34, 140, 10, 0, by=0.5, sink=4)),
    ],
)  # fmt: skip
