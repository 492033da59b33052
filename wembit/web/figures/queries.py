"""Figures as the screens show them."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import count
from typing import TYPE_CHECKING
from uuid import UUID

from django.db.models import Exists, OuterRef, Prefetch, QuerySet, Subquery
from django.db.models.functions import Coalesce
from django.http import Http404
from django.shortcuts import get_object_or_404

from wembit.web.figures.to_core.estimating import Palette
from wembit.web.stash.queries import colours
from wembit.web.studio.models import Deed

from .models import Choice, Colourway, Figure, Layer, Part, Version

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Studio


def figure_count(studio: Studio, words: str = "") -> int:
    """How many designs there are, or how many whose names hold all of the words."""
    return _named(studio, words).count()


def figures(studio: Studio, words: str = "", start: int = 0, most: int | None = None) -> list[Figure]:
    """Figures, by name, whose names hold all of the words, with `newest` version and its parts: at most so many from `start`
    on. A bounded number of queries.
    """
    named = _named(studio, words)
    return _with_newest(named[start : None if most is None else start + most])


def _with_newest(figures_: QuerySet[Figure]) -> list[Figure]:
    newer = Version.objects.filter(figure=OuterRef("figure"), number__gt=OuterRef("number"))
    # a slot is read once, whoever names it
    layers = Layer.objects.order_by("position").prefetch_related("slot", "over")
    parts = Part.objects.order_by("position", "name").prefetch_related(Prefetch("layers", queryset=layers))
    ways = Colourway.objects.order_by("position", "name")
    versions = (
        Version.objects.filter(~Exists(newer))
        .select_related("studio")
        .prefetch_related(Prefetch("parts", queryset=parts), Prefetch("colourways", queryset=ways))
    )
    rows = list(figures_.prefetch_related(Prefetch("versions", queryset=versions)))
    for figure in rows:
        figure.newest = next(iter(figure.versions.all()), None)
    return rows


def _parts() -> QuerySet[Part]:
    layers = Layer.objects.select_related("slot", "over").order_by("position")
    return Part.objects.order_by("position", "name").prefetch_related(Prefetch("layers", queryset=layers))


def figures_named(studio: Studio, words: str) -> list[Figure]:
    """Figures whose names hold all of the words."""
    return list(_named(studio, words))


def changed_last(studio: Studio, most: int) -> list[Figure]:
    """The figures that were begun or changed last, the newest first."""
    deeds = Deed.objects.of(studio).filter(kind=Deed.FIGURE, thing=OuterRef("pk"))
    changes = deeds.order_by("-made_at").values("made_at")[:1]
    figures = Figure.objects.of(studio).annotate(changed=Coalesce(Subquery(changes), "made_at"))
    return list(figures.order_by("-changed", "name")[:most])


def _named(studio: Studio, words: str) -> QuerySet[Figure]:
    named = Figure.objects.of(studio)
    for word in words.split():
        named = named.filter(name__icontains=word)
    return named


def free_name(studio: Studio, name: str) -> str:
    """The name, with a number behind it where the studio has a figure of that name."""
    return numbered(name, Figure.objects.of(studio).values_list("name", flat=True), 75)


def numbered(name: str, others: Iterable[str], most: int) -> str:
    """The name, with a number behind its first `most` letters where another one is called so."""
    taken = {other.lower() for other in others}
    names = (name if number == 1 else f"{name[:most]} {number}" for number in count(1))
    return next(each for each in names if each.lower() not in taken)


def figure_of(studio: Studio, figure_id: UUID) -> Figure:
    """This studio's figure. Raises `Http404`."""
    return get_object_or_404(Figure.objects.of(studio), pk=figure_id)


def newest_version(figure: Figure) -> Version:
    """A figure's newest version; every figure has one."""
    return figure.versions.select_related("studio").order_by("-number")[0]


def parts_of(version: Version) -> list[Part]:
    """Parts in order, with their layers and slots."""
    return list(_parts().filter(version=version))


def parts_of_many(versions: Iterable[Version]) -> dict[UUID, list[Part]]:
    """The parts of each version as `parts_of` gives them, all in as many queries as one's."""
    found: dict[UUID, list[Part]] = {version.pk: [] for version in versions}
    for part in _parts().filter(version__in=list(found)):
        found[part.version_id].append(part)
    return found


def part_of(version: Version, key: str) -> Part:
    """The version's part with that key, with its layers. Raises `Http404`."""
    return part_among(_parts().filter(version=version, key=key), key)


def part_among(parts: Iterable[Part], key: str) -> Part:
    """The part with that key. Raises `Http404`."""
    for part in parts:
        if part.key == key:
            return part
    raise Http404


def colourway_of(version: Version) -> Colourway | None:
    """The version's first colourway."""
    return version.colourways.select_related("studio").order_by("position", "name").first()


def versions_of(figure: Figure) -> list[Version]:
    """All versions of a figure, the newest first, each with its first colourway's palette to be asked for."""
    return list(figure.versions.select_related("studio", "figure").order_by("-number"))


def version_of(studio: Studio, version_id: UUID) -> Version:
    """This studio's version with its figure. Raises `Http404`."""
    return get_object_or_404(Version.objects.of(studio).select_related("studio", "figure"), pk=version_id)


def colourways(studio: Studio) -> list[Colourway]:
    """The colourways that can be planned: those of each figure's newest version."""
    rows = (
        Colourway.objects.of(studio)
        .select_related("version__figure")
        .order_by("version__figure__name", "position", "name")
    )
    newest: dict[UUID, int] = {}
    for row in rows:
        figure = row.version.figure_id
        newest[figure] = max(newest.get(figure, 0), row.version.number)
    return [row for row in rows if row.version.number == newest[row.version.figure_id]]


def colourways_of(studio: Studio, ids: Iterable[UUID]) -> list[Colourway]:
    """This studio's colourways of those ids, with version and figure."""
    rows = Colourway.objects.of(studio).filter(pk__in=set(ids))
    return list(rows.select_related("studio", "version__figure", "version__studio"))


def palettes(studio: Studio, ways: list[Colourway]) -> dict:
    """The palettes of many colourways in two queries, by colourway."""
    choices = list(
        Choice.objects.filter(colourway__in=ways).select_related("item__own_breed").order_by("slot__position", "pk")
    )
    seen = colours(studio, {choice.item_id for choice in choices})
    found = {}
    for way in ways:
        mine = [choice for choice in choices if choice.colourway_id == way.pk]
        found[way.pk] = Palette.dyed(way, {choice.slot_id: choice.item for choice in mine}, seen)
    return found


def ways_with(studio: Studio, item: Item) -> list[Colourway]:
    """The colourways of newest versions in which a fibre is chosen."""
    chosen = set(Choice.objects.of(studio).filter(item=item).values_list("colourway", flat=True))
    return [way for way in colourways(studio) if way.pk in chosen]
