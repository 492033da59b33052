"""What there is to do today, each with the place where it is done."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web import clock
from wembit.web.bench.making_picture import own_palette, side_of, standing
from wembit.web.bench.on_the_bench import Stand
from wembit.web.bench.queries import makings, makings_in_hand, parts_of_making
from wembit.web.few import few
from wembit.web.figures.queries import palettes
from wembit.web.plan.queries import first_without, shorts_by_project
from wembit.web.stash.queries import colours, first_entry_at, low_items

from .fortnight import DAYS, ahead

if TYPE_CHECKING:
    from wembit.web.bench.queries import LayerLine, MakingLine
    from wembit.web.studio.models import Studio

BACKUP_DAYS = 7
IN_HAND = 3  # makings shown
WIDEST_PX, HIGHEST_PX = 320.0, 340.0  # of the figure in hand, which is a px a mm where it fits


@dataclass(frozen=True)
class InHand(Stand):
    """The figure in hand, its next piece ringed."""

    @property
    def _smaller(self) -> float:
        return min(1.0, WIDEST_PX / self.side.width, HIGHEST_PX / self.side.height)


def things_now(studio: Studio) -> dict:
    """`things_to_do`, kept until the next press or the next day."""
    return studio.cached_until_change(f"today:{clock.today(studio)}", lambda: things_to_do(studio))


def days_without_backup(studio: Studio) -> int:
    """Days since the last backup, or since the first entry where none was made; 0 while that is no week."""
    first = studio.backed_up_at or first_entry_at(studio)
    days = (clock.now() - first).days if first else 0
    return days if days >= BACKUP_DAYS else 0


def things_to_do(studio: Studio) -> dict:
    """What is in hand, the fortnight, what is low."""
    today = clock.today(studio)
    in_hand = makings(studio, 0, IN_HAND)
    return {
        "hand": _in_hand(studio, in_hand[0]) if in_hand else None,
        "makings": in_hand,
        "more_in_hand": max(makings_in_hand(studio) - IN_HAND, 0),
        "ahead": ahead(studio, today),
        "days": range(DAYS),
        "startable": None if in_hand else first_without(studio, shorts_by_project(studio)),
        "low": few(low_items(studio)),
        "unsaved_days": days_without_backup(studio),
    }


def _in_hand(studio: Studio, line: MakingLine) -> InHand:
    """The making's figure as far as it is."""
    way = line.making.colourway
    layers = [layer.layer.item_id for piece in line.pieces for layer in piece.layers]
    seen = colours(studio, set(layers))
    palette = own_palette(line, palettes(studio, [way])[way.pk], seen)
    side = side_of(way, parts_of_making(line.making), palette)
    following: LayerLine | None = line.next
    here = following.layer.piece_id if following else None
    return InHand(line, side, standing(line, side, seen, here))
