"""Put a fitting on a figure: a brooch back, a loop, a bell."""

from __future__ import annotations

from uuid import UUID, uuid4

from wembit.core.craft.notions import FITTINGS
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.limits import FITTINGS as MOST_FITTINGS
from wembit.web.studio.models import Member


def add_fitting(
    member: Member,
    figure_id: UUID,
    notion: str,
    amount: float,
    *,
    size_mm: float | None = None,
    part: str = "",
    words: str = "",
) -> Version:
    """So many pieces, or mm, of a notion for the figure or for each piece of a part. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, "a fitting, put on") as edit:
        version = edit.version
        if notion not in FITTINGS:
            raise Refusal("Choose what is fitted.", "notion")
        if part:
            edit.part(part)
        if len(version.notions) >= MOST_FITTINGS:
            raise Refusal(f"At most {MOST_FITTINGS} fittings.", "notion")
        kept = {"id": uuid4().hex[:12], "notion": notion, "amount": amount, "size_mm": size_mm, "part": part,
                "words": " ".join(words.split())[:60]}  # fmt: skip
        version.notions = [*version.notions, kept]
        version.save(update_fields=["notions"])
    return version
