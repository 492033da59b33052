"""The stage of one figure, picture and tray: what it shows, and how it answers a change."""

from __future__ import annotations

import datetime as dt
from fractions import Fraction
from typing import TYPE_CHECKING, Any
from urllib.parse import urlencode

from django.db.models import prefetch_related_objects
from django.shortcuts import redirect
from django.urls import reverse
from django_htmx.http import reselect, reswap, retarget

from wembit.core.colour.show_through import LEAST_G_M2
from wembit.core.craft.armature import COATINGS, METALS, PIPE_CLEANER, WIRE
from wembit.core.craft.cautions import CAUTIONS
from wembit.core.craft.materials import FIRMNESS_WORDS, LOSS_LOOSE_ENDS
from wembit.core.craft.part_kinds import KINDS
from wembit.core.drawing.scale_objects import COIN_MM, LENGTH_MM
from wembit.core.grams.details import ALONG, DRAWN, RING, ROUND, ROW, WEIGHED_ROW_MM, kind_of
from wembit.core.grams.relations import WOOL
from wembit.core.pose.carrying import offers
from wembit.core.pose.pair_line import pair_line
from wembit.core.pose.placing import axis_length, standing_angles
from wembit.core.pose.rows import Row
from wembit.core.shape.sizes import CLOSED
from wembit.core.shape.solids import Slab
from wembit.web import clock, numbers
from wembit.web.asked import moment_in
from wembit.web.figures import queries
from wembit.web.figures.actions.tell_origin import KINDS as ORIGINS
from wembit.web.figures.actions.tell_origin import SALE, WHOM
from wembit.web.figures.drawing.fibre_options import fibre_options
from wembit.web.figures.drawing.labels import labelled
from wembit.web.figures.drawing.layout import beside_a_hand, cut_open_picture, pictures, side_by_side
from wembit.web.figures.drawing.pointers import pointers, stance
from wembit.web.figures.drawing.takes_row import takes_row
from wembit.web.figures.editing.following import held_sizes, relations_of
from wembit.web.figures.size_words import ROLES, SHAPES, WORDS, related, sizes
from wembit.web.figures.to_core.estimating import LOOSE_END, Palette, PartPlan, plan_figure, small_things, sums
from wembit.web.figures.to_core.seating import carried, placed, placed_part, visible
from wembit.web.figures.to_core.wiring import cuts_of, hole_mm, legs_of, wire_of
from wembit.web.figures.turning.views import turning_context
from wembit.web.responses import page
from wembit.web.stash.shelf.wool_forms import each_once

from .explanations import STANDS, why_layer, why_range
from .layer_form import MEASURED
from .outlines import outlines
from .part_form import FACES, ROWS

if TYPE_CHECKING:
    from collections.abc import Sequence

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure, Part, Version
    from wembit.web.figures.to_core.estimating import FigurePlan
    from wembit.web.forms import StudioForm
    from wembit.web.request import Request
    from wembit.web.studio.models import Studio


def figure_context(request: Request, figure: Figure, key: str = "", layer: int = -1) -> dict:
    """All that the page of a figure shows, with the picked part and layer."""
    moment = clock.now()  # before anything is read: what another changes from now on is asked about
    version = queries.newest_version(figure)
    prefetch_related_objects([version], "slots")
    parts = queries.parts_of(version)
    colourway = queries.colourway_of(version)
    palette = Palette.of(colourway)
    plan = plan_figure(version, parts, palette)
    totals = sums(plan)
    taken = takes_row(totals, palette)
    context = {
        "figure": figure,
        "version": version,
        "parts": parts,
        "plan": plan,
        "sums": totals,
        "taken": taken,
        "taken_forms": each_once(each.drawing for each in taken),
        "small": small_things(plan),
        "cuts": cuts_of(parts),
        **drawn(request, version, parts, palette, plan, key),
        "slots": [(slot, palette.items.get(slot.pk), palette.colour(slot.pk)) for slot in version.slots.all()],
        # called only where the list is shown
        "fibre_options": lambda: fibre_options(request.studio),
        "lists": "lists" in request.GET,
        "drawn_at": moment.isoformat(),
        "kinds": [*KINDS, "eye"],
        "origin_kinds": list(ORIGINS.items()),
        "sales": list(SALE.items()),
        "whoms": list(WHOM.items()),
        "origin_words": [ORIGINS.get(figure.origin.get("kind")), SALE.get(figure.origin.get("sale"))],
        "picked": key,
    }
    chosen = next((part for part in plan.parts if part.part.key == key), None)
    if chosen:
        context |= part_context(chosen, parts, version, palette) | layer_context(chosen, layer, palette)
    return context


PUSHES = [("right_mm", "-2", "left"), ("right_mm", "2", "right"), ("up_mm", "2", "up"), ("up_mm", "-2", "down"),
          ("deeper_mm", "1", "deeper"), ("deeper_mm", "-1", "less deep"), ("pitch", "10", "tilt up"),
          ("pitch", "-10", "tilt down"), ("yaw", "10", "turn out"), ("yaw", "-10", "turn in")]  # fmt: skip
