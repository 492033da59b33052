"""Templates of a figure's parts at true size, as sheets and as a PDF."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from django.utils.text import slugify
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from wembit.core.craft.armature import Wire
from wembit.core.drawing.templates import Sheet, Template, bent, lay_out
from wembit.core.errors import BadInput
from wembit.core.shape.sizes import sizes
from wembit.core.shape.solids import Wrap
from wembit.web import numbers
from wembit.web.figures.models import Figure, Part, Version
from wembit.web.figures.to_core.seating import placed_part
from wembit.web.figures.to_core.wiring import wire_of

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

THIN, THICK = 0.2, 0.5  # of lines, in mm
TYPE_MM = 3.2


def sheets(version: Version, parts: Sequence[Part], chosen: Sequence[str], paper: str, studio: Studio) -> list[Sheet]:
    """The templates of the chosen parts (all, where none is) on sheets. Parts that cannot be computed are left out."""
    found = []
    for part in parts:
        if part.shape["kind"] == "none" or (chosen and part.key not in chosen):
            continue
        try:
            found.append(template(part, studio))
        except BadInput:
            continue
    return lay_out(found, paper)


def template(part: Part, studio: Studio) -> Template:
    """A part's side outline; of a wound part the wire with its bends and the sleeve round it."""
    placed, wire = placed_part(part), wire_of(part)
    name = f"{part.count} × {part.name}" if part.count > 1 else part.name
    if isinstance(placed.shape, Wrap) and wire is not None:
        line = bent(placed.seat.bends, placed.shape.length_mm)
        sleeve = line.buffer(placed.shape.diameter_mm / 2, quad_segs=16)
        return Template(name, _wire_words(wire, placed.seat.bends, studio), sleeve, (line,))
    lines = () if wire is None else (bent((), wire.length_mm),)
    return Template(name, _size_words(part, studio), placed.shape.side_outline(), lines)


def _size_words(part: Part, studio: Studio) -> str:
    sizes_mm = sizes(part.shape)
    unit = numbers.length(0, studio)[1]
    across = " × ".join(numbers.length(value, studio)[0] for value in sizes_mm.values())
    row = part.seat.get("row") or {}
    last = f"; the last of the row {100 * row['size']:.0f} % of it" if row.get("size", 1) != 1 else ""
    return f"{across} {unit}, felted{last}"


def _wire_words(wire: Wire, bends: Any, studio: Studio) -> str:
    def length(value: float) -> str:
        return " ".join(numbers.length(value, studio))

    spans = [numbers.length(span, studio)[0] for span, _ in bends] or [numbers.length(wire.length_mm, studio)[0]]
    cuts = ", ".join(f"{count} × {length(long)}" for count, long in wire.cuts)
    said = {"cuts": cuts, "gauge": length(wire.gauge_mm), "spans": " + ".join(spans),
            "bare": length(wire.bare_mm)}  # fmt: skip
    words = "{gauge} wire, {cuts}: {spans}"
    if wire.doubled:
        words += ", laid double"
    if wire.bare_mm:
        words += ", {bare} bare"
    return words.format(**said)


def file_name(figure: Figure) -> str:
    """A figure's name as the name of a file."""
    return slugify(figure.name) or "figure"


def pdf(found: Sequence[Sheet], title: str) -> bytes:
    """The sheets as a PDF whose pages have the paper's size."""
    out = io.BytesIO()
    canvas = Canvas(out, pageCompression=0, invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Wembit")
    for number, sheet in enumerate(found, 1):
        canvas.setPageSize((sheet.width * mm, sheet.height * mm))
        canvas.translate(0, sheet.height * mm)
        canvas.scale(1, -1)
        canvas.setStrokeGray(0)
        for piece in sheet.pieces:
            canvas.setLineWidth(THIN * mm)
            for ring in piece.rings:
                _way(canvas, ring)
            canvas.setLineWidth(THICK * mm)
            for line in piece.lines:
                _way(canvas, line)
            _words(canvas, *piece.at, piece.name, "Helvetica-Bold")
            _words(canvas, piece.at[0], piece.at[1] + 4, piece.words)
        (x1, y), (x2, _) = sheet.check
        canvas.line(x1 * mm, y * mm, x2 * mm, y * mm)
        for x in (x1, x2):
            canvas.line(x * mm, (y - 2) * mm, x * mm, (y + 2) * mm)
        foot = f"100 mm when printed at 100 %.  {title}, sheet {number} of {len(found)}"
        _words(canvas, x1, y - 3, foot + (f", {sheet.tile}" if sheet.tile else ""))
        canvas.showPage()
    if not found:
        _words(canvas, 20, 20, "No part has a shape yet.")
    canvas.save()
    return out.getvalue()


def _way(canvas: Canvas, points: Any) -> None:
    path = canvas.beginPath()
    path.moveTo(points[0][0] * mm, points[0][1] * mm)
    for x, y in points[1:]:
        path.lineTo(x * mm, y * mm)
    canvas.drawPath(path)


def _words(canvas: Canvas, x: float, y: float, words: str, face: str = "Helvetica") -> None:
    """Words whose base lies at x, y from the upper left corner, in mm."""
    canvas.saveState()
    canvas.translate(x * mm, y * mm)
    canvas.scale(1, -1)
    canvas.setFont(face, TYPE_MM * mm)
    canvas.drawString(0, 0, words.encode("latin-1", "replace").decode("latin-1"))
    canvas.restoreState()
