"""Finding anything of a studio by a few letters: lots, figures, projects; before a letter, what was touched last."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.urls import reverse

from wembit.web.figures.queries import changed_last, figures_named
from wembit.web.plan.queries import projects_named
from wembit.web.stash.queries import ShelfFilters, shelf, touched_last

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wembit.web.figures.models import Figure
    from wembit.web.stash.models import Lot
    from wembit.web.studio.models import Studio

MOST = 8


@dataclass(frozen=True)
class Found:
    """Something of the studio that a few letters have found."""

    name: str
    what: str
    url: str
    srgb: str = ""


def found(studio: Studio, words: str) -> list[Found]:
    """The first few of each kind whose name or description holds every word; without a word those that were touched last."""
    if not words.strip():
        lots, figures = _lots(studio, touched_last(studio, MOST)), _figures(studio, changed_last(studio, MOST))
        return lots + figures
    lots = _lots(studio, shelf(studio, ShelfFilters(words=words), "breed", 0, MOST)[0])
    figures = _figures(studio, figures_named(studio, words)[:MOST])
    projects = [
        Found(project.name, "project", reverse("plan:project", args=[studio.slug, project.pk]))
        for project in projects_named(studio, words)[:MOST]
    ]
    return lots + figures + projects


def _lots(studio: Studio, lots: Sequence[Lot]) -> list[Found]:
    return [
        Found(lot.item.name, lot.item.what, reverse("stash:lot", args=[studio.slug, lot.pk]), lot.srgb) for lot in lots
    ]


def _figures(studio: Studio, figures: Sequence[Figure]) -> list[Found]:
    return [
        Found(figure.name, "figure", reverse("figures:figure", args=[studio.slug, figure.pk])) for figure in figures
    ]
