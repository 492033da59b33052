"""Whether the step in hand is out of turn: what it waits for though its wool is not taken yet."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from wembit.web.figures.order_of_work.order import Line

    from .queries import MakingLine

MOST_SAID = 3


def untaken(line: MakingLine) -> set[int]:
    """The numbers of the steps for which wool is still to be taken."""
    return {line.step_of(piece.piece, layer.layer) for piece in line.pieces for layer in piece.layers if not layer.done}


def before_its_turn(line: MakingLine, step: Line | None, steps: Sequence[Line]) -> list[tuple[int, str, str]]:
    """Number and title of each step that this one waits for though its wool is not taken, with the reason; a few."""
    if step is None:
        return []
    open_steps, titles = untaken(line), {other.number: other.step.title for other in steps}
    waits = [(number, titles[number], why) for number, why in step.whys if number in open_steps and number in titles]
    return waits[:MOST_SAID]
