"""What every table of a studio shares: a UUID, the studio, and querysets that never leave it."""

from __future__ import annotations

import uuid
from typing import TYPE_CHECKING, Self

from django.db import models

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


class OwnedQuerySet(models.QuerySet):
    """Rows that belong to a studio."""

    def of(self, studio: Studio) -> Self:
        """Only this studio's rows."""
        return self.filter(studio=studio)

    def locked(self) -> Self:
        """The rows locked against other writers, always in order of id so that two presses never wait in a ring."""
        return self.order_by("pk").select_for_update(of=("self",), no_key=True)


class Owned(models.Model):
    """A row that belongs to a studio, with a UUID."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    studio = models.ForeignKey("studio.Studio", on_delete=models.CASCADE, related_name="+", editable=False)

    objects = OwnedQuerySet.as_manager()

    class Meta:
        abstract = True
