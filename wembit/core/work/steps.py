"""The order of work of a figure: steps made from its parts, its school and what has to wait for what.

Order, needles, minutes and checks are common practice of the trade; each can be changed by the maker.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.core.craft.notions import FITTINGS
from wembit.core.craft.schools import way
from wembit.core.grams.estimate import Z90

# minutes a gram by firmness, and per piece of other work; common practice to begin with, until the bench's clock has learnt
MINUTES_A_GRAM = {"airy": 2.0, "soft": 3.0, "medium": 4.5, "firm": 7.0, "very_firm": 11.0}
MINUTES_A_CM2 = 0.2
MINUTES_A_ROW_CM = 0.8
MINUTES_A_JOIN, MINUTES_A_DETAIL, MINUTES_A_FITTING, LEAST_MINUTES = 5.0, 4.0, 3.0, 2.0
MINUTES_SIGMA = 0.35
GLUE_HOURS = 12.0  # until dry; the supplier's instructions come first
AFTER_ALL = ("make", "cover", "detail", "coat", "join")
FACE = ("eye", "ear", "nose", "snout")
TRIED = ("eye", "ear", "foot", "tail", "wing")
BEARING = ("leg", "foot", "neck")
LATE = ("ear", "eye", "plume", "feeler", "line", "patch", "wing", "ring", "door")
# where a kind of step stands when nothing else decides
RANK = {"gather": 0, "prepare": 1, "wire": 2, "make": 3, "pad": 4, "join": 5, "cover": 6, "detail": 7, "coat": 8, "late": 9,
        "eyes": 10, "finish": 11, "away": 12}  # fmt: skip


@dataclass(frozen=True)
class Wool:
    """What is taken for a step: `role` of the layer, fibre and slot by name, grams for all pieces."""

    role: str
    fibre: str
    slot: str
    grams: float
    trimmed_g: float = 0.0
    area_cm2: float = 0.0
    row_cm: float = 0.0
    pulled_mm: float = 0.0
    finished_mm: float = 0.0
    form: str = ""
    breed: str = ""


@dataclass(frozen=True)
class Worked:
    """A part as the order of work sees it."""

    key: str
    name: str
    kind: str
    count: int
    on: str | None
    firmness: str
    wools: tuple[Wool, ...]
    wire: str = ""
    bead_mm: float = 0.0
    shank: bool = False
    loose_mm: float = 0.0
    size: str = ""


@dataclass(frozen=True)
class Step:
    """One step: what to do, with which needles, what wool, how long (minutes, the middle), what to compare before going
    on, which cautions belong to it, what has to be done before (`after`) and what waits by itself when it is done.
    """

    id: str
    kind: str
    title: str
    words: str
    part: str = ""
    needles: str = ""
    wools: tuple[Wool, ...] = ()
    minutes: float = LEAST_MINUTES
    compare: str = ""
    cautions: tuple[str, ...] = ()
    after: tuple[str, ...] = field(default=())
    wait_hours: float = 0.0


def needles_for(firmness: str, role: str, bundle: bool) -> str:
    """Gauges and shape: a higher number is finer."""
    if role in ("detail", "face"):
        return "one 40 or 42, star or triangle, never a bundle"
    if role in ("cover", "coat", "padding"):
        return "38 or 40, star"
    fine = "38, then 40 to finish" if firmness in ("firm", "very_firm") else "36 or 38, triangle"
    return f"two or three {fine}" if bundle else fine


def needs_of(parts: Sequence[Worked]) -> set[str]:
    """What a figure has that makes a question of the schools arise."""
    found = {"bulk"} if any(wool.role == "core" for part in parts for wool in part.wools) else set()
    for part in parts:
        roles = {wool.role for wool in part.wools}
        found |= {"cover"} & roles | {"coat"} & roles
        if any(wool.role == "core" and wool.form == "tops" for wool in part.wools):
            found.add("tops")
        if part.count > 1 and "core" in roles:
            found.add("pairs")
        if part.on and roles:
            found.add("joins")
        if part.kind == "eye":
            found.add("eyes")
        if part.kind == "head":
            found.add("head")
    return found


def steps(parts: Sequence[Worked], school: Mapping, fitted: Sequence[tuple[str, str]] = ()) -> list[Step]:
    """The steps in an order in which each comes after what it waits for. `fitted`: notion and words of each fitting."""
    by_key = {part.key: part for part in parts}
    work = [_gather(parts), *_prepare(parts, school)]
    if any(notion == "clay" for notion, _ in fitted):
        work.append(_bake())
    prepared = tuple(step.id for step in work)
    for part in parts:
        work += _of(part, by_key, school, prepared)
    work += _eyes(parts, school)
    work += _fittings(fitted, tuple(step.id for step in work))
    work += _finish(parts, school, tuple(step.id for step in work))
    return ordered(work, parts, school)


def ordered(found: Sequence[Step], parts: Sequence[Worked], school: Mapping) -> list[Step]:
    """A topological order; among what is free the lowest rank, then the order of the parts."""
    place = {part.key: n for n, part in enumerate(parts)}
    if way(school, "build") == "head":
        place |= {part.key: -1 for part in parts if part.kind == "head"}
    known = {step.id for step in found}
    waiting, done, out = list(found), set(), []
    while waiting:
        free = [step for step in waiting if all(step_id in done or step_id not in known for step_id in step.after)]
        following = min(
            free or waiting, key=lambda step: (RANK[step.kind], place.get(step.part, 99), found.index(step))
        )
        out.append(following)
        done.add(following.id)
        waiting.remove(following)
    return out


def minutes_range(minutes: float) -> tuple[float, float]:
    """The 10 and 90 % points of a time whose middle is that."""
    spread = math.exp(Z90 * MINUTES_SIGMA)
    return minutes / spread, minutes * spread


def _gather(parts: Sequence[Worked]) -> Step:
    return Step("gather", "gather", "Lay everything out", "Wools weighed out, needles counted out, notions beside them.",
                minutes=5, compare="Is everything on the list there?", cautions=("count",))  # fmt: skip


def _prepare(parts: Sequence[Worked], school: Mapping) -> list[Step]:
    wools = [wool for part in parts for wool in part.wools]
    found = []
    mixed = {wool.fibre for wool in wools if wool.breed == "mixed"}
    if mixed:
        found.append(Step("prepare:blend", "prepare", "Blend once, enough for all of it",
                          f"{', '.join(sorted(mixed))}: stack whole strips, pull apart, stack again.", minutes=10,
                          compare="Is it even, or as heathered as you want it?"))  # fmt: skip
    if any(wool.form == "fleece" for wool in wools):
        found.append(Step("prepare:card", "prepare", "Card the fleece", "Open it and card it to a batt.", minutes=15,
                          cautions=("fleece",)))  # fmt: skip
    if any(wool.role == "core" and wool.form == "tops" for wool in wools) and way(school, "wool") != "as they are":
        words = {
            "restacked": "Pull the tops apart and restack them crosswise.",
            "broken up": "Break the tops up small.",
        }
        found.append(Step("prepare:tops", "prepare", "Tops for the bodies", words[way(school, "wool")], minutes=6))
    coats = [wool for wool in wools if wool.role == "coat"]
    if coats:
        lengths = ", ".join(sorted({f"{wool.fibre} {wool.pulled_mm:.0f} mm" for wool in coats}))
        found.append(Step("prepare:locks", "prepare", "Draw locks to length", f"{lengths}; lay them in one direction.",
                          minutes=8, compare="All of one length?"))  # fmt: skip
    return found


def _bake() -> Step:
    return Step("prepare:clay", "prepare", "Bake the clay first", "It is baked and cold before it meets wool.", minutes=20,
                compare="Cold, and of the right size against the figure?", cautions=("clay",), wait_hours=2)  # fmt: skip


def _fittings(fitted: Sequence[tuple[str, str]], before: tuple[str, ...]) -> list[Step]:
    """One step a fitting, on the finished figure, but before it is turned and tugged."""
    found = []
    for n, (notion, words) in enumerate(fitted):
        fitting = FITTINGS[notion]
        how = "A wisp over it and its thread through the wool hold it. Try its place with a pin first."
        cautions = tuple(dict.fromkeys(("join", fitting.caution) if fitting.caution else ("join",)))
        found.append(
            Step(f"fit:{n}", "eyes", f"Fit the {words or fitting.words}", how, minutes=MINUTES_A_FITTING * 2,
                 compare="Does it hang, sit or close as it should? Is no point felt?", cautions=cautions, after=before)
        )  # fmt: skip
    return found


def _of(part: Worked, by_key: Mapping[str, Worked], school: Mapping, prepared: tuple[str, ...]) -> list[Step]:
    """The steps of one part: wire, making, soft layers, join, covers, details, coat."""
    if part.kind == "eye" and part.bead_mm:
        return []
    found, before = [], prepared
    name = f"{part.count} × {part.name}" if part.count > 1 else part.name
    if part.wire:
        found.append(Step(f"wire:{part.key}", "wire", f"Wire for {name}", part.wire, part.key, minutes=4 * part.count,
                          compare="Do both lie on each other?" if part.count > 1 else "Does it lie on the plan?",
                          cautions=("wire",), after=before))  # fmt: skip
        before = (f"wire:{part.key}",)
    cores = tuple(wool for wool in part.wools if wool.role in ("core", "weighed"))
    # locks and plumes are not made: they are taken when they are joined
    made = any(wool.role == "core" for wool in cores) or bool(cores and not part.on)
    if made:
        found.append(_make(part, name, cores, school, before))
        before = (f"make:{part.key}",)
    late = part.kind in LATE
    for n, wool in enumerate(other for other in part.wools if other.role == "padding"):
        found.append(Step(f"pad:{part.key}:{n}", "pad", f"A soft layer on {name}",
                          f"{wool.slot}: tacked on lightly, so that it stays soft.", part.key,
                          needles_for(part.firmness, "padding", False), (wool,), _least(wool.grams * 2), "Soft to the finger?",
                          ("needle",), before))  # fmt: skip
        before = (found[-1].id,)
    if cores and (host := _joined_to(part, by_key)):
        found += _join(part, name, host, school, before, late, () if made else cores)
        before = (f"join:{part.key}",)
    found += _skins(part, name, school, before, by_key)
    return found


def _make(part: Worked, name: str, cores: tuple[Wool, ...], school: Mapping, before: tuple[str, ...]) -> Step:
    words = []
    if part.count > 1:
        words.append({
            "halves": f"Tear one piece in {part.count} equal parts and work them side by side.",
            "strip": f"Cut one long piece in {part.count}.",
            "stencil": "Hold each to the stencil as you go.",
            "beside": "Lay them side by side as you go.",
            "free": "They need not match.",
        }[way(school, "twins", part.key)])  # fmt: skip
    words.append("Wind it round the wire." if part.wire else "Roll it tight and stab from all sides.")
    if way(school, "amounts", part.key) == "small":
        words.append("Begin with three quarters of it and add.")
    words.append(f"Shape it at two thirds, then to {FIRMNESS_WORDS.get(part.firmness, part.firmness)}.")
    if part.on and way(school, "attach", part.key) in ("loose end", "pinned"):
        words.append("Leave the end for the join loose.")
    compare = f"Against the template: {part.size}." if part.size else "Against the template."
    if part.count > 1 and way(school, "twins", part.key) != "free":
        close = part.kind in BEARING
        compare += (
            " Beside each other: within a few per cent, they carry." if close else " Beside each other: alike enough?"
        )
    bundle = way(school, "needles", part.key) == "bundle" and part.kind not in FACE
    minutes = sum(wool.grams for wool in cores) * MINUTES_A_GRAM.get(part.firmness, 5.0)
    return Step(f"make:{part.key}", "make", f"Make {name}", " ".join(words), part.key,
                needles_for(part.firmness, "face" if part.kind in FACE else "core", bundle), cores,
                _least(minutes, part.count), compare, ("wire",) if part.wire else ("needle",), before)  # fmt: skip


def _joined_to(part: Worked, by_key: Mapping[str, Worked]) -> Worked | None:
    """What the part is joined to: what it sits on, or, where that has no wool, what that sits on."""
    host, seen = by_key.get(part.on or ""), {part.key}
    while host and not host.wools and host.key not in seen:
        seen.add(host.key)
        host = by_key.get(host.on or "")
    return host if host and host.wools else None


def _join(
    part: Worked, name: str, host: Worked, school: Mapping, before: tuple[str, ...], late: bool,
    wools: tuple[Wool, ...],
) -> list[Step]:  # fmt: skip
    how = way(school, "attach", part.key)
    after = [*before]
    if any(wool.role == "core" for wool in host.wools):
        after.append(f"make:{host.key}")
    if host.on and not late:
        after.append(f"join:{host.key}")
    if late:
        after += [f"{kind}:{host.key}" for kind in ("cover", "coat")]
    words = []
    if part.kind in TRIED or how == "pinned":
        words.append("Try it with a pin first: look from the front, the side and upside down.")
    words.append({
        "loose end": "Spread the loose end over the place and felt it in, all round.",
        "pinned": "Pin it, spread the loose end and felt it in, all round.",
        "stitch": "Stitch it round twice, the thread hidden in the join.",
        "glue": "Glue it, hold it, leave it until it is dry.",
        "bored": "Bore a hole with the awl, glue on the bare wire, push it in.",
        "wisp": "Lay a wisp over the join like tape and felt it in.",
    }[how])  # fmt: skip
    if part.kind in BEARING:
        words.append("It carries: a wisp crosswise over the joint, felted deep.")
    if how != "wisp":
        words.append("A thin wisp over the seam hides it.")
    glued = how in ("glue", "bored")
    compare = (
        "Level and alike from the front? Does it stand?" if part.kind in ("leg", "foot") else "Level? Symmetrical?"
    )
    kind = "late" if late else "join"
    return [Step(f"join:{part.key}", kind, f"Join {name} to {host.name}", " ".join(words), part.key,
                 needles_for(part.firmness, "core", False), wools, MINUTES_A_JOIN * part.count, compare,
                 ("glue",) if glued else ("join",), tuple(after), GLUE_HOURS if glued else 0.0)]  # fmt: skip


def _skins(
    part: Worked, name: str, school: Mapping, before: tuple[str, ...], by_key: Mapping[str, Worked]
) -> list[Step]:
    """Covers, details and coat, in the order in which they are laid."""
    found = []
    covers = tuple(wool for wool in part.wools if wool.role == "cover")
    # what sits on it and is not late is joined before the good colour goes over the seams
    structure = tuple(
        f"join:{other.key}" for other in by_key.values() if other.on == part.key and other.kind not in LATE
    )
    if covers:
        words = "Thin layers crosswise, until nothing under it shows."
        if way(school, "surface", part.key) == "smooth":
            words += " Two fine needles together make it smooth."
        if part.kind in ("head", "snout"):
            words += " Go over the mouth again: it fills under every layer."
        found.append(Step(f"cover:{part.key}", "cover", f"Cover {name}", words, part.key,
                          needles_for(part.firmness, "cover", False), covers,
                          _least(sum(wool.area_cm2 for wool in covers) * MINUTES_A_CM2),
                          "Does the core grin through? Look from the side before you go on.", ("needle",),
                          before + structure))  # fmt: skip
        before = (found[-1].id,)
    details = tuple(wool for wool in part.wools if wool.role == "detail")
    if details:
        found.append(Step(f"detail:{part.key}", "detail", f"Details on {name}",
                          f"{', '.join(wool.slot for wool in details)}: both ends first, shallow stabs; half of what "
                          "you pull goes back.", part.key, needles_for(part.firmness, "detail", False), details,
                          MINUTES_A_DETAIL * len(details) * part.count, "Spaced evenly? Alike on both sides?", ("needle",),
                          before))  # fmt: skip
        before = (found[-1].id,)
    coats = tuple(wool for wool in part.wools if wool.role == "coat")
    if coats:
        trim = {"zone": "Trim after each zone, against your picture.", "row": "Trim each row.", "lock": "Trim each lock.",
                "hardly": "Leave it long."}[way(school, "trim", part.key)]  # fmt: skip
        words = "Row by row from the bottom up, and on a face from the back towards the nose. " + trim
        found.append(Step(f"coat:{part.key}", "coat", f"Plant the coat of {name}", words, part.key,
                          needles_for(part.firmness, "coat", False), coats,
                          _least(sum(wool.row_cm for wool in coats) * MINUTES_A_ROW_CM), "Even from all sides?",
                          ("needle", "scissors"), before + structure))  # fmt: skip
    return found


def _eyes(parts: Sequence[Worked], school: Mapping) -> list[Step]:
    found = []
    for part in parts:
        if part.kind != "eye" or not part.bead_mm:
            continue
        host = part.on or ""
        when = way(school, "eyes", part.key)
        done = {"early": ("make",), "middle": ("make", "cover")}.get(when, AFTER_ALL)
        words = "Try them with pins: one line, one height, as far from the middle. "
        words += "Bore with the awl, glue on the shank, push in."
        found.append(
            Step(
                f"eyes:{part.key}",
                "eyes" if when == "last" else "detail",
                f"Set {part.count} × {part.name}",
                words,
                part.key,
                minutes=MINUTES_A_FITTING * part.count,
                compare="Level? Do they look the same way? Look upside down.",
                cautions=("glue", "small parts"),
                after=tuple(f"{kind}:{host}" for kind in done),
                wait_hours=GLUE_HOURS,
            )
        )
    return found


def _finish(parts: Sequence[Worked], school: Mapping, before: tuple[str, ...]) -> list[Step]:
    strays = {"stab": "Stab stray fibres in.", "cut": "Cut stray fibres off.", "leave": "Leave the strays."}
    return [
        Step("finish", "finish", "Turn it, tug it, stand it",
             f"{strays[way(school, 'strays')]} Turn it round, tug at every part, stand it, look at it upside down.",
             needles="one 40, shallow", minutes=10, compare="Does it stand? Does every part hold? Is any part forgotten?",
             cautions=("needle",), after=before),
        Step("away", "away", "Put away", "Offcuts to the scrap bag, what is left back into its bags.", minutes=4,
             compare="All needles back?", cautions=("count",), after=(*before, "finish")),
    ]  # fmt: skip


def _least(minutes: float, count: int = 1) -> float:
    return max(LEAST_MINUTES * count, minutes)
