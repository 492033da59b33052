"""Makings in hand, and taking wool for a layer of a piece."""

from __future__ import annotations

from functools import cache, partial
from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from wembit.core.craft.cautions import CAUTIONS
from wembit.core.work.aside import reaches
from wembit.core.work.asking import asked_g, bag_from_g
from wembit.web import clock, numbers
from wembit.web.asked import id_in, whole_number_in
from wembit.web.bench.models import PieceLayer
from wembit.web.decimals import decimal
from wembit.web.errors import Refusal
from wembit.web.figures.order_of_work.order import answered, order_of
from wembit.web.figures.queries import part_among
from wembit.web.figures.size_words import ROLES
from wembit.web.figures.to_core.estimating import BARE, Palette, chosen_items, plan_figure
from wembit.web.idempotency import press_of
from wembit.web.numbers import is_pinch
from wembit.web.once import once
from wembit.web.responses import again, page, refused, tried
from wembit.web.stash.models import ZERO
from wembit.web.stash.queries import colours, promises_broken_by
from wembit.web.uploads import cleaned

from . import queries
from .actions.answer_clock import answer_clock
from .actions.begin_making import begin_making
from .actions.break_needle import break_needle
from .actions.correct_minutes import correct_minutes
from .actions.count_needles import count_needles
from .actions.enough import has_enough, takes_more
from .actions.find_tip import find_tip
from .actions.finish_making import finish_making
from .actions.give_back import give_back
from .actions.keep_as_made import keep_as_made
from .actions.let_dry import is_dry, let_dry
from .actions.mark_piece import mark_piece
from .actions.measure_piece import measure_piece
from .actions.photograph import photograph
from .actions.put_aside import put_aside, use_aside
from .actions.scrap_bag import NEW, WASTE
from .actions.send_off import send_off
from .actions.start_again import start_again
from .actions.take import take
from .actions.take_back_making import take_back_making
from .actions.take_set import take_set
from .actions.take_thing import give_thing_back, take_thing
from .actions.trim_off import trim_off
from .as_made import as_made
from .drying import to_dry
from .fitting import cut_off, fitting
from .forms import (
    AsideForm,
    BreakForm,
    DryingForm,
    FinishForm,
    GoneForm,
    MarkForm,
    MinutesForm,
    MoveForm,
    NeedlesForm,
    SizeForm,
    StillForm,
    TrimForm,
    TryForm,
)
from .making_picture import neighbours, own_palette, side_of, standing, weighed
from .models import GONE, REASONS, STATES
from .on_the_bench import around, on_the_bench
from .own_plan import own_plan
from .part_clock import part_clock
from .piece_chart import column, piece_picture
from .scale import bridge_address, understood
from .set_chart import set_of
from .siblings import beside, later_of, on_the_table
from .tools import tools_of
from .turns import before_its_turn

if TYPE_CHECKING:
    from collections.abc import Callable
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.stash.ledger import Press
    from wembit.web.studio.models import Studio

SHOWN = 8  # makings at once
FIELDS = {"lot": "aside", "amount": "aside"}  # where what the ledger refuses of wool put aside is told
AMOUNTS = "amounts"  # the question of how one begins


@require_GET
def home(request: Request) -> HttpResponse:
    """What stands on the bench, some at once; the next ones come as one scrolls."""
    studio, start = request.studio, whole_number_in(request.GET.get("from", "")) or 0
    today = clock.today(studio)
    context: dict[str, Any] = {
        "in_hand": studio.cached_until_change(f"in-hand:{today}:{start}", lambda: drawn_makings(studio, start))
    }
    if not request.htmx:
        context |= {"around": around(studio), "busy": queries.makings_in_hand(studio) > 0}
    return page(request, "bench/bench.html", "bench/_in_hand.html", context)


def drawn_makings(studio: Studio, start: int) -> str:
    """The makings in hand from `start` on, as markup, with the way to the next ones."""
    lines = queries.makings(studio, start, SHOWN)
    context = {
        "studio": studio,
        "makings": on_the_bench(studio, lines),
        "first": start == 0,
        "next": start + SHOWN,
        "beyond": max(queries.makings_in_hand(studio) - start - SHOWN, 0),
    }
    return render_to_string("bench/_makings.html", context)