SEE = {"named": "named", "whole": "two sides", "turn": "turned", "cut": "cut open", "hand": "beside a hand"}


def drawn(
    request: Request, version: Version, parts: Sequence[Part], palette: Palette, plan: FigurePlan, key: str
) -> dict:
    """The pictures that this member looks at, and what they point at."""
    see, kept = request.GET.get("see"), request.session.get("see")
    if see in SEE and see != kept:
        request.session["see"] = kept = see
    see = kept if kept in SEE else "whole" if key else "named"
    both = pictures(version, parts, palette)
    pieces, stand = stance(version, parts, plan)
    found = {
        "see": see,
        "see_words": SEE.get(see, ""),
        "sees": list(SEE.items()),
        "views": side_by_side(both["side"], both["front"]),
        "extent": both["side"],
        "standing": stand,
        "pointers": pointers(plan, palette, both["side"], pieces, request.studio),
        "why_stands": STANDS,
        "why_all": why_range(version.studio),
        "least_g_m2": f"{LEAST_G_M2:g}",
        "lost": f"{100 * LOSS_LOOSE_ENDS:g}",
        "mark_scale": both["side"].width / 640,
        "tips_mm": -stand.margin_mm if stand else 0,
        "offers": offers(stand, plan.all.p50, both["side"].tall / 2) if stand else [],
        "legs": legs_of(parts, plan.all.p50) if stand else [],
    }
    pair = pair_line(pieces, key) if key else None
    if pair:
        found |= {"pair": pair, "pair_y": round(-sum(pair.heights) / 2, 2)}
    if see == "named":
        found["named"] = labelled(both["side"], _named(plan, request.studio))
    elif see == "turn":
        found |= turning_context(request, version.figure, version, parts, palette)
    elif see == "cut":
        found["views"] = [cut_open_picture(version, parts, palette, plan)]
    elif see == "hand":
        frame, outline = beside_a_hand(both["side"])
        found |= {"views": [frame], "hand": outline, "hand_mm": LENGTH_MM, "coin_mm": COIN_MM, "coin_r": COIN_MM / 2,
                  "coin_x": frame.left + frame.width - COIN_MM, "coin_y": -COIN_MM / 2}  # fmt: skip
    return found


def _named(plan: FigurePlan, studio: Studio) -> dict[str, str]:
    """Each part with what it takes, by key."""
    found = {}
    for each in plan.parts:
        name = f"{each.part.count} × {each.part.name}" if each.part.count > 1 else each.part.name
        weight = numbers.NARROW.join(numbers.grams(each.grams.p50, studio))
        found[each.part.key] = f"{name} {weight}" if each.layers else name
    return found


def part_context(chosen: Any, parts: Sequence[Part], version: Version, palette: Palette) -> dict:
    """All that the tray shows of a part."""
    part = chosen.part
    pieces = placed(parts) if part.seat else []
    piece = next((each for each in pieces if each.name == part.key), None)
    held, said = held_sizes(part), dict(follows(part, parts, version.studio))
    pitch, yaw = standing_angles(piece) if piece is not None and piece.host else (part.seat.get("pitch", 0.0), 0.0)
    return {
        "part": part,
        "part_plan": chosen,
        "why_lines": [(ROLES[row.layer.role], why_layer(chosen, row, version.studio)) for row in chosen.layers],
        "why_range": why_range(version.studio),
        "layer_rows": [(row, ROLES[row.layer.role], palette.colour(row.layer.slot_id)) for row in chosen.layers],
        "sizes": [(size, held.get(size.name, ""), said.get(held.get(size.name, ""), "")) for size in sizes(part.shape)],
        "shape_word": SHAPES[part.shape["kind"]],
        "shapes": [(kind, SHAPES[kind]) for kind in CLOSED],
        "outlines": outlines() if part.shape["kind"] == Slab.KIND else [],
        "can_reshape": part.shape["kind"] in CLOSED,
        "firmnesses": list(FIRMNESS_WORDS.items()),
        "hosts": [(other.key, other.name) for other in parts if other.key not in carried(parts, part.key)],
        "faces": FACES,
        "rows": ROWS,
        "row": Row.of(part.seat["row"]) if part.seat.get("row") else None,
        "pushes": PUSHES if part.seat.get("on") else PUSHES[2:4],
        "pitch": round(pitch),
        "yaw": round(yaw),
        "seen_share": visible(parts).get(part.key, 1.0),
        "habit_mm": version.studio.habits.get(LOOSE_END),
        "roles": [(role, words) for role, words in ROLES.items() if can_take(part, role)],
        "slot_names": [slot.name for slot in version.slots.all()],
        "slot_options": [(slot.name, slot.name) for slot in version.slots.all()],
        "grams": chosen.grams,
        "wire": wire_of(part),
        "hole_mm": hole_mm(part, parts),
        "wire_caution": CAUTIONS["wire"],
        "wire_kinds": [(WIRE, "wire"), (PIPE_CLEANER, "pipe cleaner")],
        "metals": [(metal, metal) for metal in METALS],
        "coatings": list(COATINGS.items()),
        "follows": list(said.items()),
        "can_follow": [(size.name, size.words) for size in related(part.shape)] + [(WOOL, "its wool")],
        "followed": [
            (f"{each.key}/{size}", f"{each.name}: {words}")
            for each in parts
            if each.key != part.key and each.shape["kind"] != "none"
            for size, words in [*((s.name, s.words) for s in related(each.shape)), (WOOL, "its wool")]
        ],
    }


