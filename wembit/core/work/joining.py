"""The steps that join a part to what it sits on, and those that try it there first."""

from __future__ import annotations

from .amounts import mm
from .job import Job
from .making import firmness, made, make_minutes
from .needles import needles_for
from .step import GLUE_HOURS, After, Step
from .worked import Worked

MINUTES_A_JOIN, MINUTES_A_TRY = 5.0, 1.5
PACE = {"stitch": 1.4, "wisp": 1.2, "glue": 0.6, "locks": 0.8}  # of the time of a join, by how it is done
NEAR = {"care": "join", "guards": "join guards", "helper": "join helper"}
SEVERAL = 2  # parts that are pinned on together; one is tried as it is joined
MINUTES_LEFT = 0.25  # of what its making took, for a part that is felted through where it sits
TRIED = ("eye", "ear", "foot", "tail", "wing")
DOES_IT_STAND = "Level and alike from the front? Does it stand?"


def try_steps(host: Worked, job: Job) -> list[Step]:
    """Where parts are pinned: all that sit on one part are tried on it together, before the first is felted in."""
    tried = [part for part in job.on(host) if is_tried(part, job)]
    if len(tried) < SEVERAL:
        return []
    after = (After(made(host, job), "host"), *(After(made(part, job), "made") for part in tried))
    names = ", ".join(part.name for part in tried)
    return [
        Step(
            f"try:{host.key}",
            "join",
            f"Pin to {host.name}: {names}",
            "All of them, before the first is felted in.",
            host.key,
            minutes=MINUTES_A_TRY * sum(part.count for part in tried),
            compare="From the front, the side and upside down: is it the animal you want?",
            cautions=("count",),
            after=after,
            parts=tuple(key for part in tried for key in part.keys),
        )
    ]


def is_tried(part: Worked, job: Job) -> bool:
    """Whether it is pinned on together with the others."""
    host = job.host(part)
    return bool(
        host and host.is_made and job.join_way(part) == "pinned" and not job.is_late(part) and not job.is_bound(part)
    )


def join_steps(part: Worked, job: Job, before: tuple[After, ...]) -> list[Step]:
    """Join a part to its host; none for what shares its wire with a thin one, since that is wound in one."""
    host = job.host(part)
    if host is None or not part.of("core", "weighed") or job.is_bound(part):
        return []
    how, late = job.join_way(part), job.is_late(part)
    glued = how == "glue" or (how == "wire in" and job.way("attach", part) in ("bored", "glue"))
    wired = job.bare_end_for(part)
    words = [_tried(part, host, job, how), _where(part, host, job, how, glued)]
    if wired:
        words.append(
            f"Bore it with the awl and push the other bare end of {wired.name} in, {mm(wired.bare_mm / 2)} deep."
        )
    if job.bears(part) and how not in ("wire in", "closed", "locks", "ring"):
        words.append("It carries: a wisp crosswise over the joint, felted deep.")
    if how not in ("wisp", "locks", "ring"):
        words.append(_seam(part, host, late))
    firmed = job.is_firmed_on_the_figure(part)
    if firmed and (firm := firmness(part)):
        words.append(f"Then felt it through where it sits, until it is {firm}.")
    compare = (
        DOES_IT_STAND
        if part.kind in ("leg", "foot")
        else "Level? Alike on both sides?"
        if part.count > 1
        else "Straight, from the front and the side?"
    )
    cautions = [
        "wire" if part.wire or host.wire else NEAR[job.way("fingers")],
        *(["awl"] if how == "wire in" or wired else []),
    ]
    wools = () if part.is_made else part.of("core", "weighed")
    return [
        Step(
            f"join:{part.key}",
            "late" if late else "join",
            f"Join {part.called} to {host.name}",
            " ".join(filter(None, words)),
            part.key,
            needles_for(host if host.thin else part, "core"),
            wools,
            MINUTES_A_JOIN * PACE.get(how, 1.0) * part.count
            + (MINUTES_LEFT * make_minutes(part, job) if firmed else 0.0),
            compare,
            (*cautions, *(["glue"] if glued else [])),
            before + _comes_after(part, host, job),
            GLUE_HOURS if glued else 0.0,
            method=how,
            parts=part.keys,
        )
    ]


def _tried(part: Worked, host: Worked, job: Job, how: str) -> str:
    alone = is_tried(part, job) and len([other for other in job.on(host) if is_tried(other, job)]) < SEVERAL
    if alone and not host.thin:
        return "Try it with a pin first."
    if part.kind not in TRIED or host.thin or is_tried(part, job) or how in ("wire in", "closed"):
        return ""
    return "Try it with a pin first."


def _where(part: Worked, host: Worked, job: Job, how: str, glued: bool) -> str:
    match how:
        case "wire in":
            glue = " with a drop of glue" if glued else ""
            return f"{mm(job.bare_mm(part))} of bare wire{glue}; then the end of the winding is stabbed in round it."
        case "closed":
            return f"The wire holds it; felt the end of each winding into {host.name}."
        case "locks":
            return "Tips one way, as the coat would lie."
        case "loose end" | "pinned" if host.wire and not job.bare_end_for(part):
            return f"Its loose end goes round {host.name} and is stabbed in shallow, past the wire."
    return ""


def _seam(part: Worked, host: Worked, late: bool) -> str:
    if part.thin or (not late and host.of("cover")):
        return ""  # too thin to be seen, or a cover will lie over it
    return "A thin wisp over the seam hides it."


def _comes_after(part: Worked, host: Worked, job: Job) -> tuple[After, ...]:
    found = [After(made(host, job), "host")] if host.is_made else []
    if job.is_late(part):
        found += [After(f"{kind}:{host.key}", "colour" if kind == "cover" else "reach") for kind in ("cover", "coat")]
    elif host.on and not job.is_finished_first(host) and not host.through:
        found.append(After(f"join:{host.key}", "held"))
    if part.shape == "torus":
        listed = list(job.parts)
        earlier = listed[: listed.index(part)]
        found += [After(f"join:{other.key}", "round") for other in job.on_host(part) if other in earlier]
    if inner := job.inner(part):
        found.append(After(f"join:{inner.key}", "round"))
    if is_tried(part, job):
        found.append(After(f"try:{host.key}", "tried"))
    return tuple(found)
