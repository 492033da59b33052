"""Why a number is what it is: its inputs, the rule, the source, and what would change it. One line each."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.core.craft.materials import FILLING_DENSITY, FIRMNESS, FIRMNESS_WORDS
from wembit.web import numbers
from wembit.web.figures.to_core.estimating import LayerPlan, PartPlan
from wembit.web.figures.to_core.hands import ALL, hand

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

CORE = (
    "{volume} cm³ inside × {share} % × {density} g/cm³ ({firmness}; common practice) × {count}, "
    "and {loss} % lost on the pad. Another size, firmness or share changes it."
)
COVER = (
    "{area} cm² of skin in all × {g_m2} g a m², the least that hides what is under it (Kallmes & Corte 1960; CIEDE2000 "
    "within 2; at least 60), {loss} % loss within. A paler ground, a finer wool or a smaller share changes it."
)
DETAIL = (
    "{area} cm² of spots and lines in all × {g_m2} g a m² over what they lie on, {loss} % loss within. "
    "Their number and size change it."
)
COAT = (
    "{rows} cm of rows, {spacing} mm apart × {g_cm} g a cm (your weighed row) with {loss} % loss; "
    "{trimmed} % is trimmed off. Closer rows, thicker rows or longer locks change it."
)
PADDING = (
    "Skin × {thick} mm × {density} g/cm³ ({firmness}) × {count}, within the part’s size. Its thickness changes it."
)
OWN = " Your hands take {times} times that, as {n} weighed parts show."
WEIGHED = "{grams} g a piece, as you said, × {count}, and {loss} % lost. Your scale changes it."


def why_layer(plan: PartPlan, each: LayerPlan, studio: Studio) -> str:
    """The line behind a layer's grams, with what the studio's hands make of the rule."""
    known = hand(studio, each.counts_for)
    own = OWN.format(times=numbers.plain(known.bias, 2, studio.decimal_mark), n=known.n) if known.n else ""
    return _rule_behind(plan, each, studio) + own


def why_range(studio: Studio) -> str:
    """The line behind a range."""
    n = sum(known[2] for known in studio.hands.get(ALL, {}).values())
    return LEARNT_RANGE.format(n=n) if n else RANGE


def _rule_behind(plan: PartPlan, each: LayerPlan, studio: Studio) -> str:
    rule, grams, part = each.layer.rule, each.grams, plan.part

    def n(value: float, places: int = 1) -> str:
        return numbers.plain(value, places, studio.decimal_mark)

    density, firmness = _density(plan, each)
    said = {
        "count": part.count,
        "loss": n(plan.allowance * 100, 0),
        "share": n(rule.get("share", 1.0) * 100, 0),
        "firmness": firmness,
        "density": n(density, 3),
        "volume": n(plan.volume_mm3 / 1000, 2),
    }
    match each.layer.role:
        case "core":
            return CORE.format(**said)
        case "cover" | "detail":
            area = grams.rule_g / grams.cover_g_m2 * 10_000 if grams.cover_g_m2 else 0.0
            words = COVER if each.layer.role == "cover" else DETAIL
            return words.format(**said, area=n(area, 1), g_m2=n(grams.cover_g_m2 or 0, 0))
        case "coat":
            trimmed = 100 * (grams.trimmed_g or 0) / grams.middle if grams.middle else 0
            return COAT.format(
                **said, rows=n(grams.rule_g / rule["grams_per_cm"], 0), spacing=n(rule["row_spacing_mm"]),
                g_cm=n(rule["grams_per_cm"], 3), trimmed=n(trimmed, 0),
            )  # fmt: skip
        case "padding":
            return PADDING.format(**said, thick=n(rule["thickness_mm"]))
    return WEIGHED.format(**said, grams=n(rule["grams"], 2))


def _density(plan: PartPlan, each: LayerPlan) -> tuple[float, str]:
    rule = each.layer.rule
    firmness = rule.get("firmness") or plan.part.firmness
    if "density_g_cm3" in rule:
        return rule["density_g_cm3"], "its own"
    if each.layer.role == "core" and each.item and each.item.form == "filling" and not rule.get("firmness"):
        return FILLING_DENSITY, "filling"
    return FIRMNESS.get(firmness, 0.0), FIRMNESS_WORDS.get(firmness, "")


RANGE = (
    "One in ten comes out below, one in ten above: the spread of a new studio (σ 0.25), layers varying together by half "
    "(Fenton 1960). Weighing your work narrows it."
)
LEARNT_RANGE = (
    "One in ten comes out below, one in ten above, as {n} weighed parts of yours show, layers varying together by half "
    "(Fenton 1960). Weighing more narrows it."
)
STANDS = ("The middle of the weight, each piece at its own middle by its grams, over the ground that the feet span "
          "within 2 mm, 5 mm on wire. Heavier feet, a lighter head or a wider stand change it.")  # fmt: skip
