"""A wool laid on the animal by touch: the wools to take up, and which place of the colours was touched."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.core.colour.conversions import chroma_hue, lab
from wembit.core.colour.map_place import is_muted
from wembit.web.stash.queries import colours, fibres_free

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.figures.models import Layer, Part
    from wembit.web.figures.to_core.estimating import Palette
    from wembit.web.studio.models import Studio

OUTERMOST = ("detail", "coat", "cover", "core", "weighed")


@dataclass(frozen=True)
class WoolInHand:
    """A wool of the shelf that has a colour."""

    pk: UUID
    name: str
    srgb: str


def wools_to_lay_on(studio: Studio) -> list[WoolInHand]:
    """The fibres with a colour: those with hardly a hue from light to dark, then round the hues."""
    return studio.cached_until_change("wools-to-lay-on", lambda: _wools(studio))


def _wools(studio: Studio) -> list[WoolInHand]:
    fibres = fibres_free(studio)
    seen = colours(studio, (fibre.pk for fibre in fibres))
    rows = [WoolInHand(fibre.pk, fibre.name, seen[fibre.pk]) for fibre in fibres if fibre.pk in seen]
    return sorted(rows, key=lambda each: (*_by_hue(each.srgb), each.name))


def _by_hue(srgb: str) -> tuple[bool, float]:
    light, a, b = seen = lab(srgb)
    return (False, -light) if is_muted(seen) else (True, chroma_hue(a, b)[1])


def place_touched(parts: Sequence[Part], palette: Palette, key: str, srgb: str) -> str:
    """The name of the place in the colours that is seen in this colour on a part, of several the outermost; where none is,
    what the part is covered with or made of. Empty where the part has no wool.
    """
    part = next((each for each in parts if each.key == key), None)
    layers = sorted(part.layers.all(), key=_inwards) if part else []
    seen = [layer for layer in layers if palette.colour(layer.slot_id).lower() == srgb.lower()]
    ground = [layer for layer in layers if layer.role in ("cover", "core", "weighed")] or layers
    chosen = (seen or ground)[:1]
    return chosen[0].slot.name if chosen else ""


def _inwards(layer: Layer) -> int:
    return OUTERMOST.index(layer.role) if layer.role in OUTERMOST else len(OUTERMOST)
