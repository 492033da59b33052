"""Pictures and tables on the disk, and which of them nothing names any more."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

from django.apps import apps
from django.conf import settings
from django.db import models

from wembit.web import clock

from .models import Studio

WANTED_BACK_DAYS = 7  # a dropped picture may be taken back on the day; its file stays a while longer


def named() -> set[str]:
    """The names of all files that a row of any table names."""
    names: set[str] = set()
    for model in apps.get_models():
        for field in model._meta.get_fields():
            if isinstance(field, models.FileField):
                rows = model._default_manager.exclude(**{field.name: ""}).values_list(field.name, flat=True)
                names.update(rows.iterator())
    return names


def sweep() -> int:
    """Delete the files in the folders of this house's studios that nothing names and that have lain for a week. How many.

    What else lies in the folder of pictures is not the house's, and stays.
    """
    folder, before = Path(settings.MEDIA_ROOT), clock.now() - dt.timedelta(days=WANTED_BACK_DAYS)
    kept, swept = named(), 0
    for path in (path for studio in Studio.objects.all() for path in (folder / str(studio.pk)).rglob("*")):
        old = path.is_file() and dt.datetime.fromtimestamp(path.stat().st_mtime, dt.UTC) < before
        if old and path.relative_to(folder).as_posix() not in kept:
            path.unlink()
            swept += 1
    return swept
