"""The steps that lie on a part: covers, details, a drawn-in mouth, a coat in rows."""

from __future__ import annotations

from .amounts import about, mm
from .job import Job
from .making import MINUTES_A_DENT, has_face
from .needles import needles_for
from .step import After, Step, at_least
from .worked import Wool, Worked

MINUTES_A_CM2, MINUTES_A_ROW_CM, MINUTES_A_DETAIL = 0.2, 0.8, 4.0
TRIM_SHARE = 0.25  # of a coat's time goes into trimming
LOCK_PACE = 1.1  # of its time where every lock is trimmed by itself
AN_END, PATCHES, PAIR = 0.97, 2, 2


def skin_steps(part: Worked, job: Job, before: tuple[After, ...]) -> list[Step]:
    """Covers, details and coat in the order in which they are laid, the last of each under the next."""
    found: list[Step] = []
    seams = tuple(
        After(f"join:{other.key}", "seam")
        for other in job.on(part)
        if not job.is_late(other) and not job.is_bound(other)
    )
    for step in (_cover(part, seams), _detail(part, job), _mouth(part, job), _coat(part, job)):
        if step is None:
            continue
        after = (After(found[-1].id, "ground"),) if found else before
        found.append(_following(step, after))
    return found


def _following(step: Step, before: tuple[After, ...]) -> Step:
    return Step(**{**step.__dict__, "after": tuple(dict.fromkeys((*before, *step.after)))})


def _cover(part: Worked, seams: tuple[After, ...]) -> Step | None:
    covers = part.of("cover")
    if not covers:
        return None
    upper, *others = covers
    words = (
        upper.fibre if not others else f"{upper.fibre} from above, {' and '.join(w.fibre for w in others)} from beneath"
    )
    words += (
        ", a little over each other where they meet."
        if others
        else " all over."
        if upper.share >= 1
        else (
            f" on {upper.share * 100:.0f} % of it, {'where no coat grows' if part.of('coat') else 'not where it is hidden'}."
        )
    )
    return Step(
        f"cover:{part.key}",
        "cover",
        f"Cover {part.called}",
        words,
        part.key,
        needles_for(part, "cover"),
        covers,
        at_least(sum(wool.area_cm2 for wool in covers) * MINUTES_A_CM2),
        "Does what is beneath grin through?",
        ("needle",),
        seams,
        method="cover",
        parts=part.keys,
    )


def _mouth(part: Worked, job: Job) -> Step | None:
    """A mouth, and in a full face brow and cheeks, on the snout or, without one, on the head."""
    head = job.host(part) if part.kind == "snout" else part
    if head is None or not has_face(head, job) or part.shape == "cone":
        return None
    if part.kind == "head" and any(other.kind == "snout" for other in job.on(part)):
        return None
    full = job.way("sculpt", head) == "full"
    noses = [other for other in (*job.on(part), *job.on(head)) if other.kind == "nose" and other.is_made]
    under = "under the nose" if noses or _has_drawn_nose(part) else "low on the face"
    words = f"A line {under}, each half as long as an eye is from the middle."
    if full:
        words += " Then a wisp over each eye as a brow, and one for each cheek."
    fills = (
        After(f"cover:{part.key}", "fills"),
        After(f"cover:{head.key}", "fills"),
        *(After(f"join:{nose.key}", "under") for nose in noses),
    )
    return Step(
        f"mouth:{part.key}",
        "face",
        f"Draw the mouth into {part.name}",
        words,
        part.key,
        needles_for(part, "face"),
        minutes=MINUTES_A_DENT * (6 if full else 2),
        compare="Alike on both sides? Upside down, too?",
        cautions=("needle",),
        after=fills,
        method="mouth",
        parts=part.keys,
    )


def _has_drawn_nose(part: Worked) -> bool:
    """Whether its nose is a patch of wool at its tip."""
    return any(wool.t >= AN_END and wool.how == "patch" for wool in part.of("detail"))


def _detail(part: Worked, job: Job) -> Step | None:
    details = part.of("detail")
    if not details:
        return None
    hows = dict.fromkeys("stripe" if _is_stripe(wool) else wool.how or "patch" for wool in details)
    words = " ".join(_said(wool, part, job) for wool in details)
    if part.count > 1:
        both = "the other" if part.count == 2 else "all"
        words += f" Do the same on {both} before the next." if len(details) > 1 else " Held side by side."
    even = any(wool.pieces > PAIR for wool in details)
    compare = "Spaced evenly? Alike on both sides?" if even else "Alike on both sides?"
    if "line" in hows and job.way("lines", part) == "guided":
        compare += " Does it lie where it should, before it is stabbed?"
    if "line" in hows and job.way("lines", part) == "middle":
        compare += " Are both halves of each line alike?"
    if part.count == 1 and all(wool.pieces == 1 for wool in details):
        compare = "Where it should be, from the front and from above?"
    one = len(details) == 1 and details[0].pieces == 1 and part.count == 1
    if part.shape == "none":
        title = "Lay on"
    elif one:
        title = {"line": "A line on", "border": "A soft border on", "stripe": "A stripe on"}.get(
            next(iter(hows)), "A patch on"
        )
    else:
        title = {"spots": "Dots on", "line": "Lines on", "border": "Soft borders on", "stripe": "Stripes on"}.get(
            next(iter(hows)), "Patches on"
        )
    if len(hows) > 1 or part.kind == "eye":
        title = "Iris and pupil of" if part.kind == "eye" else "Markings on"
    return Step(
        f"detail:{part.key}",
        "detail",
        f"{title} {part.called}",
        words,
        part.key,
        needles_for(part, "detail"),
        details,
        MINUTES_A_DETAIL * len(details) * part.count,
        compare,
        ("needle",),
        method=details[0].how or "patch",
        first=0.5,
        parts=part.keys,
    )


