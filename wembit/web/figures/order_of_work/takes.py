"""In which order a figure takes its wool: the bench asks for it as the order of work does."""

from __future__ import annotations

import json

from wembit.web.caches import by_content
from wembit.web.figures.models import Colourway, Version
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure

from .order import order_of, school_of

Takes = dict[tuple[str, str], int]


def takes_of(version: Version, way: Colourway) -> Takes:
    """For each part and role of a frozen version the number of the step that takes its wool; kept while nobody changes the
    order or works another way.
    """
    mark = json.dumps([school_of(version), version.order], sort_keys=True)
    return by_content.get_or_make(("takes", version.pk, way.pk), mark, lambda: _worked_out(version, way))


def _worked_out(version: Version, way: Colourway) -> Takes:
    parts = parts_of(version)
    found: Takes = {}
    for line in order_of(version, parts, plan_figure(version, parts, Palette.of(way))):
        for part in line.step.parts:
            for wool in line.step.wools:
                found.setdefault((part, wool.role), line.number)
    return found
