"""Begin a figure."""

from __future__ import annotations

from django.db import IntegrityError, transaction

from wembit.web.errors import Refusal
from wembit.web.figures.models import Colourway, Figure, Slot, Version
from wembit.web.studio.models import MAKER, Member

FIRST_SLOTS = ("core", "main")


@transaction.atomic
def make_figure(member: Member, name: str, *, story: str = "") -> Figure:
    """A figure with an empty first version, two slots and a colourway. Raises `Refusal` for a name that is taken."""
    member.must_be(MAKER)
    name = " ".join(name.split())
    if not name:
        raise Refusal("Give the figure a name.", "name")
    try:
        with transaction.atomic():
            figure = Figure.objects.create(studio=member.studio, name=name, story=story)
    except IntegrityError:
        raise Refusal(f"There is a {name} already. Choose another name.", "name") from None
    version = Version.objects.create(studio=member.studio, figure=figure)
    for position, slot in enumerate(FIRST_SLOTS):
        Slot.objects.create(studio=member.studio, version=version, name=slot, position=position)
    Colourway.objects.create(studio=member.studio, version=version)
    return figure
