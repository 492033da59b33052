"""The app bench: figures being made, piece by piece."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig


class BenchConfig(AppConfig):
    """Figures being made."""

    name = "wembit.web.bench"
    label = "bench"

    def ready(self) -> None:
        from wembit.web.stash.ledger import repeated

        repeated.connect(taken_again, dispatch_uid="bench")


def taken_again(lines: list[tuple[Any, Any]], **_: Any) -> None:
    """What was taken for a layer or a thing is taken for it again. Raises `Refusal` where the making is finished."""
    from .actions.take_again import take_again

    take_again({old.pk: new for old, new in lines})
