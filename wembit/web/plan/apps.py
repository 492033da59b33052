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
        from wembit.web.stash.ledger import posted, reversing
        from wembit.web.stash.looks import looks_told

        posted.connect(keep_promises, dispatch_uid="plan.keep_promises")
        reversing.connect(keep_blends, dispatch_uid="plan.keep_blends")
        figure_changed.connect(keep_needs, dispatch_uid="plan.keep_needs")
        looks_told.connect(follow_told_looks, dispatch_uid="plan.follow_told_looks")


def keep_promises(sender: Any, entry: Any, items: Any, **_: Any) -> None:
    """After an entry of the ledger the promises of its items are made true again."""
    from .actions.reserve import reserve

    reserve(entry.studio, items, locked=True)


def keep_blends(sender: Any, entry: Any, **_: Any) -> None:
    """A blend that was carded for a shortage stays while it stands in. Raises `Refusal`."""
    from wembit.web.errors import Refusal

    from .models import StandIn

    made = StandIn.objects.filter(studio=entry.studio, client_key=entry.client_key, taken_back_at=None).first()
    if made and entry.client_key:
        raise Refusal(f"{made.new.name} stands in for {made.old.name} by now. Take that back first.")


def keep_needs(sender: Any, version: Version, **_: Any) -> None:
    """After a change of a figure the needs of what is planned follow."""
    from .actions.follow_figure import follow_figure

    follow_figure(version)


def follow_told_looks(sender: Any, studio: Studio, items: Any, **_: Any) -> None:
    """After a fibre's colour, breed or form is told the needs of what is planned in it follow."""
    from .actions.follow_looks import follow_looks

    follow_looks(studio, items)