def _said(wool: Wool, part: Worked, job: Job) -> str:
    """One detail: its wool, how many, how big, where."""
    where = " at its tip" if wool.t >= AN_END else " underneath" if wool.angle == 180 else ""
    match wool.how:
        case "spots":
            dots = f"{wool.pieces} dots"
            if part.count > 1:
                dots += f" on each, {wool.pieces * part.count} in all"
            return f"{wool.fibre}: {dots}, {mm(wool.wide_mm)} across, evenly{where}."
        case "line":
            begun = {
                "ends": "both ends first",
                "middle": "the middle first",
                "guided": "one end first, the twist guided along",
            }
            count = f"{wool.pieces} lines, each" if wool.pieces > 1 else "a line"
            return f"{wool.fibre}: {count} {mm(wool.long_mm)} long, {mm(wool.wide_mm)} wide, {begun[job.way('lines', part)]}."
        case "border":
            return f"{wool.fibre}: a soft border, {mm(wool.wide_mm)} wide."
    if not _is_stripe(wool):
        count = f"{wool.pieces} patches, each" if wool.pieces > 1 else "a patch"
        return f"{wool.fibre}: {count} about {about(wool.wide_mm)} across{where}."
    count = f"{wool.pieces} stripes, each" if wool.pieces > 1 else "a stripe"
    return f"{wool.fibre}: {count} about {about(wool.long_mm)} × {about(wool.wide_mm)}{where}."


def _is_stripe(wool: Wool) -> bool:
    return wool.how in ("", "patch") and wool.long_mm > PATCHES * wool.wide_mm


def _coat(part: Worked, job: Job) -> Step | None:
    coats = part.of("coat")
    if not coats:
        return None
    trim = job.way("trim", part)
    said = [f"{wool.fibre}: {_rows(wool)}." for wool in coats]
    said.append(
        {
            "zone": "",
            "end": "",
            "row": "Trim each row before the next.",
            "lock": "Trim each lock at once.",
            "hardly": "It stays long.",
        }[trim]
    )
    share = 1 - TRIM_SHARE if trim in ("zone", "end", "hardly") else LOCK_PACE if trim == "lock" else 1.0
    return Step(
        f"coat:{part.key}",
        "coat",
        f"Plant the coat of {part.called}",
        " ".join(filter(None, said)),
        part.key,
        needles_for(part, "coat"),
        coats,
        at_least(sum(wool.row_cm for wool in coats) * MINUTES_A_ROW_CM * share),
        "Rows even, no skin between them?",
        ("needle", *(["scissors"] if trim in ("row", "lock") else [])),
        _coat_after(part, job),
        method="coat",
        parts=part.keys,
    )


def _coat_after(part: Worked, job: Job) -> tuple[After, ...]:
    return tuple(After(f"join:{other.key}", "reach") for other in job.on(part) if not job.is_late(other))


def _rows(wool: Wool) -> str:
    locks = f"locks of {mm(wool.pulled_mm)}{', folded in the middle' if wool.folded else ''}"
    spaced = f", rows {mm(wool.row_mm)} apart" if wool.row_mm else ""
    return f"{locks}{spaced}, {mm(wool.row_cm * 10)} of rows in all; {mm(wool.finished_mm)} stand in the end"


def trim_steps(part: Worked, job: Job) -> list[Step]:
    """Trim the coat by itself, after a zone or at the end."""
    trim = job.way("trim", part)
    if not part.of("coat") or trim not in ("zone", "end"):
        return []
    wool = part.of("coat")[0]
    minutes = at_least(sum(each.row_cm for each in part.of("coat")) * MINUTES_A_ROW_CM * TRIM_SHARE)
    words = f"To {mm(wool.finished_mm)}, the scissors along the coat, a little at a time; the clippings go to the scrap bag."
    return [
        Step(
            f"trim:{part.key}",
            "coat" if trim == "zone" else "finish",
            f"Trim the coat of {part.called}",
            words,
            part.key,
            minutes=minutes,
            compare="Against your picture: even from all sides?",
            cautions=("scissors",),
            after=(After(f"coat:{part.key}", "made"),),
            parts=part.keys,
        )
    ]
