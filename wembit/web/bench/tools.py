"""The pad that a wool is worked on, and the needles of the studio with their holders and what broke of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.colour.conversions import lab
from wembit.core.craft.notions import pad_for
from wembit.web.figures.size_words import ROLES

from .queries import broken_by_role, needles_and_pads

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class Needle:
    """A needle of the studio: how many of it broke, by the words of what they broke at."""

    item: Item
    broke: Sequence[tuple[str, int]]

    @property
    def words(self) -> str:
        """Its name with the maker's mark and its holder."""
        told = [self.item.told.get(each) for each in ("mark", "holder")]
        return ", ".join([self.item.name, *(each for each in told if each)])

    @property
    def count(self) -> int:
        return sum(count for _, count in self.broke)


def tools_of(studio: Studio, srgb: str) -> tuple[list[Needle], str]:
    """The needles that the studio has, the coarsest first, and the name of the pad for a wool of that colour; empty where any
    will do or none of the studio's is for it. Two queries.
    """
    needles, pads = needles_and_pads(studio)
    broken: dict[UUID, list[tuple[str, int]]] = {}
    for item, role, count in broken_by_role(studio) if needles else []:
        broken.setdefault(item, []).append((ROLES.get(role, role), count))
    kind = pad_for(lab(srgb)[0]) if srgb else ""
    return [Needle(item, broken.get(item.pk, [])) for item in needles], _named(pads).get(kind, "") if kind else ""


def _named(items: Sequence[Item]) -> Mapping[str, str]:
    return {item.told.get("wools", ""): item.name for item in items}
