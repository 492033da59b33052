"""Finding anything of a studio by a few letters: lots, figures, projects."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.urls import reverse

from wembit.web.figures.queries import figures_named
from wembit.web.plan.queries import projects_named
from wembit.web.stash.queries import ShelfFilters, shelf

if TYPE_CHECKING:
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
    """The first few of each kind whose name or description holds every word."""
    if not words.strip():
        return []
    lots = [
        Found(lot.item.name, lot.item.what, reverse("stash:lot", args=[studio.slug, lot.pk]), lot.srgb)
        for lot in shelf(studio, ShelfFilters(words=words), "breed", 0, MOST)[0]
    ]
    figures = [
        Found(figure.name, "figure", reverse("figures:figure", args=[studio.slug, figure.pk]))
        for figure in figures_named(studio, words)[:MOST]
    ]
    projects = [
        Found(project.name, "project", reverse("plan:project", args=[studio.slug, project.pk]))
        for project in projects_named(studio, words)[:MOST]
    ]
    return lots + figures + projects
