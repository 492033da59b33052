"""Take a fitting off a figure."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.models import Version
from wembit.web.figures.queries import figure_of, newest_version
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def drop_fitting(member: Member, figure_id: UUID, fitting_id: str) -> Version:
    """The newest version without that fitting. Raises `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    version.notions = [each for each in version.notions if each["id"] != fitting_id]
    version.save(update_fields=["notions"])
    return version
