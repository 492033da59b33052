"""Make a figure bigger or smaller."""

from __future__ import annotations

from uuid import UUID

from wembit.core.errors import BadInput
from wembit.core.grams.largest_scale import LARGEST, SMALLEST
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.figures.to_core.seating import placed
from wembit.web.studio.models import Member


def resize_figure(member: Member, figure_id: UUID, scale: float) -> Version:
    """Every length of the newest version × `scale`, counted from its first size. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, "another size", field="times") as edit:
        if not SMALLEST <= scale <= LARGEST:
            raise Refusal(f"Choose a size between {SMALLEST:g} and {LARGEST:g} times.", "times")
        edit.version.scale = scale
        edit.version.save(update_fields=["scale"])
        try:
            placed(edit.parts, scale)
        except BadInput as fault:
            raise Refusal(f"At that size a part {fault.what}.", "times") from None
    return edit.version
