"""Begin a figure from a draft: a body plan, or another figure, in the proportions that were chosen."""

from __future__ import annotations

from collections.abc import Mapping

from django.db import IntegrityError, transaction

from wembit.core.errors import BadInput
from wembit.core.grams.estimate import estimate
from wembit.web.errors import Refusal
from wembit.web.figures.editing.following import follow
from wembit.web.figures.editing.versions import copy_colourways
from wembit.web.figures.models import Choice, Colourway, Figure, Layer, Part, Slot, Version
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.drafts import Draft
from wembit.web.figures.to_core.estimating import Palette, request_of
from wembit.web.figures.to_core.seating import placed
from wembit.web.stash.models import Item
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def begin_figure(
    member: Member,
    name: str,
    draft: Draft,
    items: Mapping[str, Item],
    colours: Mapping[str, str],
    like: Version | None = None,
) -> Figure:
    """The draft as a new figure of that name, with these fibres in its slots, the others as they are thought of; `like` a
    version that is there, in all its colourways.

    Raises `Refusal` for a name that is taken or missing, and for a draft that cannot be computed.
    """
    member.must_be(MAKER)
    name = " ".join(name.split())
    if not name:
        raise Refusal("Give the figure a name.", "name")
    figure, version = draft.version.figure, draft.version
    figure.name = name
    try:
        with transaction.atomic():
            figure.save(force_insert=True)
    except IntegrityError:
        raise Refusal(f"There is a {name} already. Choose another name.", "name") from None
    version.save(force_insert=True)
    Slot.objects.bulk_create(draft.slots.values())
    Part.objects.bulk_create(draft.parts)
    Layer.objects.bulk_create(draft.layers())
    if like:
        copy_colourways(like, version, draft.slots)
    else:
        thought = {str(draft.slots[slot].pk): srgb for slot, srgb in colours.items()}
        way = Colourway.objects.create(studio=member.studio, version=version, thought=thought)
        Choice.objects.bulk_create(
            Choice(studio=member.studio, colourway=way, slot=draft.slots[slot], item=item)
            for slot, item in items.items()
        )
    parts = parts_of(version)
    try:
        placed(parts)
        follow(version, parts)
        estimate(request_of(version, parts, Palette({}, {})))
    except BadInput as fault:
        raise Refusal(f"It cannot be made so: {fault.what}. Change its proportions.") from None
    return figure
