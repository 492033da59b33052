"""Parts that are fixed by their wool keep it when the studio's hands are known better."""

from __future__ import annotations

from contextlib import suppress

from django.db import transaction

from wembit.core.grams.relations import WOOL
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import Editing, leave, lock_figure
from wembit.web.figures.models import Part
from wembit.web.studio.models import Studio


def follow_weights(studio: Studio) -> None:
    """In every version that can still be changed, parts fixed by their grams grow or shrink until they take them again."""
    rows = Part.objects.of(studio).filter(version__frozen_at=None).exclude(relations=[]).select_related("version")
    by_wool = {part.version for part in rows if any(relation["size"] == WOOL for relation in part.relations)}
    for version in by_wool:
        with suppress(Refusal), transaction.atomic():  # one that cannot be held says so on its own page
            lock_figure(studio, version.figure_id)
            version.studio = studio
            leave(Editing(version), [])
