"""A version × so many times: parts, layers, fittings and kept faces."""

from __future__ import annotations

from collections.abc import Sequence

from wembit.core.grams.scaling import scaled_fitting, scaled_seat
from wembit.web.figures.models import Part, Version


def keep_scaled(version: Version, scaled: Sequence[Part], times: float) -> None:
    """Store the parts as they come out of `scaled_parts`, and what else of the version has lengths."""
    for part in scaled:
        part.save()
        for layer in part.layers.all():
            layer.save(update_fields=["rule"])
    scale_the_rest(version, times)
    version.save(update_fields=["notions", "faces"])


def scale_the_rest(version: Version, times: float) -> None:
    """What of a version itself has lengths, so many times as long; not stored."""
    version.notions = [scaled_fitting(kept, times) for kept in version.notions]
    version.faces = [
        {**face, "seats": {key: scaled_seat(seat, times) for key, seat in face["seats"].items()}}
        for face in version.faces
    ]
