"""Give a figure another size."""

from __future__ import annotations

from uuid import UUID

from wembit.core.errors import BadInput
from wembit.core.grams.largest_scale import LARGEST, SMALLEST
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.scaling import keep_scaled
from wembit.web.figures.models import Version
from wembit.web.figures.to_core.estimating import LOOSE_END
from wembit.web.figures.to_core.scaling import scaled_parts
from wembit.web.figures.to_core.seating import placed
from wembit.web.studio.models import Member


def resize_figure(member: Member, figure_id: UUID, times: float) -> Version:
    """Every length of the newest version × `times`, as it is now. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, "another size", field="times") as edit:
        if not SMALLEST <= times <= LARGEST:
            raise Refusal(f"Choose a size between {SMALLEST:g} and {LARGEST:g} times.", "times")
        version = edit.version
        scaled = scaled_parts(edit.parts, times, edit.studio.habits.get(LOOSE_END, 0.0))
        try:
            placed(scaled)
        except BadInput as fault:
            raise Refusal(f"At that size a part {fault.what}.", "times") from None
        keep_scaled(version, scaled, times)
        edit.reload()
    return version