def making_context(request: Request, line: Any, layer_id: UUID | None = None) -> dict:
    """A making with one of its layers in hand: the asked one, else the next that has got nothing."""
    every, way = line.sequence, line.making.colourway
    piece, chosen = next(
        ((p, e) for p, e in every if layer_id and e.layer.pk == layer_id),
        next(((p, e) for p, e in every if not e.done), every[0] if every else (None, None)),
    )
    items = chosen_items(way)
    seen = colours(request.studio, {each.layer.item_id for _, each in every} | {item.pk for item in items.values()})
    happened = queries.what_happened(line.making.pk)
    context = {
        "line": line,
        "making": line.making,
        "pieces": line.pieces,
        "colours": seen,
        "states": STATES,
        "all_taken": line.next is None and not line.things_left,
        "things": line.things,
        "unweighed": line.unweighed,
        "untouched": not any(layer.taken for _, layer in every) and not any(thing.taken for thing in line.things),
        "give_caution": CAUTIONS["give"],
        "breaks": queries.breaks_of(line.making.pk) if happened.breaks else [],
        "counts": range(7),
        "became": GONE,
    }
    if chosen is None or piece is None:
        return context
    version = way.version
    parts = queries.parts_of_making(line.making)
    part = part_among(parts, piece.piece.part_key)
    palette = own_palette(line, Palette.dyed(way, items, seen), seen)
    side = side_of(way, parts, palette)
    plan = own_plan(line, plan_figure(version, parts, palette))
    steps = order_of(version, parts, plan)
    step = next((other for other in steps if other.takes(part.key, chosen.layer.role)), None)
    chosen.layer.studio = request.studio
    sources = queries.sources(chosen.layer)
    lot = next((source for source in sources if str(source.lot.pk) == request.POST.get("lot", "")), None)
    lot = lot or (sources[0] if sources else None)
    ask = asked_g(chosen.left, chosen.grams.p50, float(chosen.taken))
    if step and not chosen.taken and not is_pinch(ask) and answered(version, AMOUNTS):
        ask *= step.step.first_of(chosen.layer.item.form)
    done = line.making.finished_at is not None
    of_all = bool(request.GET.get("all") or request.POST.get("all"))
    same = queries.set_lines(chosen.layer) if of_all else []
    ask = sum(each.left for each in same) or ask * max(1, len(same)) if same else ask
    density = chosen.layer.item.grams_a_metre
    fill = seen.get(chosen.layer.item_id, BARE)
    tries = queries.tries_of([line.making.pk]).get(piece.piece.pk, []) if happened.tries else []
    trimmed = queries.trimmed_by_layer([line.making.pk]) if happened.trims else {}
    part_plan = next((other for other in plan.parts if other.part.key == part.key), None)
    before, after = neighbours(line, chosen)
    picture = piece_picture(part, ask, chosen.layer.item.form)
    needles, pad = ([], "") if done else tools_of(request.studio, fill)
    following = after and piece_picture(part_among(parts, after[0].piece.part_key), 0.0, "")
    return context | {
        "piece": piece,
        "layer": chosen,
        "layer_word": ROLES[chosen.layer.role],
        "figure_id": version.figure_id,
        "step": step,
        "side": side,
        "standing": standing(line, side, seen, piece.piece.pk),
        "weighed": weighed(line),
        "picture": picture,
        "column": column(chosen.grams, float(chosen.taken)),
        "set": set_of(line, piece, chosen, part.kind),
        "before": before,
        "after": after,
        "following": following,
        "fill": fill,
        "all": len(same) if len(same) > 1 else 0,
        "reasons": REASONS,
        "scale": bridge_address(),
        "bag_from": bag_from_g(ask, chosen.grams.p90),
        "needles": needles,
        "pad": pad,
        "part_clock": part_clock(line.making, part.key, steps),
        "scrap": cache(partial(_scrap, request.studio, fill)),  # looked up where it is shown
        "tries": tries,
        "trimmed": trimmed.get(chosen.layer.pk, ZERO),
        "fitting": fitting(piece, part_plan, picture, cut_off(piece, trimmed)),
        "beside": beside(line, piece, chosen),
        "waiting": on_the_table(line, parts, seen),
        "too_early": [] if chosen.taken else before_its_turn(line, step, steps),
        "sources": sources,
        "source": lot,
        "ask": round(ask, 2) if ask >= 0.05 else round(ask, 3),
        "pinch": is_pinch(ask),
        "first": not same and ask < chosen.left,
        "strand_mm": ask / density * 1000 if density else None,
        "enough": lot and float(lot.lot.on_hand) >= ask,
        "later": later_of(line, chosen),
        "as_made": as_made(line, plan) if done and line.making.scale == 1 else [],
        "to_dry": [] if done else to_dry(line.making, steps, begun=happened.dryings),
        "aside_mm": float(chosen.aside) / density * 1000 if density else None,
        "aside_reaches": reaches(chosen.grams, float(chosen.aside)),
    }


