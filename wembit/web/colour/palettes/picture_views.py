"""The main colours of a picture of one's own, each with what the shelf can do. The picture is shown once and not kept."""

from __future__ import annotations

import base64
import io
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from django.shortcuts import render
from django.views.decorators.http import require_http_methods
from PIL import Image

from wembit.core.colour.difference import SAME
from wembit.core.colour.photo import main_colours
from wembit.web.colour.map.map_chart import bars
from wembit.web.colour.map.nearest_and_blends import WANTED_G, Recipe, Single, recipes, singles
from wembit.web.colour.map.target import Target, target_of
from wembit.web.colour.queries import blending_forms, blending_habits, wools
from wembit.web.errors import Refusal
from wembit.web.responses import again, tried
from wembit.web.uploads import cleaned

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request

SHOWN_PX = 640  # of the longer side


@dataclass(frozen=True)
class MainColour:
    """One colour of a picture: how much of it, the nearest bag, and where that is not the same to the eye the best blend."""

    target: Target
    percent: int
    near: Single | None
    blend: Recipe | None


@require_http_methods(["GET", "POST"])
def picture_colours(request: Request) -> HttpResponse:
    if request.method == "GET":
        return render(request, "colour/palettes/picture.html", {})
    context, faults = tried(lambda: _looked_at(request))
    if faults:
        return again(request, "colour/palettes/picture.html", {}, faults)
    return render(request, "colour/palettes/picture.html", context)


def _looked_at(request: Request) -> dict:
    picture = cleaned(request.FILES.get("photo"), request.studio)
    if picture is None:
        raise Refusal("Choose a picture: an animal, a pet, a scene of your own.", "photo")
    with Image.open(picture) as image:
        plain = image.convert("RGB")
    colours = main_colours(np.asarray(plain))
    shelf, forms = wools(request.studio), blending_forms(request.studio)
    rows = []
    for lab, share in colours:
        target = target_of({"colour": " ".join(f"{value:.2f}" for value in lab)}, shelf)
        assert target is not None, "a colour was given"
        near = next(iter(singles(target, shelf, 1)), None)
        blend = None
        if near and near.de00 > SAME:
            some = recipes(target, shelf, forms, WANTED_G, **blending_habits(request.studio))
            blend = min(some, key=lambda recipe: recipe.de00, default=None)
        rows.append(
            MainColour(target, round(share * 100), near, blend if blend and near and blend.de00 < near.de00 else None)
        )
    drawn = bars([(row.target.srgb, share) for row, (_, share) in zip(rows, colours, strict=True)])
    return {"rows": rows, "bars": drawn, "picture": _shown(plain)}


def _shown(picture: Image.Image) -> str:
    """The picture, small, as the address of an image that stands in the page itself."""
    picture.thumbnail((SHOWN_PX, SHOWN_PX))
    made = io.BytesIO()
    picture.save(made, "JPEG", quality=80)
    return "data:image/jpeg;base64," + base64.b64encode(made.getvalue()).decode("ascii")
