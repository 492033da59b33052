"""The strip of states: what stands of the figure after each step, as it is drawn. Parts there in wool, the others dotted."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from wembit.core.craft.schools import QUESTIONS
from wembit.core.work.forks import fork_at
from wembit.core.work.worked import Worked
from wembit.web.figures.drawing.layout import Picture, Shape

from .order import Line

MAKES = ("make", "firm", "edge", "draw", "eyes")  # the steps after which a part is there
DRESSES = ("cover", "detail", "coat")  # those after which it looks as it will

DRAWN_WAYS = 2  # of a question, at its step; all of them in the tray


@dataclass(frozen=True)
class Look:
    """A shape of the drawing in one state: its number there, the wool that is seen of it, whether its zones and locks lie
    on it, and whether it is what the step is about.
    """

    number: int
    fill: str
    dressed: bool
    inked: bool


@dataclass(frozen=True)
class Fork:
    """An open question of the schools at the step where it arises, with two of its ways to draw."""

    question: str
    words: str
    ways: tuple[str, ...]


def forks_of(open_: Iterable[str], lines: Sequence[Line]) -> dict[str, Fork]:
    """For each step at which a question is open, the first of those that arise there."""
    found: dict[str, Fork] = {}
    listed = [line.step for line in lines]
    for key in open_:
        found.setdefault(fork_at(key, listed), Fork(key, QUESTIONS[key].words, tuple(QUESTIONS[key].ways)[:DRAWN_WAYS]))
    return found


@dataclass(frozen=True)
class State:
    """The figure after a step. `begins`: the name of the group of steps that begins with it. `at` and `wide`: where its
    ribbon lies, in minutes; `waits` after it, as wide. `fork`: what is still open at it.
    """

    line: Line
    looks: list[Look]
    inked: list[int]
    grams: float
    begins: str
    at: float
    wide: float
    waits: float
    fork: Fork | None = None


def states(
    lines: Sequence[Line],
    side: Picture,
    parts: Sequence[Worked],
    colours: Mapping[str, str],
    wait_wide: float,
    forks: Mapping[str, Fork],
) -> list[State]:
    """A state for each step in their order. `colours` by slot, `forks` by step; a wait is drawn `wait_wide` minutes wide."""
    last: dict[str, set[str]] = {}
    made_of = {part.key: colours.get(_inner(part), "") for part in parts}
    dressing: dict[str, list[str]] = {}
    for line in lines:
        if _verb(line) in DRESSES:
            for key in line.step.parts:
                dressing.setdefault(key, []).append(line.step.id)
    there: set[str] = set()
    done: set[str] = set()
    found: list[State] = []
    group, at = "", 0.0
    for line in lines:
        done.add(line.step.id)
        if _verb(line) in MAKES or (_verb(line) in ("join", "detail") and line.step.wools):
            there |= set(line.step.parts)
        last[line.step.id] = set(line.step.parts) if line.step.part else set()
        here = last[line.step.id]
        looks = [
            Look(number, *_wool(shape, made_of, dressing, done), shape.key in here)
            for number, shape in enumerate(side.shapes)
            if shape.key in there
        ]
        inked = [n for n, shape in enumerate(side.shapes) if shape.key in here and shape.key not in there]
        begins = line.step.group if line.step.group != group else ""
        group = line.step.group
        waits = wait_wide if line.step.wait_hours else 0.0
        grams = sum(wool.grams for wool in line.step.wools)
        found.append(State(line, looks, inked, grams, begins, at, line.step.minutes, waits, forks.get(line.step.id)))
        at += line.step.minutes + waits
    return found


def _verb(line: Line) -> str:
    return line.step.id.partition(":")[0]


def _inner(part: Worked) -> str:
    """The slot of what is seen of a part before anything lies on it."""
    return next((wool.slot for wool in part.of("core", "weighed", "detail")), "")


def _wool(
    shape: Shape, made_of: Mapping[str, str], dressing: Mapping[str, Iterable[str]], done: set[str]
) -> tuple[str, bool]:
    """The colour of a shape that is there, and whether all that lies on it is done."""
    steps = list(dressing.get(shape.key, []))
    covered = all(step in done for step in steps if step.startswith("cover"))
    return (shape.fill if covered else made_of.get(shape.key) or shape.fill), all(step in done for step in steps)
