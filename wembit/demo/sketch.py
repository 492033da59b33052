"""A pencil sketch of a demo figure from the side, as its maker would lay it under the grid."""

from __future__ import annotations

import io

from PIL import Image, ImageDraw

from wembit.core.drawing.views import Dress, view
from wembit.core.pose.placing import Placed

PAPER, PENCIL, WASH = (238, 234, 226), (84, 82, 80), (206, 204, 200)
PX_A_MM, MARGIN_MM = 4, 30
RULE_MM = 100


def sketch(pieces: list[Placed]) -> bytes:
    """A JPEG, 4 px a millimetre, with a line of 100 mm drawn under the figure."""
    side_view = view(pieces, {piece.name: Dress("#888888") for piece in pieces}, "side")
    left, _, right, top = side_view.bounds

    def px(u: float, v: float) -> tuple[float, float]:
        return (u - left + MARGIN_MM) * PX_A_MM, (top - v + MARGIN_MM) * PX_A_MM

    size = (int((right - left + 2 * MARGIN_MM) * PX_A_MM), int((top + 2 * MARGIN_MM) * PX_A_MM))
    paper = Image.new("RGB", size, PAPER)
    pencil = ImageDraw.Draw(paper)
    for piece in side_view.pieces:
        for ring in piece.rings:
            pencil.polygon([px(u, v) for u, v in ring], fill=WASH, outline=PENCIL, width=3)
        if piece.stroke:
            pencil.line([px(u, v) for u, v in piece.stroke[1]], fill=PENCIL, width=4)
    start = px(left, -12)
    pencil.line([start, (start[0] + RULE_MM * PX_A_MM, start[1])], fill=PENCIL, width=4)
    for end in (start[0], start[0] + RULE_MM * PX_A_MM):
        pencil.line([(end, start[1] - 14), (end, start[1] + 14)], fill=PENCIL, width=4)
    out = io.BytesIO()
    paper.save(out, "JPEG", quality=88)
    return out.getvalue()
