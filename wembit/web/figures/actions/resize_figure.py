"""Make a figure bigger or smaller."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.errors import BadInput
from wembit.core.grams.largest_scale import LARGEST, SMALLEST
from wembit.web.errors import Refusal
from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Version
from wembit.web.figures.queries import figure_of, newest_version, parts_of
from wembit.web.figures.to_core.seating import placed
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def resize_figure(member: Member, figure_id: UUID, scale: float) -> Version:
    """Every length of the newest version × `scale`, counted from its first size. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    if not SMALLEST <= scale <= LARGEST:
        raise Refusal(f"Choose a size between {SMALLEST:g} and {LARGEST:g} times.", "times")
    version = newest_version(figure_of(member.studio, figure_id))
    if version.scale == scale:
        return version
    version = thawed(version)
    version.scale = scale
    version.save(update_fields=["scale"])
    follow(version)
    try:
        placed(parts_of(version), scale)
    except BadInput as fault:
        raise Refusal(f"At that size a part {fault.what}.", "times") from None
    return version
