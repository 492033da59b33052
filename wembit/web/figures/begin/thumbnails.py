"""The body plans as small drawings."""

from __future__ import annotations

from functools import lru_cache

from django.template.loader import render_to_string

from wembit.core.body_plans.every_plan import PLANS
from wembit.core.body_plans.proportions import natural
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.models import Figure
from wembit.web.figures.to_core.drafts import draft
from wembit.web.studio.models import Studio


@lru_cache(maxsize=len(PLANS))
def thumbnail(key: str) -> str:
    """A plan from the side in the colours that it is thought of in, all to the same height; drawn once for a process."""
    plan = PLANS[key]
    made = draft(Figure(studio=Studio(), name=plan.name), natural(plan), list(plan.colours))
    side = pictures(made.version, made.parts, made.palette({}, plan.colours))["side"]
    return render_to_string("figures/begin/_thumbnail.html", {"view": side, "picked": "", "still": 1})
