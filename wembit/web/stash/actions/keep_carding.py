"""Keep how this studio cards: which forms go together, how many fibres and parts a recipe has, what carding loses."""

from __future__ import annotations

from collections.abc import Sequence

from django.db import transaction

from wembit.core.craft.materials import FORMS
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member, Studio

MOST_FIBRES, MOST_PARTS, MOST_LOSS = 4, 16, 50


@transaction.atomic
def keep_carding(member: Member, forms: Sequence[str], *, fibres: int, parts: int, loss_percent: float) -> Studio:
    """The studio's table of forms that blend by hand, and the limits of its recipes. Raises `Refusal`."""
    member.must_be(MAKER)
    chosen = [form for form in FORMS if form in forms]
    if len(chosen) != len(set(forms)) or not chosen:
        raise Refusal("Choose one form at least that is carded.", "blends")
    if not 2 <= fibres <= MOST_FIBRES:
        raise Refusal(f"A recipe has 2 to {MOST_FIBRES} fibres.", "fibres")
    if not fibres <= parts <= MOST_PARTS:
        raise Refusal(f"Choose as many parts as fibres at least, and {MOST_PARTS} at most.", "parts")
    if not 0 <= loss_percent <= MOST_LOSS:
        raise Refusal(f"Carding loses 0 to {MOST_LOSS} %.", "loss")
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    studio.habits = {
        **studio.habits,
        "blends": chosen,
        "fibres": fibres,
        "parts": parts,
        "carding_loss": loss_percent / 100,
    }
    studio.save(update_fields=["habits"])
    return studio
