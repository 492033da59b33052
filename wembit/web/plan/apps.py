"""The app plan: it keeps promises true after every entry of the ledger, and needs after every change of a figure or of what a
fibre looks like.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.apps import AppConfig

if TYPE_CHECKING:
    from wembit.web.figures.models import Version
    from wembit.web.studio.models import Studio


class PlanConfig(AppConfig):
    """What is planned, and from which bag it comes."""

    name = "wembit.web.plan"
    label = "plan"

    def ready(self) -> None:
        from wembit.web.figures.editing.door import figure_changed
        from wembit.web.stash.ledger import posted
        from wembit.web.stash.looks import looks_told

        posted.connect(keep_promises, dispatch_uid="plan.keep_promises")
        figure_changed.connect(keep_needs, dispatch_uid="plan.keep_needs")
        looks_told.connect(follow_told_looks, dispatch_uid="plan.follow_told_looks")


def keep_promises(sender: Any, entry: Any, items: Any, **_: Any) -> None:
    """After an entry of the ledger the promises of its items are made true again."""
    from .actions.reserve import reserve

    reserve(entry.studio, items)


def keep_needs(sender: Any, version: Version, **_: Any) -> None:
    """After a change of a figure the needs of what is planned follow."""
    from .actions.follow_figure import follow_figure

    follow_figure(version)


def follow_told_looks(sender: Any, studio: Studio, items: Any, **_: Any) -> None:
    """After a fibre's colour, breed or form is told the needs of what is planned in it follow."""
    from .actions.follow_looks import follow_looks

    follow_looks(studio, items)
