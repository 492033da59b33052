"""Where each question of the schools arises: the first step that goes another way by its answer."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from .step import Step

BY_HAND = ("loose end", "pinned", "stitch", "glue", "wisp", "wire in")  # the joins that a school decides
DRAWN = ("line", "border")
SHARES = ("prepare:halves", "prepare:strip", "prepare:stencil")

Is = Callable[[Step], bool]


def _begins(*starts: str) -> Is:
    return lambda step: step.id.startswith(starts)


# for each question the steps at which it arises, the likeliest first
AT: dict[str, tuple[Is, ...]] = {
    "wool": (_begins("prepare:tops"), lambda step: any(w.role == "core" and w.form == "tops" for w in step.wools)),
    "weigh": (_begins("gather"),),
    "pad": (_begins("gather"),),
    "needles": (_begins("firm:"), _begins("make:")),
    "amounts": (_begins("make:"),),
    "pace": (_begins("join:"),),
    "twins": (_begins(*SHARES), lambda step: step.id.startswith("make:") and " × " in step.title),
    "edges": (lambda step: step.method == "flat",),
    "attach": (lambda step: step.id.startswith("join:") and step.method in BY_HAND, _begins("join:")),
    "sculpt": (_begins("sockets:"), _begins("mouth:"), _begins("join:"), _begins("make:")),
    "eyes": (_begins("eyes:"),),
    "lines": (lambda step: step.method in DRAWN,),
    "trim": (_begins("coat:"),),
    "surface": (_begins("smooth"), _begins("strays"), _begins("finish")),
    "strays": (_begins("strays"), _begins("finish")),
    "build": (_begins("make:"),),
    "fingers": (_begins("gather"),),
}


def fork_at(question: str, found: Sequence[Step]) -> str:
    """The id of the step at which a question of `QUESTIONS` arises in an order; empty where it does not."""
    return next((step.id for is_at in AT[question] for step in found if is_at(step)), "")
