"""The steps around a figure: laying out and preparing before it, smoothing, strays and putting away after it."""

from __future__ import annotations

from .amounts import mm
from .job import Job
from .step import After, Step

TOGETHER_MINUTES = 5.0
MINUTES_A_TOPS_G, LEAST_TOPS = 0.6, 3.0
MINUTES_A_CM2_SMOOTH = 0.05


def gather(job: Job) -> Step:
    """Lay out: what is weighed, what is felted on, what keeps the fingers whole."""
    weigh, pad, fingers = job.way("weigh"), job.way("pad"), job.way("fingers")
    wools = {wool.fibre for part in job.parts for wool in part.wools}
    words = [
        {
            "all": "Weigh out every wool by part.",
            "bodies": "Weigh out the large parts; the rest is taken by eye.",
            "nothing": "Wools beside each other, taken by eye and finger.",
        }[weigh],
        {"foam": "A block of foam.", "mat": "A wool mat.", "brush": "A brush mat.", "colours": "Two pads."}[pad],
        "Needles counted out.",
        {
            "care": "",
            "guards": "Leather guards on thumb and finger.",
            "helper": "A second needle to hold small pieces.",
        }[fingers],
    ]
    minutes = (
        TOGETHER_MINUTES if weigh == "nothing" else TOGETHER_MINUTES + {"all": 1.0, "bodies": 0.5}[weigh] * len(wools)
    )
    return Step(
        "gather",
        "gather",
        "Lay everything out",
        " ".join(filter(None, words)),
        minutes=minutes,
        compare="Is everything on the list there?" + (" Is the foam whole where you stab?" if pad == "foam" else ""),
        cautions=("count", *(["brush"] if pad == "brush" else [])),
    )


def prepare(job: Job, before: tuple[After, ...]) -> list[Step]:
    """Blends, fleece, tops for bodies and locks, each once and enough for all of it."""
    wools = [wool for part in job.parts for wool in part.wools]
    found = []
    if job.way("pad") == "colours":
        found.append(
            Step(
                "prepare:pads",
                "prepare",
                "One pad for pale, one for dark",
                "Dark fibres creep: into a pale face, through a thin ear. Nothing dark touches the pale pad.",
                minutes=2,
                compare="Is the pale pad clean?",
                after=before,
            )
        )
    mixed = {wool.fibre for wool in wools if wool.breed == "mixed"}
    if mixed:
        found.append(
            Step(
                "prepare:blend",
                "prepare",
                "Blend once, enough for all of it",
                f"{', '.join(sorted(mixed))}: stack whole strips, pull apart, stack again.",
                minutes=10,
                compare="Is it even, or as heathered as you want it?",
                after=before,
            )
        )
    fleece = sorted({wool.fibre for wool in wools if wool.form == "fleece"})
    if fleece:
        found.append(
            Step(
                "prepare:card",
                "prepare",
                "Card the fleece",
                f"{', '.join(fleece)}: opened, and carded to a batt.",
                minutes=15,
                cautions=("fleece",),
                after=before,
            )
        )
    how, bodies = job.way("wool"), [wool for wool in wools if wool.role == "core" and wool.form == "tops"]
    if bodies and how != "as they are":
        names = ", ".join(sorted({wool.fibre for wool in bodies}))
        words = {
            "restacked": f"{names}: pulled apart and restacked crosswise.",
            "broken up": f"{names}: broken up small.",
        }
        minutes = max(LEAST_TOPS, MINUTES_A_TOPS_G * sum(wool.grams for wool in bodies))
        found.append(
            Step("prepare:tops", "prepare", f"Open the tops: {names}", words[how], minutes=minutes, after=before)
        )
    coats = [wool for wool in wools if wool.role == "coat"]
    if coats:
        lengths = ", ".join(sorted({f"{wool.fibre} {mm(wool.pulled_mm)}" for wool in coats}))
        found.append(
            Step(
                "prepare:locks",
                "prepare",
                "Draw locks to length",
                f"{lengths}; lay them in one direction.",
                minutes=8,
                compare="All of one length?",
                after=before,
            )
        )
    return found


def bake(before: tuple[After, ...]) -> Step:
    """Clay is baked before it meets wool."""
    return Step(
        "prepare:clay",
        "prepare",
        "Bake the clay first",
        "It is baked and cold before it meets wool.",
        minutes=20,
        compare="Cold, and of the right size against the figure?",
        cautions=("clay",),
        wait_hours=2,
        after=before,
    )


def finish(job: Job, before: tuple[After, ...]) -> list[Step]:
    """Smooth, then strays, then turn, tug and stand it; needles counted at the end."""
    found: list[Step] = []
    locks = any(part.of("coat") or (part.of("weighed") and not part.is_made) for part in job.parts)
    skin = sum(wool.area_cm2 for part in job.parts for wool in part.of("cover"))
    if skin and job.way("surface") == "smooth":
        found.append(
            Step(
                "smooth",
                "finish",
                "Smooth it all over",
                f"Two fine needles together, short stabs, aslant{'; not where locks stand' if locks else ''}.",
                needles="two 40 or 42 side by side; one on the face",
                minutes=max(4.0, skin * MINUTES_A_CM2_SMOOTH),
                compare="No needle marks, held against the light?",
                cautions=("needle",),
                after=before,
            )
        )
    strays = {
        "stab": (
            "Stab the strays in",
            "Roll each stray under the needle and stab it in where it came out.",
            "one 40, shallow",
            6.0,
            ("needle",),
        ),
        "cut": ("Cut the strays off", "Along the wool, never towards it.", "", 3.0, ("scissors",)),
    }
    if told := strays.get(job.way("strays")):
        title, words, needles, minutes, cautions = told
        found.append(
            Step(
                "strays",
                "finish",
                title,
                words,
                needles=needles,
                minutes=minutes,
                cautions=cautions,
                after=(*before, *(After(step.id, "settled") for step in found)),
            )
        )
    before = (*before, *(After(step.id, "last") for step in found))
    found.append(
        Step(
            "finish",
            "finish",
            "Turn it, tug it, stand it",
            "On every part, from every side and upside down.",
            needles="one 40, shallow",
            minutes=5,
            compare="Does it stand? Does every part hold? Is any part forgotten?",
            cautions=("give",),
            after=before,
        )
    )
    found.append(
        Step(
            "away",
            "away",
            "Put away",
            "Offcuts to the scrap bag, what is left back into its bags.",
            minutes=4,
            compare="All needles back?",
            cautions=("count",),
            after=(*before, After("finish", "last")),
        )
    )
    return found
