"""The order of work of a figure: the steps of its parts, in an order in which each comes after what it waits for.

Order, needles, minutes and checks are common practice of the trade; each can be changed by the maker.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from graphlib import TopologicalSorter

from .around import bake, finish, gather, prepare
from .eyes import eye_steps, fitting_steps, thread_steps
from .job import Job
from .joining import join_steps, try_steps
from .making import is_shared, made, make_steps, padding_steps, share_steps, socket_steps, wire_steps
from .methods import method_of
from .skins import skin_steps, trim_steps
from .step import RANK, After, Step
from .worked import Worked, families

LINE_HOWS = ("line", "border")


def needs_of(parts: Sequence[Worked]) -> set[str]:
    """What a figure has that makes a question of the schools arise."""
    found: set[str] = set()
    for part in parts:
        roles = {wool.role for wool in part.wools}
        core = "core" in roles
        told = {
            "bulk": core,
            "cover": "cover" in roles,
            "coat": "coat" in roles,
            "pairs": core and part.count > 1,
            "tops": any(wool.form == "tops" for wool in part.of("core")),
            "joins": bool(part.on and roles),
            "eyes": part.kind == "eye" and part.is_bead,
            "head": part.kind == "head" or (part.kind == "eye" and core),
            "flat": core and method_of(part) == "flat",
            "lines": any(wool.how in LINE_HOWS for wool in part.of("detail")),
        }
        found |= {name for name, is_so in told.items() if is_so}
    return found


def steps(parts: Sequence[Worked], school: Mapping, fitted: Sequence[tuple[str, str]] = ()) -> list[Step]:
    """The steps in an order in which each comes after what it waits for. `fitted`: notion and words of each fitting."""
    job = Job(families(parts), school)
    first = gather(job)
    laid_out = (After(first.id, "laid out"),)
    work = [first, *prepare(job, laid_out)]
    if any(notion == "clay" for notion, _ in fitted):
        work.append(bake(laid_out))
    prepared = tuple(After(step.id, "laid out") for step in work)
    work += share_steps(job, prepared)
    for part in job.parts:
        work += _of(part, job, prepared)
    work += [*eye_steps(job), *thread_steps(job)]
    work += fitting_steps(fitted, job, tuple(After(step.id, "settled") for step in work))
    work += [step for part in job.parts if job.way("trim", part) == "end" for step in trim_steps(part, job)]
    work += finish(job, tuple(After(step.id, "last") for step in work))
    return ordered(work, job)


def dried_together(found: Sequence[Step]) -> list[Step]:
    """The steps, as they are worked, with one wait where glue is set twice in a row: both dry at once."""
    following = [*found[1:], None]
    return [
        replace(step, wait_hours=0.0) if then and step.wait_hours and step.wait_hours == then.wait_hours else step
        for step, then in zip(found, following, strict=True)
    ]


def ordered(found: Sequence[Step], job: Job) -> list[Step]:
    """A topological order; among what is free the lowest rank, then the order of the parts.

    Raises `graphlib.CycleError` where steps wait for each other in a ring.
    """
    by_id = {step.id: (n, step) for n, step in enumerate(found)}
    place = _places(job)
    graph = TopologicalSorter(
        {step.id: [first for first in step.waits_for if first in by_id and first != step.id] for step in found}
    )
    graph.prepare()
    free: set[str] = set()
    out = []
    while graph.is_active():
        free.update(graph.get_ready())
        following = min(free, key=lambda each: _rank(*by_id[each], place))
        free.discard(following)
        graph.done(following)
        out.append(by_id[following][1])
    return out


def _rank(number: int, step: Step, place: Mapping[str, float]) -> tuple[int, float, int]:
    return RANK[step.kind], place.get(step.part, len(place)), number


def _places(job: Job) -> dict[str, float]:
    """Where each part stands in the order of the parts, by what is made first."""
    place = {part.key: float(n) for n, part in enumerate(job.parts)}
    match job.way("build"):
        case "head":
            return place | {part.key: -1.0 for part in job.parts if part.kind == "head"}
        case "small":
            return {part.key: sum(wool.grams for wool in part.wools) for part in job.parts}
    return place


def _of(part: Worked, job: Job, prepared: tuple[After, ...]) -> list[Step]:
    """The steps of one part: wire, shares, making, soft layers, dents, join, what lies on it."""
    if part.kind == "eye" and part.is_bead:
        return []
    found, before = wire_steps(part, job, prepared), prepared
    if found:
        why = {"bind": "bound", "thread": "threaded"}.get(found[-1].id.partition(":")[0], "wired")
        before = (After(found[-1].id, why),)
    if part.foot and part.key != part.foot[0]:
        before = (After(f"bind:{part.foot[0]}", "bound"),)
    if part.is_made:
        divided = (After(f"prepare:{job.way('twins', part)}", "divided"),) if is_shared(part, job) else ()
        found += make_steps(part, job, before + divided)
        before = (After(made(part, job), "made"),)
    soft = padding_steps(part, before)
    found += soft
    before = (After(soft[-1].id, "ground"),) if soft else before
    dents = socket_steps(part, job, before)
    found += dents
    before += tuple(After(step.id, "made") for step in dents)
    return found + _laid_and_joined(part, job, before)


def _laid_and_joined(part: Worked, job: Job, before: tuple[After, ...]) -> list[Step]:
    """Join first, then what hides the seam; or finish the part by itself where its colours are not its host's."""
    skins = skin_steps(part, job, before)
    trimmed = trim_steps(part, job) if job.way("trim", part) == "zone" else []
    loose = part.shape == "slab" or (part.kind == "eye" and part.is_made)
    if job.is_finished_first(part) or (loose and skins):
        why = "on the pad" if part.shape == "slab" else "in the hand"
        last = tuple(After(step.id, why) for step in (skins + trimmed)[-1:])
        return [*skins, *trimmed, *join_steps(part, job, before + last)]
    joins = join_steps(part, job, before)
    if part.shape == "none":
        skins = skin_steps(
            part, job, tuple(After(f"{kind}:{key}", "ground") for key in part.hosts for kind in ("make", "cover"))
        )
    if joins:
        skins = skin_steps(part, job, (After(joins[-1].id, "seam" if part.of("cover") else "held"),))
    return [*try_steps(part, job), *joins, *skins, *trimmed]
