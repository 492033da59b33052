"""The order of work of a version: the core's steps, with what the maker changed in them."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.schools import asked, way
from wembit.core.work.amounts import spoken
from wembit.core.work.methods import GENERAL
from wembit.core.work.order import dried_together, needs_of, steps
from wembit.core.work.step import WHY, Step, minutes_range
from wembit.core.work.worked import Worked
from wembit.web import numbers
from wembit.web.figures.models import SCHOOL, Part, Version
from wembit.web.figures.to_core.estimating import FigurePlan
from wembit.web.figures.to_core.hands import MINUTES, hand
from wembit.web.studio.models import Studio

from .worked_parts import worked

ORDERS_KEPT = 128  # in a process, some 30 kB each


def fitted(version: Version) -> list[tuple[str, str]]:
    """Notion and words of each fitting that the maker put on."""
    return [(fitting["notion"], fitting.get("words", "")) for fitting in version.fittings]


@dataclass(frozen=True)
class Line:
    """A step as the page shows it. `general`: how such a thing is done, whatever the part; `whys`: what it waits for, in
    words, with the numbers of those steps. `new_cautions` are said here for the first time, `old_cautions` name the others.
    """

    step: Step
    number: int
    low_min: float
    high_min: float
    cautions: list[str]
    changed: bool
    own: bool
    general: str = ""
    whys: list[tuple[int, str]] = field(default_factory=list)
    new_cautions: list[str] = field(default_factory=list)
    old_cautions: list[str] = field(default_factory=list)

    def takes(self, part_key: str, role: str) -> bool:
        """Whether the wool of a part in that role is taken in it."""
        return part_key in self.step.parts and any(wool.role == role for wool in self.step.wools)


def school_of(version: Version) -> dict:
    """The ways that hold for a version: the studio's, and over them the figure's own."""
    return {**version.studio.habits.get(SCHOOL, {}), **version.school}


def order_of(version: Version, parts: Sequence[Part], plan: FigurePlan) -> list[Line]:
    """All steps in the maker's order, the maker's words and minutes in place of the rule's; steps left out are not there."""
    pace = hand(version.studio, MINUTES).bias
    by_id = {step.id: _spoken(step, version.studio, pace) for step in _ruled(version, parts, plan)}
    kept = version.order
    own = kept.get("own", {})
    by_id |= {
        key: Step(key, "make", each["title"], each["words"], minutes=each["minutes"]) for key, each in own.items()
    }
    said = kept.get("said", {})
    ids = [key for key in _in_order(list(by_id), kept.get("first", [])) if key not in kept.get("off", [])]
    places = {key: number for number, key in enumerate(ids, 1)}
    lines: list[Line] = []
    warned: set[str] = set()
    for number, ruled in enumerate(dried_together([by_id[key] for key in ids]), 1):
        told = {name: value for name, value in said.get(ruled.id, {}).items() if name in ("title", "words", "minutes")}
        step = replace(ruled, **told)
        low, high = minutes_range(step.minutes)
        cautions = [CAUTIONS[caution] for caution in step.cautions]
        general, whys = GENERAL.get(step.method, ""), _whys(step, places)
        new = [CAUTIONS[caution] for caution in step.cautions if caution not in warned]
        old = [caution for caution in step.cautions if caution in warned]
        warned |= set(step.cautions)
        lines.append(Line(step, number, low, high, cautions, step.id in said, step.id in own, general, whys, new, old))
    return lines


def _ruled(version: Version, parts: Sequence[Part], plan: FigurePlan) -> tuple[Step, ...]:
    school = json.dumps(school_of(version), sort_keys=True)
    return _steps(tuple(worked(version, parts, plan)), school, tuple(fitted(version)))


@lru_cache(maxsize=ORDERS_KEPT)
def _steps(parts: tuple[Worked, ...], school: str, fittings: tuple[tuple[str, str], ...]) -> tuple[Step, ...]:
    return tuple(steps(parts, json.loads(school), fittings))


def _spoken(step: Step, studio: Studio, pace: float = 1.0) -> Step:
    """The step with its lengths and weights in the units of the house, and the minutes of its hands."""

    def length(value: float) -> str:
        return numbers.NARROW.join(numbers.length(value, studio))

    def weight(value: float) -> str:
        return numbers.NARROW.join(numbers.grams(value, studio))

    return replace(step, words=spoken(step.words, length, weight), minutes=step.minutes * pace)


def _whys(step: Step, places: Mapping[str, int]) -> list[tuple[int, str]]:
    """The numbers of the steps that it waits for with the reasons, the nearest of each; none of what merely lies ready."""
    found: dict[str, int] = {}
    for first, why in step.after:
        if first in places and why not in ("laid out", "last"):
            found[why] = max(found.get(why, 0), places[first])
    return sorted((number, WHY[why]) for why, number in found.items())


def _in_order(ids: list[str], wanted: list[str]) -> list[str]:
    """The maker's order; steps that came since stand after what they followed in the rule's order."""
    out = [key for key in wanted if key in ids]
    for position, key in enumerate(ids):
        if key not in out:
            before = ids[position - 1] if position else None
            out.insert(out.index(before) + 1 if before in out else 0, key)
    return out


def general_ways(lines: Sequence[Line]) -> list[tuple[str, str]]:
    """What holds for all steps of a kind, each once, with the numbers of its steps."""
    found: dict[str, list[int]] = {}
    for line in lines:
        if line.general:
            found.setdefault(line.general, []).append(line.number)
    return [(", ".join(map(str, numbers)), words) for words, numbers in found.items()]


def left_out(version: Version, parts: Sequence[Part], plan: FigurePlan) -> list[Step]:
    """The steps that the maker has left out."""
    off = version.order.get("off", [])
    return [step for step in _ruled(version, parts, plan) if step.id in off]


def questions(version: Version, parts: Sequence[Part], plan: FigurePlan) -> tuple[list[str], list[str]]:
    """The questions of the schools that this figure raises and nobody answered, and all that it raises."""
    needs = needs_of(worked(version, parts, plan))
    return asked(needs, school_of(version)), asked(needs, {})


def answered(version: Version, question: str) -> bool:
    """Whether somebody said how a figure goes in a question."""
    return question in school_of(version)


def chosen_way(version: Version, question: str) -> str:
    """The way that a figure goes in a question."""
    return way(school_of(version), question)
