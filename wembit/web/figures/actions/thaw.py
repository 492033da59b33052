"""The version that may be changed: a frozen one gives way to the next."""

from __future__ import annotations

from wembit.web.figures.models import Version

from .copy_figure import copy_version


def thawed(version: Version) -> Version:
    """The version itself while no making has begun with it, else a new one with the same parts."""
    newest = Version.objects.filter(figure=version.figure).order_by("-number").first()
    if newest.frozen_at is None:
        return newest
    return copy_version(newest, newest.figure, newest.number + 1)
