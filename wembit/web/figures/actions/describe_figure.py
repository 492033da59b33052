"""Name a figure, tell its story, give it a picture."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.db import IntegrityError, transaction

from wembit.web.errors import Refusal
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import figure_of
from wembit.web.studio.models import MAKER, Member

if TYPE_CHECKING:
    from django.core.files.base import ContentFile


@transaction.atomic
def describe_figure(
    member: Member, figure_id: UUID, *, name: str, story: str = "", photo: ContentFile | None = None
) -> Figure:
    """Keep name, story and, when given, the picture. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    figure.name, figure.story = " ".join(name.split()), story
    if not figure.name:
        raise Refusal("Give the figure a name.", "name")
    if photo:
        figure.photo = photo
    try:
        with transaction.atomic():
            figure.save()
    except IntegrityError:
        raise Refusal(f"There is a {figure.name} already. Choose another name.", "name") from None
    return figure
