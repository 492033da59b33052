"""What the begun makings of a project take: told by the room where they are made, which registers itself here."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web.stash.models import Item

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

    from .models import Project

Amounts = dict[
    tuple[Item, bool], dict[str, Decimal]
]  # by item and whether it is seen, the three values of models.RANGE


@dataclass(frozen=True)
class Begun:
    """How many makings are begun; what they take: finished ones what they took, others what is planned for them; and how many
    of them had one wool instead of another (`had`, by the ids of the old and the new one).
    """

    count: int = 0
    amounts: Amounts = field(default_factory=dict)
    had: Mapping[tuple[UUID, UUID], int] = field(default_factory=dict)


tellers: list[Callable[[Project], Begun]] = []  # bench/apps.py adds the one there is
worked_tellers: list[Callable[[Studio], dict[UUID, float]]] = []  # and of this


def begun_of(project: Project) -> Begun:
    """What is begun of a project."""
    return next((teller(project) for teller in tellers), Begun())


def worked_of(studio: Studio) -> dict[UUID, float]:
    """How many makings of each project have been worked so far, those in hand as far as their wool is taken."""
    return next((teller(studio) for teller in worked_tellers), {})
