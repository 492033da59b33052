"""All body plans, in the order in which they are offered."""

from __future__ import annotations

from importlib import import_module

from .plan import BodyPlan

_NAMES = (
    "standing", "sitting", "lying", "climbing", "perched_bird", "standing_bird", "flying_bird", "fish", "octopus", "jelly",
    "newt",
    "snake", "snail", "beetle", "spider", "person", "flower", "mushroom", "tree", "house", "tower", "ball", "egg", "dome",
    "cone", "heart", "star", "leaf", "letters",
)  # fmt: skip
PLANS: dict[str, BodyPlan] = {}
for _name in _NAMES:
    _plan: BodyPlan = import_module(f"{__package__}.{_name}").PLAN
    PLANS[_plan.key] = _plan
