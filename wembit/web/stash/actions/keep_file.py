"""Keep a table that is to be taken in, so that it can be looked at first."""

from __future__ import annotations

import uuid

from django.core.files.base import ContentFile
from django.db import transaction

from wembit.web.stash.models import StashFile
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def keep_file(member: Member, name: str, raw: bytes, total: int) -> StashFile:
    """The file as it came, with the number of its rows; nothing of it is on the shelf yet."""
    member.must_be(MAKER)
    content = ContentFile(raw, name=f"{member.studio_id}/{uuid.uuid4().hex}.csv")
    return StashFile.objects.create(studio=member.studio, file=content, name=name[:120], by=member, total=total)
