"""The colour map of the shelf: a colour is asked for, the nearest wools and the best blends answer."""

from __future__ import annotations

from typing import TYPE_CHECKING
from urllib.parse import urlencode

from django.core.exceptions import ValidationError
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET

from wembit.core.colour.map_place import RADIUS, colour_by_hue, colour_by_lightness, colour_on_ladder
from wembit.core.colour.tuft import PASSES
from wembit.core.craft.materials import FORMS, LOSS_CARDING
from wembit.web.asked import number_in
from wembit.web.colour.queries import Wools, blending_forms, blending_habits, wools
from wembit.web.errors import Refusal
from wembit.web.fields import weight_field
from wembit.web.stash.queries import breed_choices, drawers

from .map_chart import HUE, LADDER, LEAST_CHROMA, LEVELS, LIGHTNESS, VIEWS, drawn, laid_out, rim_names, rim_of
from .nearest_and_blends import WANTED_G, recipes, singles
from .target import Target, target_of

if TYPE_CHECKING:
    from typing import Any

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

MOST_CHROMA = 200.0  # of any colour that is asked for
RIM_NAMES = rim_names()
SIEVE = ("form", "breed", "drawer")
TUFT_PASSES = 3  # through the carders, of the tuft on the map


def sieved(shelf: Wools, given: Any) -> Wools:
    """Only the wools of the form, breed and drawer asked for."""
    wanted = {key: given[key] for key in SIEVE if given.get(key)}
    if not wanted:
        return shelf
    return shelf.only([n for n, w in enumerate(shelf.rows) if all(getattr(w, key) == v for key, v in wanted.items())])


@require_GET
def home(request: Request) -> HttpResponse:
    """The map; `lot`, `item` or `colour` sets the target, to which the nearest are joined and blends are found."""
    context, status = map_context(request)
    return render(request, "colour/map/map.html", context, status=status)


@require_GET
def touched(request: Request) -> HttpResponse:
    """The map asked for the colour at a place of its ground; what else the address says stays."""
    given = request.GET.copy()
    place = [number_in(given.pop(name, [""])[0]) for name in ("x", "y", "rim")]
    is_ladder = given.pop("board", [""])[0] == LADDER
    address = reverse("colour:home", args=[request.studio.slug])
    if None in place:
        return redirect(address)
    x, y, rim = (each or 0.0 for each in place)
    if given.get("view") == LIGHTNESS:
        lab = colour_by_lightness(x, y)
    else:
        lab = colour_on_ladder(y) if is_ladder else colour_by_hue(x, y, min(max(rim, LEAST_CHROMA), MOST_CHROMA))
    for name in ("lot", "item"):
        given.pop(name, None)
    given["colour"] = " ".join(f"{value:.1f}" for value in lab)
    return redirect(f"{address}?{given.urlencode()}")


def map_context(request: Request) -> tuple[dict, int]:
    given, shelf, faults = request.GET, wools(request.studio), {}
    view = given.get("view", HUE) if given.get("view") in VIEWS else HUE
    some, target, grams = sieved(shelf, given), None, WANTED_G
    try:
        target = target_of(given, shelf)
    except Refusal as fault:
        faults["colour"] = fault.message
    try:
        grams = float(
            weight_field(request.member, required=False, least=0.01).clean(given.get("grams", "")) or WANTED_G
        )
    except ValidationError as fault:
        faults["grams"] = fault.messages[0]
    near, mixed = answers(request.studio, target, some, grams)
    rest = urlencode({key: given[key] for key in (*SIEVE, "view", "grams") if given.get(key)})
    context = {
        "view": view,
        "views": VIEWS.items(),
        "map": drawn(some, view, target, near, mixed, laid_out(some, view, rim_of(some, target), rest)),
        "rim_names": RIM_NAMES,
        "levels": [(light, RADIUS - light * 2 * RADIUS / 100) for light in LEVELS],
        "target": target,
        "is_bare": not shelf.rows and not target,
        "near": near,
        "recipes": mixed,
        "grams": grams,
        "without": shelf.without,
        "sieve": {key: given.get(key, "") for key in SIEVE},
        "rest": rest,
        "forms": [(key, form.name) for key, form in FORMS.items()],
        "breeds": breed_choices(request.studio),
        "drawers": drawers(request.studio),
        "into": [(key, form.name) for key, form in FORMS.items() if form.blends and key != "fleece"],
        "passes_drawn": PASSES.items(),
        "tuft": (TUFT_PASSES, PASSES[TUFT_PASSES]),
        "chosen_blends": blending_forms(request.studio),
        "habit": {
            **blending_habits(request.studio),
            "loss": f"{100 * request.studio.habits.get('carding_loss', LOSS_CARDING):g}",
        },
        "distances": [(False, "close by"), (True, "at arm's length")],
        "loss": f"{request.studio.habits.get('carding_loss', LOSS_CARDING):.0%}",
        "faults": faults,
        "kept": given if faults else None,
    }
    return context, 422 if faults else 200


def answers(studio: Studio, target: Target | None, some: Wools, grams: float) -> tuple[list, list]:
    """The nearest wools and the best blends of these for a target."""
    if target is None:
        return [], []
    return singles(target, some), recipes(target, some, blending_forms(studio), grams, **blending_habits(studio))
