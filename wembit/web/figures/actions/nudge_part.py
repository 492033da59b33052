"""Push a part over the skin it sits on, deeper into it, or turn it."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from wembit.core.errors import BadInput
from wembit.core.pose.nudging import nudged, sunk
from wembit.web.errors import refusal_of
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Part
from wembit.web.figures.to_core.seating import placed, placed_part
from wembit.web.studio.models import Member

MOST_MM, MOST_DEGREES = 2000.0, 360.0


@dataclass(frozen=True)
class Push:
    """Millimetres to the right and up in a view, by which of a pair; millimetres deeper; degrees up and round."""

    view: str = "side"
    right_mm: float = 0.0
    up_mm: float = 0.0
    mirror: int = 1
    deeper_mm: float = 0.0
    pitch: float = 0.0
    yaw: float = 0.0


def nudge_part(member: Member, figure_id: UUID, key: str, push: Push) -> Part:
    """Keep where the part sits after a push; sizes are those of the figure as it is drawn. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, f"{key}, pushed", field="part") as edit:
        part = edit.part(key)
        try:
            pieces = placed(edit.parts)
        except BadInput as fault:
            raise refusal_of(fault, "part") from None
        seat = nudged(pieces, key, push.view, push.right_mm, push.up_mm, push.mirror)
        seat = sunk(seat, push.deeper_mm, placed_part(part).shape)
        kept = {**part.seat, "t": seat.t, "sink": seat.sink_mm}
        if seat.on is None:
            kept = {**part.seat, "centre_mm": seat.centre_mm}
        elif seat.angle is not None:
            kept["angle"] = seat.angle
        kept["pitch"] = _turned(part.seat.get("pitch", 0), push.pitch)
        kept["yaw"] = _turned(part.seat.get("yaw", 0), push.yaw)
        part.seat = kept
    return part


def _turned(now: float, by: float) -> float:
    return round((now + by + 180) % 360 - 180, 4)
