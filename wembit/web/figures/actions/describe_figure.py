"""Name a figure, tell its story, set its size, give it a picture."""

from __future__ import annotations

from uuid import UUID

from django.db import IntegrityError, transaction

from wembit.web.figures.models import Figure
from wembit.web.figures.queries import figure_of, newest_version
from wembit.web.studio.models import MAKER, Member
from wembit.web.told import Told

from .thaw import thawed


@transaction.atomic
def describe_figure(
    member: Member, figure_id: UUID, *, name: str, story: str = "", scale: float | None = None, photo=None
) -> Figure:
    """Keep name, story, scale of the newest version and, when given, the picture. Raises `Told`, `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    figure.name, figure.story = " ".join(name.split()), story
    if not figure.name:
        raise Told("Give the figure a name.", "name")
    if photo:
        figure.photo = photo
    try:
        with transaction.atomic():
            figure.save()
    except IntegrityError:
        raise Told(f"There is a {figure.name} already. Choose another name.", "name") from None
    if scale is not None:
        if not 0.05 <= scale <= 20:
            raise Told("Choose a size between 0.05 and 20 times.", "scale")
        newest = newest_version(figure)
        if newest.scale != scale:
            version = thawed(newest)
            version.scale = scale
            version.save(update_fields=["scale"])
    return figure
