"""The app bench: figures being made, piece by piece."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.apps import AppConfig

if TYPE_CHECKING:
    from wembit.web.plan.begun import Begun
    from wembit.web.plan.models import Project
    from wembit.web.stash.models import Entry
    from wembit.web.studio.models import Studio


class BenchConfig(AppConfig):
    """Figures being made; it tells the plan what is begun."""

    name = "wembit.web.bench"
    label = "bench"

    def ready(self) -> None:
        from wembit.web.plan.begun import tellers, worked_tellers
        from wembit.web.stash.ledger import posted, repeated
        from wembit.web.stash.looks import looks_told

        if told_begun not in tellers:
            tellers.append(told_begun)
            worked_tellers.append(told_worked)
        posted.connect(moved, dispatch_uid="bench.moved")
        repeated.connect(taken_again, dispatch_uid="bench")
        looks_told.connect(notions_told, dispatch_uid="bench.notions_told")


def taken_again(lines: list[tuple[Any, Any]], old: Entry, new: Entry, **_: Any) -> None:
    """What was taken for a layer or a thing, given up or cut off, is so again. Raises `Refusal` for a finished making."""
    from django.db import transaction

    from .actions.follow_takes import follow_takes
    from .actions.give_up_again import give_up_again
    from .actions.take_again import take_again

    take_again({before.pk: after for before, after in lines})
    if give_up_again(old, new):
        transaction.on_commit(lambda: follow_takes(new))


def moved(entry: Entry, **_: Any) -> None:
    """What a finished making has not taken after all, its project does not need; what was given up for one in hand, it needs
    once more. Heard of when the entry is through. A new taking is for a making in hand, always.
    """
    from django.db import transaction

    from wembit.web.stash.actions.pull import PULL

    from .actions.follow_takes import follow_takes

    if entry.reverses_id or (entry.verb != PULL and any(movement.need for movement in entry.written)):
        transaction.on_commit(lambda: follow_takes(entry))


def notions_told(studio: Studio, items: Any, **_: Any) -> None:
    """What is planned and in hand goes to the notions that came, or were told otherwise."""
    from .actions.follow_notions import follow_notions

    follow_notions(studio, items)


def told_begun(project: Project) -> Begun:
    """What the begun makings of a project take, for the plan."""
    from .begun import begun_of

    return begun_of(project)


def told_worked(studio: Studio) -> dict[Any, float]:
    """How far the open projects' makings are, for the bench's hours."""
    from .begun import worked

    return worked(studio)
