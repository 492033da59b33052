"""The parts of a version × so many times, not stored: what they would be, or what they are about to become."""

from __future__ import annotations

import copy
from collections.abc import Sequence

from wembit.core.grams.scaling import scaled_armature, scaled_rule, scaled_seat, scaled_shape
from wembit.web.figures.models import Layer, Part, Version

from .estimating import LOOSE_END


def at_scale(version: Version, parts: Sequence[Part], times: float) -> Sequence[Part]:
    """The parts as they would be at that scale, by the habits of the version's studio."""
    return parts if times == 1 else scaled_parts(parts, times, version.studio.habits.get(LOOSE_END, 0.0))


def scaled_parts(parts: Sequence[Part], times: float, loose_end_mm: float = 0.0) -> list[Part]:
    """Copies of the parts, each with its layers; `loose_end_mm`: the studio's habit, which those without an own one follow."""
    return [_scaled(part, times, loose_end_mm) for part in parts]


def _scaled(part: Part, times: float, habit: float) -> Part:
    scaled = copy.copy(part)
    scaled.shape, scaled.seat = scaled_shape(part.shape, times), scaled_seat(part.seat, times)
    scaled.armature = scaled_armature(part.armature, times)
    end = habit if part.loose_end_mm is None else part.loose_end_mm
    scaled.loose_end_mm = end * times if end else part.loose_end_mm
    layers = []
    for layer in part.layers.all():
        layers.append(copy.copy(layer))
        layers[-1].rule = scaled_rule(layer.role, layer.rule, times)
    kept = Layer.objects.none()
    kept._result_cache = layers
    scaled._prefetched_objects_cache = {"layers": kept}  # type: ignore[attr-defined]
    return scaled
