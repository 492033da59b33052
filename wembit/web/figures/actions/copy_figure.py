"""Copy a figure."""

from __future__ import annotations

from uuid import UUID

from django.db import IntegrityError, transaction

from wembit.web.errors import Refusal
from wembit.web.figures.editing.versions import copy_version
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import figure_of, newest_version
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def copy_figure(member: Member, figure_id: UUID, name: str) -> Figure:
    """A new figure with the newest version's parts and colourways. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    name = " ".join(name.split())
    if not name:
        raise Refusal("Give the copy a name.", "name")
    try:
        with transaction.atomic():
            copy = Figure.objects.create(studio=member.studio, name=name, story=figure.story, origin=figure.origin)
    except IntegrityError:
        raise Refusal(f"There is a {name} already. Choose another name.", "name") from None
    copy_version(newest_version(figure), copy, 1)
    return copy
