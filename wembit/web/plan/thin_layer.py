"""A thin layer of another wool under a cover: it hides the ground, so that less of the cover does."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from wembit.core.colour.show_through import cover, hiding_power
from wembit.web.figures.estimating import Palette, plan_figure
from wembit.web.figures.queries import parts_of

from .models import Project


@dataclass(frozen=True)
class Cover:
    """One cover of a figure: its middle grams, its weight per area, and the colour of the ground under it."""

    grams: float
    g_m2: float
    ground: str


@dataclass(frozen=True)
class ThinLayer:
    """What a layer under all covers of a wool does in one figure, in g."""

    whole: float
    saved: float
    taken: float

    @property
    def remains(self) -> float:
        """The share of the covering wool that is still needed."""
        return 1 - self.saved / self.whole if self.whole else 1.0

    @property
    def ratio(self) -> float:
        """Grams of the layer for each of the cover that it saves."""
        return self.taken / self.saved if self.saved else 0.0


def covers_of(project: Project, item_id) -> list[Cover]:
    """The covers of that wool in the project's figure."""
    way = project.colourway
    palette = Palette.of(way)
    return [
        Cover(layer.grams.middle, layer.grams.cover_g_m2, palette.colour(layer.layer.over_id))
        for layer in plan_figure(way.version, parts_of(way.version), palette).layers()
        if layer.item and layer.item.pk == item_id and layer.layer.role == "cover" and layer.grams.cover_g_m2
    ]


def laid_under(covers: Sequence[Cover], old: tuple[str, float], new: tuple[str, float]) -> ThinLayer:
    """What a layer of the new wool under covers of the old saves and takes; both as sRGB and fibre diameter in µm."""
    (seen, micron), (under, other_micron) = old, new
    saved = taken = 0.0
    if covers:
        thinner = cover(seen, under, micron, hiding_power(seen)).g_m2
        for each in covers:
            saved += each.grams * max(0.0, 1 - thinner / each.g_m2)
            taken += each.grams / each.g_m2 * cover(under, each.ground, other_micron, hiding_power(under)).g_m2
    return ThinLayer(sum(each.grams for each in covers), saved, taken)
