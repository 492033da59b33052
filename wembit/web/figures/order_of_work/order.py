"""The order of work of a version: the core's steps, with what the maker changed in them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.schools import asked, way
from wembit.core.work.steps import Step, Wool, Worked, minutes_range, needs_of, steps
from wembit.web import numbers
from wembit.web.figures.models import SCHOOL, Part, Version
from wembit.web.figures.size_words import sizes
from wembit.web.figures.to_core.estimating import LOOSE_END, FigurePlan, PartPlan
from wembit.web.figures.to_core.wiring import wire_of


def fitted(version: Version) -> list[tuple[str, str]]:
    """Notion and words of each fitting that the maker put on."""
    return [(fitting["notion"], fitting.get("words", "")) for fitting in version.fittings]


@dataclass(frozen=True)
class Line:
    """A step as the page shows it."""

    step: Step
    number: int
    low_min: float
    high_min: float
    cautions: list[str]
    changed: bool
    own: bool


def school_of(version: Version) -> dict:
    """The ways that hold for a version: the studio's, and over them the figure's own."""
    return {**version.studio.habits.get(SCHOOL, {}), **version.school}


def worked(version: Version, parts: Sequence[Part], plan: FigurePlan) -> list[Worked]:
    """The parts as the core's order of work wants them."""
    by_key = {other.part.key: other for other in plan.parts}
    return [_worked(part, by_key.get(part.key), version) for part in parts]


def _worked(part: Part, plan: PartPlan | None, version: Version) -> Worked:
    studio, wire = version.studio, wire_of(part)
    wire_words = ""
    if wire:
        said = {"pieces": wire.pieces, "cut": " ".join(numbers.length(wire.cut_mm, studio)),
                "gauge": " ".join(numbers.length(wire.gauge_mm, studio)),
                "make": f" {wire.make.words}" if wire.make.words else ""}  # fmt: skip
        wire_words = "Cut {pieces} × {cut} of {gauge}{make}, bend it on the plan, bend its ends over.".format(**said)
        if wire.former:
            wire_words += " It is a former: it comes out again."
    lengths = [numbers.length(size.mm, studio)[0] for size in sizes(part.shape) if size.name != "wire_mm"]
    size = f"{' × '.join(lengths)} {numbers.length(0, studio)[1]}" if lengths else ""
    loose = version.studio.habits.get(LOOSE_END, 0.0) if part.loose_end_mm is None else part.loose_end_mm
    return Worked(
        part.key, part.name, part.kind, part.count, part.seat.get("on"), part.firmness,
        tuple(_wool(layer) for layer in plan.layers) if plan else (), wire_words, part.seat.get("bead_mm", 0.0),
        bool(part.seat.get("shank_mm")), loose, size,
    )  # fmt: skip


def _wool(each: Any) -> Wool:
    grams, rule, item = each.grams, each.layer.rule, each.item
    area = grams.rule_g / grams.cover_g_m2 * 10_000 if grams.cover_g_m2 else 0.0
    rows = grams.rule_g / rule["grams_per_cm"] if each.layer.role == "coat" else 0.0
    return Wool(
        each.layer.role, item.name if item else each.layer.slot.name, each.layer.slot.name, grams.middle,
        grams.trimmed_g or 0.0, area, rows, rule.get("pulled_mm", 0.0), rule.get("finished_mm", 0.0),
        item.form if item else "", item.breed if item else "",
    )  # fmt: skip


def order_of(version: Version, parts: Sequence[Part], plan: FigurePlan) -> list[Line]:
    """All steps in the maker's order, his words and minutes in place of the rule's; steps left out are not there."""
    by_id = {step.id: step for step in steps(worked(version, parts, plan), school_of(version), fitted(version))}
    kept = version.order
    own = kept.get("own", {})
    by_id |= {
        key: Step(key, "make", each["title"], each["words"], minutes=each["minutes"]) for key, each in own.items()
    }
    said = kept.get("said", {})
    ids = [key for key in _in_order(list(by_id), kept.get("first", [])) if key not in kept.get("off", [])]
    lines = []
    for number, key in enumerate(ids, 1):
        step = by_id[key]
        if key in said:
            step = replace(
                step, **{name: value for name, value in said[key].items() if name in ("title", "words", "minutes")}
            )
        low, high = minutes_range(step.minutes)
        cautions = [CAUTIONS[caution] for caution in step.cautions]
        lines.append(Line(step, number, low, high, cautions, key in said, key in own))
    return lines


def _in_order(ids: list[str], wanted: list[str]) -> list[str]:
    """The maker's order; steps that came since stand after what they followed in the rule's order."""
    out = [key for key in wanted if key in ids]
    for position, key in enumerate(ids):
        if key not in out:
            before = ids[position - 1] if position else None
            out.insert(out.index(before) + 1 if before in out else 0, key)
    return out


def left_out(version: Version, parts: Sequence[Part], plan: FigurePlan) -> list[Step]:
    """The steps that the maker has left out."""
    off = version.order.get("off", [])
    return [step for step in steps(worked(version, parts, plan), school_of(version), fitted(version)) if step.id in off]


def questions(version: Version, parts: Sequence[Part], plan: FigurePlan) -> tuple[list[str], list[str]]:
    """The questions of the schools that this figure raises and nobody answered, and all that it raises."""
    needs = needs_of(worked(version, parts, plan))
    return asked(needs, school_of(version)), asked(needs, {})


def chosen_way(version: Version, question: str) -> str:
    """The way that a figure goes in a question."""
    return way(school_of(version), question)
