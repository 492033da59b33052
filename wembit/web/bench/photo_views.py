"""The picture of a piece: measured by a card or a coin, looked at upside down and mirrored."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.shortcuts import redirect, render
from django.views.decorators.http import require_http_methods

from wembit.web.errors import Refusal
from wembit.web.figures.queries import part_of
from wembit.web.responses import again
from wembit.web.studio.models import MAKER
from wembit.web.uploads import cleaned

from .actions.see_piece import see_piece
from .forms import SeenForm
from .piece_chart import piece_picture
from .piece_photo import BESIDE, COIN, Shown, seen_in
from .queries import piece_of

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.bench.models import Piece
    from wembit.web.request import Request


@require_http_methods(["GET", "POST"])
def seen(request: Request, piece_id: UUID) -> HttpResponse:
    """Look at the picture of a piece, or measure a new one."""
    piece = piece_of(request.studio, piece_id)
    if request.method == "POST":
        request.member.must_be(MAKER)
        _, faults = SeenForm(request).tried(lambda given: _measured(request, piece, given))
        if faults:
            return again(request, "bench/seen.html", _context(request, piece), faults)
        return redirect("bench:seen", studio=request.studio.slug, piece_id=piece_id)
    return render(request, "bench/seen.html", _context(request, piece))


def _measured(request: Request, piece: Piece, given: dict[str, Any]) -> Piece:
    if given["beside"] == COIN and not given["coin"]:
        raise Refusal("Write how wide the coin is.", "coin")
    photo = cleaned(request.FILES.get("photo"), request.studio)
    if not photo:
        raise Refusal("Choose a picture first.", "photo")
    part = part_of(piece.making.colourway.version, piece.part_key)
    coin_mm = float(given["coin"]) if given["beside"] == COIN else None
    found = seen_in(photo, coin_mm, piece_picture(part, 0.0, ""))
    return see_piece(request.member, piece.pk, photo, found)


def _context(request: Request, piece: Piece) -> dict[str, Any]:
    turned, mirrored = ("turn" in request.GET), ("mirror" in request.GET)
    part = part_of(piece.making.colourway.version, piece.part_key)
    return {
        "piece": piece,
        "making": piece.making,
        "layer": piece.layers.first(),
        "shown": Shown(piece.seen, turned, mirrored) if piece.seen else None,
        "turned": turned,
        "mirrored": mirrored,
        "planned": piece_picture(part, 0.0, ""),
        "within": 100 * piece.seen.get("within", 0.0),
        "beside": list(BESIDE.items()),
    }
