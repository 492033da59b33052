"""An order as a document: a file that a supplier's house can read, a table, and a page of paper."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING, Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from wembit.core.tables import write_table
from wembit.web import numbers

if TYPE_CHECKING:
    from decimal import Decimal

    from wembit.web.studio.models import Studio

    from .models import OrderLine
    from .queries import OrderPage

MARGIN, LINE, PACK_X, PRICE_X, SUM_X = 20 * mm, 7 * mm, 110 * mm, 150 * mm, 190 * mm
HEAD = ["order", "supplier", "article", "unit", "pack", "count", "price", "sum", "currency"]
LETTERS = 52  # of an article, beyond which it is cut on paper


def article(line: OrderLine) -> str:
    """What is ordered, as its supplier may know it."""
    return f"{line.item.name}, {line.item.what}"


def order_file(page: OrderPage) -> dict[str, Any]:
    """The order as docs/formats.md has it; amounts in the item's unit."""
    order = page.order
    return {
        "order": order.number,
        "wanted_in_days": order.supplier.lead_days,
        "one_dye_lot": order.one_dye_lot,
        "lines": [
            {
                "line": str(line.pk),
                "article": article(line),
                "unit": line.item.unit,
                "pack": float(line.pack),
                "count": line.count,
                "price": str(line.price),
            }
            for line in page.lines
        ],
    }


def table(page: OrderPage, studio: Studio) -> str:
    """The order as CSV: one row a line, a row for the postage."""
    order, currency = page.order, studio.currency
    rows = [
        [
            order.number,
            order.supplier.name,
            article(line),
            line.item.unit,
            line.pack,
            line.count,
            line.price,
            line.cost,
            currency,
        ]
        for line in page.lines
    ]
    postage = order.supplier.postage
    rows.append([order.number, order.supplier.name, "postage", "", "", "", postage, postage, currency])
    return write_table(HEAD, [[str(cell) for cell in row] for row in rows])


def paper(page: OrderPage, studio: Studio) -> bytes:
    """The order on A4, as PDF."""
    written = io.BytesIO()
    canvas = Canvas(written, pagesize=A4, invariant=True)
    canvas.setTitle(f"Order {page.order.number}")
    y = _head(canvas, page, studio)
    for line in page.lines:
        if y < MARGIN + 4 * LINE:
            canvas.showPage()
            y = _head(canvas, page, studio)
        y = _row(
            canvas,
            y,
            article(line)[:LETTERS],
            _packs(line, studio),
            _money(line.price, studio),
            _money(line.cost, studio),
        )
    canvas.line(MARGIN, y + LINE - 4, SUM_X, y + LINE - 4)
    y = _row(canvas, y, "Postage", "", "", _money(page.order.supplier.postage, studio))
    canvas.setFont("Helvetica-Bold", 11)
    _row(canvas, y, "Together", "", studio.currency, _money(page.together, studio))
    canvas.save()
    return written.getvalue()


def _packs(line: OrderLine, studio: Studio) -> str:
    return f"{line.count} x {' '.join(numbers.amount(line.pack, line.item.unit, studio))}"


def _money(value: Decimal, studio: Studio) -> str:
    return f"{value:.2f}".replace(".", studio.decimal_mark)


def _head(canvas: Canvas, page: OrderPage, studio: Studio) -> float:
    """The heading of a page; where its first line stands."""
    order, y = page.order, A4[1] - MARGIN
    canvas.setFont("Helvetica-Bold", 16)
    canvas.drawString(MARGIN, y, f"Order {order.number}")
    canvas.setFont("Helvetica", 11)
    sent = f", {order.sent_on:%-d %B %Y}" if order.sent_on else ""
    canvas.drawString(MARGIN, y - LINE, _latin(f"{studio.name} to {order.supplier.name}{sent}"))
    if order.one_dye_lot:
        canvas.drawString(MARGIN, y - 2 * LINE, "Each colour of one dye lot, please.")
    return y - 4 * LINE


def _row(canvas: Canvas, y: float, *cells: str) -> float:
    canvas.drawString(MARGIN, y, _latin(cells[0]))
    for x, cell in zip((PACK_X, PRICE_X, SUM_X), cells[1:], strict=True):
        canvas.drawRightString(x, y, _latin(cell))
    return y - LINE


def _latin(text: str) -> str:
    """The letters that the paper's type has; others become question marks."""
    return text.replace("\u202f", " ").encode("cp1252", "replace").decode("cp1252")
