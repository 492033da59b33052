"""The one door to a figure that is changed.

    with editing(member, figure_id) as edit:
        edit.part(key).count = 2

checks the role, locks the figure, gives the version that may be changed (the next one where a making has frozen it) with
its parts and layers read once; on leaving it keeps the changed parts, works out the sizes that follow others, checks what
was changed with the core, tells who depends on the figure, and writes a deed that can be taken back. All of it is one
transaction: a refusal changes nothing.
"""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cached_property
from uuid import UUID

from django.db import transaction
from django.dispatch import Signal
from django.http import Http404
from django.shortcuts import get_object_or_404

from wembit.core.errors import BadInput
from wembit.core.grams.estimate import estimate
from wembit.web.errors import refusal_of
from wembit.web.figures.models import PART_FIELDS, Colourway, Figure, Layer, Part, Version
from wembit.web.figures.queries import colourway_of, newest_version, part_among, parts_of
from wembit.web.figures.to_core.estimating import Palette, request_of
from wembit.web.figures.to_core.seating import placed
from wembit.web.studio.deeds import keep_deed
from wembit.web.studio.models import MAKER, Deed, Member, Studio

from .following import follow
from .meanwhile import ask_first
from .skins import Skins
from .snapshots import changed, rows_of
from .versions import copy_version

figure_changed = Signal()  # inside the transaction, with the version; plan/apps.py listens: what is planned follows


class Editing:
    """A version that may be changed, with its parts in order, their layers and slots."""

    words = ""

    def __init__(self, version: Version) -> None:
        self.version = version
        self.parts = parts_of(version)
        self.skins = Skins(self.parts)

    @property
    def studio(self) -> Studio:
        return self.version.studio

    @cached_property
    def colourway(self) -> Colourway | None:
        """The version's first colourway."""
        return colourway_of(self.version)

    def way(self, name: str) -> Colourway:
        """The colourway of that name; the first one without a name. Raises `Http404`."""
        colourway = get_object_or_404(self.version.colourways, name=name) if name else self.colourway
        if colourway is None:
            raise Http404
        return colourway

    def part(self, key: str) -> Part:
        """The part with that key. Raises `Http404`."""
        return part_among(self.parts, key)

    def layers(self, key: str, position: int | None = None) -> list[Layer]:
        """A part's layers in order. Raises `Http404` for a part, or a position, that is not there."""
        layers = list(self.part(key).layers.all())
        if position is not None and position >= len(layers):
            raise Http404
        return layers

    def reload(self) -> None:
        """Read the parts again, after parts or layers were made or deleted."""
        self.parts = parts_of(self.version)


def lock_figure(studio: Studio, figure_id: UUID) -> Figure:
    """The figure, locked against other changes until the transaction ends. Figures are locked before projects, projects
    before items. Raises `Http404`.
    """
    return get_object_or_404(Figure.objects.of(studio).locked(), pk=figure_id)


@contextmanager
def editing(
    member: Member,
    figure_id: UUID,
    words: str = "changed",
    *,
    field: str | None = None,
    drawn_at: dt.datetime | None = None,
) -> Iterator[Editing]:
    """A figure for changing; see above. `words` say in the journal what was done, unless `edit.words` say it better. What the
    core refuses stands beside `field`, else beside the field that it names. What another maker has changed since the page was
    drawn is asked about.

    Raises `Refusal`, `PermissionDenied`, `Http404`.
    """
    member.must_be(MAKER)
    with transaction.atomic():
        figure = lock_figure(member.studio, figure_id)
        version = newest_version(figure)
        if version.frozen_at is not None:
            version = copy_version(version, figure, version.number + 1)
        edit = Editing(version)
        edit.words = words
        rows = rows_of(version)
        before = {part.key: _state(part) for part in edit.parts}
        yield edit
        touched = [part for part in edit.parts if _state(part) != before.get(part.key)]
        for part in touched:
            part.save()
        leave(edit, touched, field)
        if differ := changed(rows, rows_of(version)):
            if drawn_at:
                ask_first(member, figure_id, drawn_at, differ)
            told = f"{figure.name}: {edit.words}"
            keep_deed(member, told, Deed.FIGURE, figure.pk, version=version.pk, rows=differ)


def leave(edit: Editing, touched: list[Part], field: str | None = None) -> None:
    """Within the caller's transaction: what every change of a version brings along. Raises `Refusal`."""
    version, parts = edit.version, edit.parts
    names = {part.key: part.name for part in parts}
    try:
        if touched:
            placed(parts)
        edit.skins.grow(parts)
        follow(version, parts)
        if edit.skins.grow(parts):
            follow(version, parts)  # what takes a share of their wool
        if touched:
            request = request_of(version, parts, Palette({}, {}))
            estimate(
                {
                    **request,
                    "parts": [row for part, row in zip(parts, request["parts"], strict=True) if part in touched],
                }
            )
    except BadInput as fault:
        raise refusal_of(fault, field, names) from None
    figure_changed.send(sender=Version, version=version)


def _state(part: Part) -> str:
    """All of a part that its shape, place and grams hang on."""
    layers = [(layer.role, str(layer.slot_id), str(layer.over_id), layer.rule) for layer in part.layers.all()]
    return json.dumps([[getattr(part, name) for name in PART_FIELDS], layers])
