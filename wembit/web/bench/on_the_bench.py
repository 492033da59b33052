"""What stands on the bench: figures in hand, those that wait to be begun, those finished lately, all to one scale."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.few import Few, few
from wembit.web.figures.drawing.layout import Picture
from wembit.web.figures.queries import palettes, parts_of_many
from wembit.web.figures.to_core.scaling import at_scale
from wembit.web.stash.queries import colours

from . import queries
from .making_picture import Standing, finished, own_palette, side_of, standing, waiting, weighed

if TYPE_CHECKING:
    from wembit.web.plan.models import Project
    from wembit.web.studio.models import Studio

    from .models import Drying, Making
    from .queries import MakingLine

WIDEST_PX, HIGHEST_PX = 420.0, 300.0  # a figure larger than that is drawn smaller


@dataclass(frozen=True)
class Stand:
    """Something on the bench with its drawing, `share` of a pixel a mm."""

    what: MakingLine | Project | Making
    side: Picture
    standing: list[Standing]
    weighed: tuple[int, int] = (0, 0)
    share: float = 1.0
    tip: bool = False  # of a needle is in it
    dryings: Sequence[Drying] = ()

    @property
    def wide_px(self) -> float:
        return round(self.side.width * self.share * self._smaller, 1)

    @property
    def high_px(self) -> float:
        return round(self.side.height * self.share * self._smaller, 1)

    @property
    def _smaller(self) -> float:
        return min(1.0, WIDEST_PX / self.side.width, HIGHEST_PX / self.side.height)


def on_the_bench(studio: Studio, lines: Sequence[MakingLine]) -> list[Stand]:
    """What is in hand, as far as it is."""
    layers = [layer.layer.item_id for line in lines for piece in line.pieces for layer in piece.layers]
    seen = colours(studio, set(layers))
    ways = [line.making.colourway for line in lines]
    dyed, parts = palettes(studio, ways), parts_of_many([way.version for way in ways])
    wet = [drying for drying in queries.dryings_of([line.making.pk for line in lines]) if not drying.dry]
    found = []
    for line, way in zip(lines, ways, strict=True):
        scaled = at_scale(way.version, parts[way.version_id], line.making.scale)
        side = side_of(way, scaled, own_palette(line, dyed[way.pk], seen))
        dryings = [drying for drying in wet if drying.making_id == line.making.pk]
        found.append(Stand(line, side, standing(line, side, seen), weighed(line), dryings=dryings))
    return found


@dataclass(frozen=True)
class Around:
    """What waits to be begun, by the day on which it is, dotted; what was finished last, small."""

    waiting: Few[Stand]
    finished: list[Stand]


def around(studio: Studio) -> Around:
    """What else stands on the bench. A bounded number of queries."""
    projects: Few[Project] = few(queries.to_begin(studio))
    makings = queries.finished_lately(studio)
    ways = [project.colourway for project in projects] + [making.colourway for making in makings]
    dyed, parts = palettes(studio, ways), parts_of_many([way.version for way in ways])
    sizes = [project.size_of(queries.next_number(project)) for project in projects] + [
        making.scale for making in makings
    ]
    sides = iter(
        side_of(way, at_scale(way.version, parts[way.version_id], size), dyed[way.pk])
        for way, size in zip(ways, sizes, strict=True)
    )
    begun = [Stand(project, side, waiting(side)) for project, side in zip(projects, sides, strict=False)]
    tips = queries.tips_in([making.pk for making in makings])
    done = [
        Stand(making, side, finished(side), share=0.4, tip=making.pk in tips)
        for making, side in zip(makings, sides, strict=True)
    ]
    return Around(Few(begun, projects.more), done)
