"""The steps of bought eyes, of threads drawn through, and of what else is fitted."""

from __future__ import annotations

from collections.abc import Sequence

from wembit.core.craft.notions import FITTINGS

from .amounts import mm
from .job import Job
from .making import made
from .step import GLUE_HOURS, After, Step
from .worked import THIN_MM, Worked

MINUTES_A_FITTING = 3.0
THREAD = "thread"
DRAWN = "Draw it right through with a sewing needle, tie a stitch inside the wool, and cut it to length last."
SEWN = "Its thread through the wool and a wisp over it hold it."
MEET = 0.9  # two shanks as long together as that share of the head meet inside


def eye_steps(job: Job) -> list[Step]:
    """Bought eyes, when the school sets them."""
    found = []
    for part in job.parts:
        host = job.by_key.get(part.on or "")
        if part.kind != "eye" or not part.is_bead or host is None:
            continue
        when = job.way("eyes", part)
        glued, words, cautions = _held(part, host)
        kind = "eyes" if when == "last" else "face"
        found.append(
            Step(
                f"eyes:{part.key}",
                kind,
                f"Set {part.called} into {host.name}",
                words,
                part.key,
                minutes=MINUTES_A_FITTING * part.count,
                compare="Level? Do they look the same way? Upside down, too?",
                cautions=cautions,
                after=_after(host, when, job),
                wait_hours=GLUE_HOURS if glued else 0.0,
                method="eyes",
                parts=part.keys,
            )
        )
    return found


def _held(part: Worked, host: Worked) -> tuple[bool, str, tuple[str, ...]]:
    """Whether glue holds it, in which words, with which cautions."""
    if host.thick_mm < THIN_MM or host.wire:
        words = f"{host.name} is too thin to be bored: sew each bead on through its hole and draw the thread down inside, or "
        return False, words + "roll a felted dot in its place.", ("small parts",)
    if not part.shank_mm:
        return True, "Glue on the flat of each, pressed into its place.", ("glue", "small parts")
    words = f"Bore with the awl, glue on the shank, {mm(part.shank_mm)} deep, push it in."
    if 2 * part.shank_mm > MEET * host.thick_mm:
        words += f" Two shanks would meet inside: cut each to {mm(0.4 * host.thick_mm)}."
    return True, words, ("glue", "awl", "small parts")


def _after(host: Worked, when: str, job: Job) -> tuple[After, ...]:
    found = [After(made(host, job), "bald" if when == "early" else "made"), After(f"sockets:{host.key}", "made")]
    if when != "early":
        found += [After(f"{kind}:{host.key}", "ground") for kind in ("cover", "mouth", "detail")]
    if when == "last":
        found += [After(f"join:{part.key}", "settled") for part in job.parts]
        found += [
            After(f"{kind}:{part.key}", "settled") for part in job.parts for kind in ("cover", "coat", "trim", "detail")
        ]
    return tuple(found)


def thread_steps(job: Job) -> list[Step]:
    """Threads that are drawn through, as feelers and whiskers that are parts."""
    found = []
    for part in job.parts:
        host = job.host(part)
        if part.line != THREAD or part.wools or host is None:
            continue
        words = f"Draw it through with a sewing needle, {mm(part.long_mm)} outside, and tie a stitch inside the wool."
        found.append(
            Step(
                f"draw:{part.key}",
                "eyes",
                f"Draw {part.called} through {host.name}",
                words,
                part.key,
                minutes=MINUTES_A_FITTING * part.count,
                compare="Equally long? Does a gentle pull hold?",
                cautions=("small parts",),
                after=(
                    After(made(host, job), "host"),
                    After(f"cover:{host.key}", "colour"),
                    After(f"join:{host.key}", "settled"),
                ),
                parts=part.keys,
            )
        )
    return found


def fitting_steps(fitted: Sequence[tuple[str, str]], job: Job, before: tuple[After, ...]) -> list[Step]:
    """One step a fitting, on the finished figure, but before it is turned and tugged. Thread that is a part of the figure is
    drawn through as that part.
    """
    found = []
    drawn = any(part.line == THREAD and not part.wools for part in job.parts)
    for n, (notion, words) in enumerate(fitted):
        if notion == THREAD and drawn:
            continue
        fitting = FITTINGS[notion]
        how = "Try its place with a pin first. " + (DRAWN if notion == THREAD else SEWN)
        cautions = tuple(dict.fromkeys(("join", fitting.caution) if fitting.caution else ("join",)))
        found.append(
            Step(
                f"fit:{n}",
                "eyes",
                f"Fit the {words or fitting.words}",
                how,
                minutes=MINUTES_A_FITTING * 2,
                compare="Does it hang, sit or close as it should? Is no point felt?",
                cautions=cautions,
                after=before,
            )
        )
    return found
