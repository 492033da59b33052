"""The steps that make a part by itself: its wire, its shares, its core, its soft layers and the dents in it."""

from __future__ import annotations

from wembit.core.craft.materials import FIRMNESS_WORDS

from .amounts import about, grams, mm
from .job import YIELDING, Job
from .methods import METHODS, method_of
from .needles import FACES, needles_for
from .step import After, Step, at_least
from .worked import FILLING, Worked

# minutes a gram by firmness, and per piece of other work; common practice to begin with, until the bench's clock has learnt
MINUTES_A_GRAM = {"airy": 2.0, "soft": 3.0, "medium": 4.5, "firm": 7.0, "very_firm": 11.0}
MINUTES_A_WIRE, MINUTES_A_BORE, MINUTES_A_BIND, MINUTES_A_DENT, MINUTES_A_SHARE = 4.0, 3.0, 2.0, 2.0, 2.0
BULK_G = 3.0  # a core so heavy is worth a bundle of needles
BUNDLE_PACE = 0.75  # of the time, with two or three needles
SCALE_G = 0.1  # less is not weighed by itself
EDGE_PACE = {"fold": 1.0, "scissors": 0.9, "cutter": 0.8, "clamp": 1.1}  # of the time of a flat piece
MINUTES_A_CUT = 2.0
FELTS = {"slowly": 1.25, "quickly": 0.85}  # of the time of a gram, by the wool; common practice
STIFF = ("firm", "very_firm")
CUTTER_DEPTH = 2.0  # loose wool in a cutter is so many times as deep as the piece; common practice
PACE = {"quick": 0.8, "steady": 1.0, "slow": 1.15}  # of the time of a part, by how far it is taken before it is joined
FIRST = {"small": 0.75, "generous": 1.0}
SOCKET_MM = 14.0  # a head thinner than that has no room for sockets


def wire_steps(part: Worked, job: Job, before: tuple[After, ...]) -> list[Step]:
    """Cut and bend its wire; bind it to, or thread it through, what it shares its wire with."""
    if not part.wire:
        return []
    if part.foot and part.key != part.foot[0]:
        return []
    cut = [
        f"Cut {', '.join(f'{count} × {mm(long)}' for count, long in part.cut_list)} of {part.wire}",
        _doubled(part),
        ", bend it on the plan",
        ", its ends bent over" if part.loop else "",
        _bare(part, job),
        ". It is a former: it comes out again." if part.former else ".",
    ]
    wire = Step(
        f"wire:{part.key}",
        "wire",
        f"Wire for {'the feet' if part.foot else part.called}",
        "".join(cut),
        part.key,
        minutes=MINUTES_A_WIRE * part.cuts,
        compare="Do they lie on each other?" if part.cuts > 1 else "Does it lie on the plan?",
        cautions=("wire ends",),
        after=before,
        parts=part.keys,
        template=part.template,
    )
    host = job.by_key.get(part.on or "")
    if host and job.is_bound(part):
        what = f"{host.count} × foot" if part.foot and host.count > 1 else "foot" if part.foot else part.called
        words = f"Hook each round the bare wire of {host.name}, pinch it shut, and bind it with thread or a thin strip."
        bind = Step(
            f"bind:{part.key}",
            "wire",
            f"Bind {what} to the wire of {host.called}",
            words,
            part.key,
            minutes=MINUTES_A_BIND * part.count,
            compare="Does it spread and stand bare, as it should when wound?",
            cautions=("wire ends",),
            after=(After(wire.id, "wired"), After(f"wire:{host.key}", "wired")),
            parts=part.keys,
        )
        return [wire, bind]
    if host and part.through:
        return [wire, _threaded(part, host, wire)]
    return [wire]


def _doubled(part: Worked) -> str:
    if part.foot:
        return f", one a foot, laid double toe by toe: {', '.join(mm(span) for span in part.spans_mm)}"
    return ", lay each double" if part.doubled else ""