def _scrap(studio: Studio, srgb: str) -> list[tuple[Any, str]]:
    """Where felted wool can go, in words: the bags of scrap, the nearest colour first, a new one, the waste."""
    bags = [
        (lot.pk, f"{lot.item.name}{f', {lot.drawer.told}' if lot.drawer else ''}")
        for lot in queries.scrap_bags(studio, srgb)
    ]
    return [*bags, (NEW, "a new bag of scrap"), (WASTE, "the waste")]


@require_GET
def making(request: Request, making_id: UUID) -> HttpResponse:
    line = queries.making_of(request.studio, making_id)
    layer_id = id_in(request.GET.get("layer", ""))
    return page(request, "bench/making.html", "bench/_hand.html", making_context(request, line, layer_id))


@require_POST
@once
def begin(request: Request, project_id: UUID) -> HttpResponse:
    made, faults = tried(lambda: begin_making(request.member, project_id))
    if faults:
        refused(request, faults)
        return redirect("bench:home", studio=request.studio.slug)
    return redirect("bench:making", studio=request.studio.slug, making_id=made.pk)


@require_POST
def take_for(request: Request, layer_id: UUID) -> HttpResponse:
    """Take wool for a layer: key, happened_at, lot, amount. Can be repeated after a new sign-in."""

    def do(layer: PieceLayer, given: dict[str, Any]) -> Any:
        if given["reading"]:
            understood(given["reading"]).weighed()
        if given["bag"] is None:
            raise Http404
        broken = promises_broken_by(given["bag"], given["amount"], layer.need)
        if broken and not given["anyway"]:
            names = " and ".join(sorted({promise.whose for promise in broken}))
            raise Refusal(f"That is promised to {names}. Take less, or press again to take it all the same.", "anyway")
        press = press_of(request)
        _nothing_since(layer, given["shown"], press)
        takes = take_set if given["all"] else take
        return takes(request.member, layer.pk, given["lot"], given["amount"], press=press)

    return _moved(request, layer_id, do)


def _nothing_since(layer: PieceLayer, shown: float | None, press: Press) -> None:
    """Raises `Refusal` where somebody has taken for this layer since the page was drawn; the press again goes through."""
    if shown is None:
        return
    more = queries.taken_by_layer([layer.piece.making_id]).get(layer.pk, ZERO) - decimal(shown)
    last = queries.last_take(layer) if more > 0 else None
    if last and last.movement.entry.client_key != press.key:
        grams = " ".join(numbers.grams(more, layer.studio))
        raise Refusal(
            f"{last.movement.entry.by} has taken {grams} for it meanwhile. Press again to take more.", "shown"
        )


@require_POST
def back_from(request: Request, layer_id: UUID) -> HttpResponse:
    def do(layer: PieceLayer, given: dict[str, Any]) -> Any:
        return give_back(request.member, layer.pk, given["lot"], given["amount"], press=press_of(request))

    return _moved(request, layer_id, do)


def _moved(request: Request, layer_id: UUID, do: Callable[[PieceLayer, dict[str, Any]], Any]) -> HttpResponse:
    layer = queries.layer_of(request.studio, layer_id)
    making_id = layer.piece.making_id
    _, faults = MoveForm(request, layer.item).tried(lambda given: do(layer, given))
    if faults.get("lot"):
        faults = {"amount": faults["lot"], **faults}
    return _in_hand(request, making_id, layer_id if faults else None, faults)


@require_POST
def again_from_start(request: Request, piece_id: UUID) -> HttpResponse:
    """A piece is given up and started again: where it goes, why."""
    piece = queries.piece_of(request.studio, piece_id)
    _, faults = TryForm(request).tried(
        lambda given: start_again(
            request.member, piece_id, given["where"], press=press_of(request), reason=given["reason"]
        )
    )
    return _in_hand(request, piece.making_id, piece.layers.all()[0].pk, faults)


@require_POST
def measure(request: Request, piece_id: UUID) -> HttpResponse:
    """How long and how thick a piece came out."""
    piece = queries.piece_of(request.studio, piece_id)
    _, faults = SizeForm(request).tried(
        lambda given: measure_piece(request.member, piece_id, given["long"], given["thick"])
    )
    return _in_hand(request, piece.making_id, id_in(request.POST.get("layer", "")), faults)