def follows(part: Part, parts: Sequence[Part], studio: Studio) -> list[tuple[str, str]]:
    """What of a part follows another, as (size, a sentence)."""
    names, found = {other.key: other.name for other in parts}, []
    for relation in relations_of(part):
        said = {
            "size": WORDS.get(relation.size, ""),
            "share": fraction(relation.share),
            "of": names.get(relation.of or "", ""),
            "of_size": WORDS.get(relation.of_size, ""),
            "gap": " ".join(numbers.length(relation.gap_mm, studio)),
            "grams": " ".join(numbers.grams(relation.share, studio)),
        }
        if relation.of is None:
            line = "Takes {grams} a piece."
        elif relation.size == WOOL:
            line = "Takes {share} × the wool of the {of}."
        elif relation.gap_mm:
            line = "{size}: {share} × {of}, {of_size}, and {gap}."
        else:
            line = "{size}: {share} × {of}, {of_size}."
        found.append((relation.size, line.format(**said)))
    return found


def fraction(share: float) -> str:
    """A share as a maker writes it: 1/2, 3/4, 1.3."""
    near = Fraction(share).limit_denominator(12)
    return str(near) if abs(float(near) - share) < 1e-6 else f"{share:.3g}"


def can_take(part: Part, role: str) -> bool:
    """Whether a part can have such a layer: without a shape it takes what lies on others."""
    return part.shape["kind"] != "none" or role in ("detail", "weighed")


def layer_context(plan: PartPlan, position: int, palette: Palette) -> dict:
    """The picked layer of a part's plan; nothing where there is none."""
    layers = list(plan.part.layers.all())
    if not 0 <= position < len(layers):
        return {}
    layer = layers[position]
    return {
        "layer": layer,
        "layer_at": position,
        "layer_plan": next((other for other in plan.layers if other.layer is layer), None),
        "layer_word": ROLES[layer.role],
        "layer_why": next((why_layer(plan, other, layer.studio) for other in plan.layers if other.layer is layer), ""),
        "why_range": why_range(layer.studio),
        "layer_item": palette.items.get(layer.slot_id),
        "measured": [*MEASURED.items(), *([(DRAWN, "as it was drawn")] if DRAWN in layer.rule else [])],
        "measured_as": kind_of(layer.rule),
        "row_g": layer.rule.get("grams_per_cm", 0) * WEIGHED_ROW_MM / 10,
        "laid": [(ROW, "in a row"), (RING, "on a ring")],
        "runs": [(ALONG, "along it"), (ROUND, "round it")],
        "place_t": round(layer.rule.get("t", 0.5) * 100, 1),
        "place_angle": layer.rule.get("angle", 90),
        "spacing": spacing(plan.part, layer.rule),
        "is_last": position == len(layers) - 1,
    }


def spacing(part: Part, rule: dict) -> str:
    """How far apart evenly laid spots are."""
    count = rule.get("spots", 0)
    if not count:
        return ""
    if rule.get("laid") == RING:
        return f"{360 / count:.0f}° apart"
    length = axis_length(placed_part(part).shape, placed_part(part).seat)
    return f"{' '.join(numbers.length(length / (count + 1), part.studio))} apart, so far from both ends too"


def drawn_at(request: Request) -> dt.datetime | None:
    """When the page was drawn that a press comes from; None where it does not say."""
    return moment_in(request.POST.get("drawn_at", ""))


def beside(faults: dict[str, str], form: StudioForm, general: str) -> dict[str, str]:
    """The faults, those of no field of the form as one of the whole."""
    return {(name if name in form.fields else general): words for name, words in faults.items()}


def answer(
    request: Request, figure: Figure, key: str = "", faults: dict | None = None, layer: int = -1
) -> HttpResponse:
    """The figure with a part (and a layer of it) picked, as a page or (for htmx) as the stage and tray."""
    context = figure_context(request, figure, key, layer)
    if faults:
        context |= {"faults": faults, "kept": request.POST}
    return page(
        request, "figures/figure_page/figure.html", "figures/figure_page/_stage.html", context, 422 if faults else 200
    )


def whole(response: Any) -> Any:
    """The answer put in place of picture and tray, where the form asked for the picture alone."""
    return retarget(reswap(reselect(response, "#picture, #tray"), "innerHTML"), "#stage")


def moved(request: Request, figure: Figure, key: str = "", layer: int = -1) -> HttpResponse:
    """After a change: the stage for htmx, else the page anew."""
    if request.htmx:
        return answer(request, figure, key, layer=layer)
    address = reverse("figures:figure", args=[request.studio.slug, figure.pk])
    picked: dict[str, str | int] = {"part": key} if key else {}
    if layer >= 0:
        picked["layer"] = layer
    return redirect(f"{address}?{urlencode(picked)}" if picked else address)