def _bare(part: Worked, job: Job) -> str:
    if not part.bare_mm:
        return ""
    both = " at either end" if job.bare_mm(part) < part.bare_mm else ""
    return f"; {mm(job.bare_mm(part))}{both} stay bare for the join"


def _threaded(part: Worked, host: Worked, wire: Step) -> Step:
    times = part.count // 2
    words = (
        f"Bore right through {host.name} with the awl, and push the bare wire in to its middle, so that both ends are "
        "equally long; bend them where they come out."
    )
    return Step(
        f"thread:{part.key}",
        "wire",
        f"Thread {times} × bare wire through {host.name}",
        words,
        part.key,
        minutes=MINUTES_A_BORE * times,
        compare="Both ends equally long, on every wire?",
        cautions=("awl", "wire ends"),
        after=(After(wire.id, "wired"), After(f"make:{host.key}", "stiff")),
        parts=part.keys,
    )


def share_steps(job: Job, before: tuple[After, ...]) -> list[Step]:
    """How the wool of all that come in pairs or sets is divided, before the first of them is worked: one step a way."""
    ways: dict[str, list[Worked]] = {}
    for part in job.parts:
        if is_shared(part, job):
            ways.setdefault(job.way("twins", part), []).append(part)
    found = []
    for how, parts in ways.items():
        title, words, compare, cautions = {
            "halves": (
                "Tear equal shares",
                "Worked side by side, a little at each in turn.",
                "Do the shares look alike, held in one hand?",
                (),
            ),
            "strip": (
                "Draw even lengths and cut them through",
                "Worked side by side.",
                "Equally long and thick?",
                ("scissors",),
            ),
            "stencil": (
                "Cut stencils of card",
                "One to the template of each.",
                "Does each lie on its template?",
                ("scissors",),
            ),
        }[how]
        shares = "; ".join(_share(part, how, job) for part in parts)
        found.append(
            Step(
                f"prepare:{how}",
                "prepare",
                title,
                f"{shares}. {words}",
                minutes=MINUTES_A_SHARE * len(parts),
                compare=compare,
                cautions=cautions,
                after=before,
                parts=tuple(key for part in parts for key in part.keys),
            )
        )
    return found


def is_shared(part: Worked, job: Job) -> bool:
    """Whether its wool is divided, or a stencil cut, before it is worked."""
    return part.count > 1 and bool(part.of("core")) and job.way("twins", part) in ("halves", "strip", "stencil")


def _share(part: Worked, how: str, job: Job) -> str:
    each = sum(wool.grams for wool in part.of("core")) / part.count
    if how == "stencil":
        return f"{part.name}, template {part.template}" if part.template else part.name
    if job.by_eye(part):
        return f"{part.name} in {part.count}"
    weighed = f"{grams(each)} each" if each >= SCALE_G else "together on the scale"
    return f"{part.name} in {part.count}, {weighed}"