@require_POST
def minutes(request: Request, piece_id: UUID) -> HttpResponse:
    """How long the part of a piece took."""
    piece = queries.piece_of(request.studio, piece_id)
    _, faults = MinutesForm(request).tried(lambda given: correct_minutes(request.member, piece_id, given["minutes"]))
    return _in_hand(request, piece.making_id, id_in(request.POST.get("layer", "")), faults)


@require_POST
def still(request: Request, piece_id: UUID) -> HttpResponse:
    """Whether somebody still works at the part of a piece."""
    piece = queries.piece_of(request.studio, piece_id)
    _, faults = StillForm(request).tried(lambda given: answer_clock(request.member, piece_id, still=given["still"]))
    return _in_hand(request, piece.making_id, id_in(request.POST.get("layer", "")), faults)


@require_POST
def dries(request: Request, making_id: UUID) -> HttpResponse:
    """A step dries from now on."""
    layer_id = id_in(request.POST.get("layer", ""))
    queries.making_of(request.studio, making_id)
    _, faults = DryingForm(request).tried(lambda given: let_dry(request.member, making_id, given["step"]))
    return _in_hand(request, making_id, layer_id, faults)


@require_POST
def dried(request: Request, drying_id: UUID) -> HttpResponse:
    drying = is_dry(request.member, drying_id)
    return _in_hand(request, drying.making_id, id_in(request.POST.get("layer", "")), {})


@require_POST
def needles_out(request: Request, making_id: UUID) -> HttpResponse:
    """How many needles are out."""
    layer_id = id_in(request.POST.get("layer", ""))
    queries.making_of(request.studio, making_id)
    _, faults = NeedlesForm(request).tried(lambda given: count_needles(request.member, making_id, given["out"]))
    return _in_hand(request, making_id, layer_id, faults)


@require_POST
def needle_broke(request: Request, piece_id: UUID) -> HttpResponse:
    """A needle broke at a piece: which, and whether its tip is found."""
    piece = queries.piece_of(request.studio, piece_id)
    _, faults = BreakForm(request).tried(
        lambda given: break_needle(
            request.member,
            piece_id,
            given["needle"],
            found=given["found"],
            press=press_of(request),
            layer_id=id_in(request.POST.get("layer", "")),
        )
    )
    return _in_hand(request, piece.making_id, id_in(request.POST.get("layer", "")), faults)


@require_POST
def tip_found(request: Request, break_id: UUID) -> HttpResponse:
    broken = find_tip(request.member, break_id)
    return _in_hand(request, broken.piece.making_id, id_in(request.POST.get("layer", "")), {})


@require_POST
def keep_aside(request: Request, layer_id: UUID) -> HttpResponse:
    """Wool of this layer, or of its bag, is kept for a later one."""
    layer = queries.layer_of(request.studio, layer_id)
    _, faults = AsideForm(request, layer.item).tried(
        lambda given: put_aside(
            request.member, layer_id, given["later"], given["lot"], given["aside"], press=press_of(request)
        )
    )
    told = {FIELDS[key]: fault for key, fault in faults.items() if key in FIELDS}
    return _in_hand(request, layer.piece.making_id, layer_id, {**faults, **told})


@require_POST
def take_from_aside(request: Request, layer_id: UUID) -> HttpResponse:
    """What lies aside for a layer is in use."""
    layer = queries.layer_of(request.studio, layer_id)
    _, faults = tried(lambda: use_aside(request.member, layer_id))
    return _in_hand(request, layer.piece.making_id, layer_id, faults)


@require_POST
def trim_from(request: Request, layer_id: UUID) -> HttpResponse:
    """Something is cut off: how much, where it goes."""
    layer = queries.layer_of(request.studio, layer_id)
    _, faults = TrimForm(request).tried(
        lambda given: trim_off(request.member, layer_id, given["trimmed"], given["where"], press=press_of(request))
    )
    return _in_hand(request, layer.piece.making_id, layer_id, faults)


@require_POST
def mark(request: Request, piece_id: UUID) -> HttpResponse:
    piece, faults = MarkForm(request).tried(lambda given: mark_piece(request.member, piece_id, given["state"]))
    if faults:
        refused(request, faults)
        return redirect("bench:home", studio=request.studio.slug)
    return redirect("bench:making", studio=request.studio.slug, making_id=piece.making_id)


