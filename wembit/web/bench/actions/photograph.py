"""Keep a picture of a making."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import Making
from wembit.web.bench.queries import making_of
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member

if TYPE_CHECKING:
    from django.core.files.base import ContentFile


@transaction.atomic
def photograph(member: Member, making_id: UUID, photo: ContentFile | None) -> Making:
    """The making's picture from now on, in hand or finished. Raises `Refusal` without one, `Http404`."""
    member.must_be(MAKER)
    making = making_of(member.studio, making_id).making
    if not photo:
        raise Refusal("Choose a picture first.", "photo")
    making.photo = photo
    making.save(update_fields=["photo"])
    return making