def make_steps(part: Worked, job: Job, before: tuple[After, ...]) -> list[Step]:
    """Felt the part; with a bundle of needles in two steps, since the last of it takes one."""
    method = method_of(part)
    cores, total = part.of("core", "weighed"), sum(wool.grams for wool in part.of("core", "weighed"))
    bundle = _bundled(part, job, total)
    after = before + tuple(After(f"make:{other.key}", "inwards") for other in job.bound_to(part))
    edge = job.way("edges", part) if method == "flat" else "fold"
    minutes = make_minutes(part, job)
    firm, soft = firmness(part), job.is_firmed_on_the_figure(part)
    said = [_first_of_several(part), _alike(part, job), _edge(part, job, method), _amount(part, job, total)]
    said.append(_slow(part))
    said.append("Stop when it gets stiff." if bundle and not soft else _until(part, job))
    if part.on and job.join_way(part) in ("loose end", "pinned") and not job.is_bound(part):
        said.append(f"{mm(part.loose_mm)} stay loose for the join." if part.loose_mm else "One end stays loose.")
    make = Step(
        f"make:{part.key}",
        "make",
        (METHODS[method].title if edge != "cutter" else "Felt {} in a cutter").format(part.called),
        " ".join(filter(None, said)),
        part.key,
        needles_for(part, "core", bundle=bundle),
        cores,
        minutes,
        _check(part, job, method),
        ("wire",) if part.wire else ("thin",) if part.thin else ("needle",),
        after,
        method=method,
        first=FIRST[job.way("amounts", part)] if total >= SCALE_G else 0.5,
        parts=part.keys,
        template=part.template,
    )
    if edge == "scissors":
        cut = Step(
            f"edge:{part.key}",
            "make",
            f"Cut {part.called} to shape",
            "To the template, then short stabs along the cut edge.",
            part.key,
            needles_for(part, "core"),
            (),
            MINUTES_A_CUT * part.count,
            "Is the edge closed all round?",
            ("scissors",),
            (After(make.id, "made"),),
            parts=part.keys,
            template=part.template,
        )
        return [make, cut]
    if not bundle or soft:
        return [make]
    one = Step(
        f"firm:{part.key}",
        "make",
        f"Firm {part.called} with one needle",
        f"Close what the bundle left open, until it is {firm}.",
        part.key,
        needles_for(part, "core"),
        (),
        at_least(minutes / 3, part.count),
        "Does it spring back at once where a finger pressed it?",
        ("needle",),
        (After(make.id, "stiff"),),
        parts=part.keys,
    )
    return [make, one]


def make_minutes(part: Worked, job: Job) -> float:
    """How long it is felted by itself, but for the end with one needle."""
    method, total = method_of(part), sum(wool.grams for wool in part.of("core", "weighed"))
    edge = job.way("edges", part) if method == "flat" else "fold"
    felted = sum(wool.grams * FELTS.get(wool.felting, 1.0) for wool in part.of("core", "weighed"))
    minutes = felted * MINUTES_A_GRAM.get(part.firmness, 5.0) * METHODS[method].pace * PACE[job.way("pace", part)]
    return at_least(minutes * EDGE_PACE[edge] * (BUNDLE_PACE if _bundled(part, job, total) else 1.0), part.count)


def firmness(part: Worked) -> str:
    """How firm it becomes, in words."""
    return "of medium firmness" if part.firmness == "medium" else FIRMNESS_WORDS.get(part.firmness, part.firmness)


def _slow(part: Worked) -> str:
    """What is hard to make firm of its wool."""
    slow = [wool.fibre for wool in part.of("core", "weighed") if wool.felting == "slowly"]
    if not slow or part.firmness not in STIFF or part.thin:
        return ""
    return f"{slow[0]} felts slowly: it may stay softer than that, and a core of another wool under it helps."


def _until(part: Worked, job: Job) -> str:
    """How far it is taken by itself."""
    firm = firmness(part)
    if job.is_firmed_on_the_figure(part):
        return "Only until it holds its shape."
    if job.way("pace", part) == "slow" and job.host(part) and part.firmness not in YIELDING:
        return f"Until it is {firm}, its ends and edges too."
    return f"Until it is {firm}." if firm else ""


def made(part: Worked, job: Job) -> str:
    """The id of the step with which the part is felted through."""
    total = sum(wool.grams for wool in part.of("core", "weighed"))
    if method_of(part) == "flat" and job.way("edges", part) == "scissors":
        return f"edge:{part.key}"
    firmed = _bundled(part, job, total) and not job.is_firmed_on_the_figure(part)
    return f"firm:{part.key}" if firmed else f"make:{part.key}"


def _bundled(part: Worked, job: Job, total: float) -> bool:
    bulky = total / part.count >= BULK_G and not part.thin and part.kind not in FACES
    return bulky and job.way("needles", part) == "bundle"


def _first_of_several(part: Worked) -> str:
    """Which wool comes first where a core has several."""
    cores = part.of("core")
    return f"{cores[0].fibre} first, then {', then '.join(wool.fibre for wool in cores[1:])}." if len(cores) > 1 else ""


