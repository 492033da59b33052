"""Keep a picture of one's own with a figure."""

from __future__ import annotations

from uuid import UUID

from django.core.files.base import ContentFile
from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.models import Reference
from wembit.web.figures.queries import figure_of
from wembit.web.limits import PICTURES
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def add_reference(member: Member, figure_id: UUID, image: ContentFile | None, *, words: str = "") -> Reference:
    """A cleaned picture as one of the figure's references. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    if image is None:
        raise Refusal("Choose a picture.", "photo")
    if figure.references.count() >= PICTURES:
        raise Refusal(f"A figure keeps at most {PICTURES} pictures. Take one away first.", "photo")
    return Reference.objects.create(
        studio=member.studio, figure=figure, image=image, words=" ".join(words.split())[:80]
    )