@require_POST
def picture(request: Request, making_id: UUID) -> HttpResponse:
    line = queries.making_of(request.studio, making_id)
    _, faults = tried(
        lambda: photograph(request.member, making_id, cleaned(request.FILES.get("photo"), request.studio))
    )
    if faults:
        return again(request, "bench/making.html", making_context(request, line), faults)
    return redirect("bench:making", studio=request.studio.slug, making_id=making_id)


@require_POST
def finish(request: Request, making_id: UUID) -> HttpResponse:
    line = queries.making_of(request.studio, making_id)
    if line.making.finished_at:
        refused(request, {"": "It is finished already."})
        return redirect("bench:making", studio=request.studio.slug, making_id=making_id)
    done, faults = FinishForm(request).tried(
        lambda given: finish_making(
            request.member,
            making_id,
            press=press_of(request),
            unweighed=given["unweighed"],
            figure_g=given["figure_g"],
            photo=cleaned(request.FILES.get("photo"), request.studio),
            needles_back=given["needles_back"],
            missing=given["missing"].strip(),
        )
    )
    if faults:
        return again(request, "bench/making.html", making_context(request, line) | {"finishing": True}, faults)
    messages.success(request, f"{done} is finished.")
    return redirect("bench:home", studio=request.studio.slug)


@require_POST
def gone(request: Request, making_id: UUID) -> HttpResponse:
    """What became of a finished piece."""
    line = queries.making_of(request.studio, making_id)
    _, faults = GoneForm(request).tried(
        lambda given: send_off(request.member, making_id, given["how"], given["whom"].strip())
    )
    if faults:
        return again(request, "bench/making.html", making_context(request, line), faults)
    return redirect("bench:making", studio=request.studio.slug, making_id=making_id)


@require_POST
@once
def plan_as_made(request: Request, making_id: UUID) -> HttpResponse:
    """The figure's next version with what came out."""
    line = queries.making_of(request.studio, making_id)
    version, faults = tried(lambda: keep_as_made(request.member, making_id))
    if faults:
        words = "; ".join(faults.values())
        return again(request, "bench/making.html", making_context(request, line), {"": words})
    messages.success(request, f"{version.figure.name} is planned as it came out.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=version.figure_id)


@require_POST
def not_begun(request: Request, making_id: UUID) -> HttpResponse:
    """A making that was begun by mistake."""
    project, faults = tried(lambda: take_back_making(request.member, making_id))
    if faults:
        refused(request, faults)
        return redirect("bench:making", studio=request.studio.slug, making_id=making_id)
    messages.success(request, "Taken back: nothing was begun.")
    if project is None:
        return redirect("bench:home", studio=request.studio.slug)
    return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)


def _in_hand(request: Request, making_id: UUID, layer_id: UUID | None, faults: dict[str, str]) -> HttpResponse:
    """The making again after a press within it, with what it was refused for."""
    if not request.htmx and not faults:
        query = f"?layer={layer_id}" if layer_id else ""
        return redirect(reverse("bench:making", args=[request.studio.slug, making_id]) + query)
    context = making_context(request, queries.making_of(request.studio, making_id), layer_id)
    template = "bench/_hand.html" if request.htmx else "bench/making.html"
    return again(request, template, context, faults) if faults else render(request, template, context)


@require_POST
def take_thing_for(request: Request, thing_id: UUID) -> HttpResponse:
    return _thing(request, thing_id, take_thing)


@require_POST
def thing_back(request: Request, thing_id: UUID) -> HttpResponse:
    return _thing(request, thing_id, give_thing_back)


def _thing(request: Request, thing_id: UUID, do: Callable[..., Any]) -> HttpResponse:
    """Take a thing, or put it back; the layer in hand stays in hand."""
    line = queries.thing_of(request.studio, thing_id)
    _, faults = tried(lambda: do(request.member, thing_id, press=press_of(request)))
    faults = {f"thing_{thing_id}": words for words in faults.values()}
    return _in_hand(request, line.thing.making_id, id_in(request.POST.get("layer", "")), faults)


@require_POST
def enough(request: Request, layer_id: UUID) -> HttpResponse:
    return _planned(request, layer_id, has_enough)


@require_POST
def more(request: Request, layer_id: UUID) -> HttpResponse:
    return _planned(request, layer_id, takes_more)


def _planned(request: Request, layer_id: UUID, do: Callable[..., Any]) -> HttpResponse:
    layer = queries.layer_of(request.studio, layer_id)
    _, faults = tried(lambda: do(request.member, layer_id))
    return _in_hand(request, layer.piece.making_id, layer_id, faults)