def _alike(part: Worked, job: Job) -> str:
    if part.count < 2:
        return ""
    said = {
        "stencil": "Hold each to the stencil as you go.",
        "beside": "Lay them side by side as you go.",
        "free": "They need not match.",
    }
    return said.get(job.way("twins", part), "")


def _edge(part: Worked, job: Job, method: str) -> str:
    if method != "flat":
        return ""
    return {
        "fold": "Fold the edges in while they are soft.",
        "scissors": "Felt it larger than the template.",
        "cutter": f"Fill the cutter {about(CUTTER_DEPTH * part.thick_mm)} deep and stab it inside; half of that is left.",
        "clamp": "Hold it in a clamp and stab along its rim.",
    }[job.way("edges", part)]


def _amount(part: Worked, job: Job, total: float) -> str:
    if total < SCALE_G or part.wire:
        return ""
    if job.way("amounts", part) != "small":
        return "All of it at once; it shrinks."
    filling = sum(wool.grams for wool in part.of("core") if wool.form == FILLING)
    if job.by_eye(part):
        return f"{'All the filling and three quarters of the wool' if filling else 'Three quarters of it'} first, then add."
    all_of = "All the filling; of the wool " if filling else ""
    return f"{all_of}{grams((total - filling) * FIRST['small'])} first, then add."


def _check(part: Worked, job: Job, method: str) -> str:
    against = f"Against {'template ' + str(part.template) if part.template else 'the template'}"
    said = [f"{against}: {part.size}." if part.size else f"{against}.", METHODS[method].check]
    if part.count > 1 and job.way("twins", part) != "free":
        said.append("Beside each other: within a few per cent, they carry." if job.bears(part) else "Alike enough?")
    return " ".join(filter(None, said))


def padding_steps(part: Worked, before: tuple[After, ...]) -> list[Step]:
    """Soft layers, one over the other."""
    found: list[Step] = []
    for n, wool in enumerate(part.of("padding")):
        where = "" if wool.share >= 1 else f" on {wool.share * 100:.0f} % of it"
        found.append(
            Step(
                f"pad:{part.key}:{n}",
                "pad",
                f"A soft layer on {part.called}",
                f"{wool.fibre}{where}, tacked only so far that it stays.",
                part.key,
                needles_for(part, "padding"),
                (wool,),
                at_least(wool.grams * 2),
                "Soft to the finger?",
                ("needle",),
                before if not found else (After(found[-1].id, "ground"),),
                parts=part.keys,
            )
        )
    return found


def has_face(part: Worked, job: Job) -> bool:
    """Whether a face is shaped on it: it is a head with something of a face on it, and large enough."""
    looks = any(other.kind in ("eye", "nose", "snout") for other in job.on(part))
    return part.kind == "head" and looks and _is_sculpted(part, job)


def _is_sculpted(part: Worked, job: Job) -> bool:
    return part.thick_mm >= SOCKET_MM and part.is_made and job.way("sculpt", part) != "none"


def socket_steps(part: Worked, job: Job, before: tuple[After, ...]) -> list[Step]:
    """Dents for the eyes of a head, and for felted eyes wherever they sit, while it can still be dented."""
    eyes = [other for other in job.on(part) if other.kind == "eye" and (part.kind == "head" or other.is_made)]
    if not eyes or not _is_sculpted(part, job):
        return []
    eye = eyes[0].bead_mm or eyes[0].thick_mm
    words = f"A dent for each {'eye' if part.kind == 'head' else eyes[0].name}, a little wider than its {mm(eye)}"
    words += ", about half way down the face." if part.kind == "head" else "."
    return [
        Step(
            f"sockets:{part.key}",
            "face",
            f"Sockets in {part.name}",
            words,
            part.key,
            needles_for(part, "face"),
            minutes=MINUTES_A_DENT * max(2, eyes[0].count),
            compare="Level, and as far from the middle? Look upside down.",
            cautions=("needle",),
            after=before,
            method="sockets",
            parts=part.keys,
        )
    ]
