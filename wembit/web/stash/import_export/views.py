"""The stash and the ledger as files: out, and in with a look at each row's fate before anything is kept."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from functools import lru_cache
from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.http import HttpResponse, StreamingHttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.core.tables import Table, Unreadable, read_table, write_table
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.limits import TABLE_BYTES, TABLE_ROWS
from wembit.web.responses import again, tried
from wembit.web.stash.actions.keep_file import keep_file
from wembit.web.stash.actions.take_in_rows import take_in_rows
from wembit.web.stash.file_rows.ledger_file import is_ledger, ledger_fates
from wembit.web.stash.file_rows.stash_file import (
    CHANGED,
    COLUMNS,
    FATES,
    LEDGER,
    NEW,
    NEW_LINE,
    REFUSED,
    NoStash,
    columns_of,
    fates,
    ledger_rows,
    stash_rows,
)
from wembit.web.stash.models import StashFile
from wembit.web.stash.queries import file_of, files_lately
from wembit.web.studio.models import MAKER

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.request import Request

SHOWN = 100  # rows of the look before


def files_context(request: Request) -> dict:
    return {"files": files_lately(request.studio), "columns": COLUMNS}


@require_http_methods(["GET", "POST"])
def files(request: Request) -> HttpResponse:
    """What can go out; and a table that comes in, looked at first."""
    if request.method == "GET":
        return render(request, "stash/import_export/files.html", files_context(request))
    request.member.must_be(MAKER)
    made, faults = tried(lambda: _kept(request))
    if faults:
        return again(request, "stash/import_export/files.html", files_context(request), faults)
    return redirect("stash:file", studio=request.studio.slug, file_id=made.pk)


def _kept(request: Request) -> StashFile:
    upload = request.FILES.get("table")
    if upload is None:
        raise Refusal("Choose a CSV file.", "table")
    if (upload.size or 0) > TABLE_BYTES:
        raise Refusal("That file is larger than 40 MB. Send it in pieces.", "table")
    raw = upload.read()
    try:
        table = read_table(raw)
        if not is_ledger(table):
            columns_of(table)
    except (Unreadable, NoStash) as fault:
        raise Refusal(str(fault), "table") from None
    if not table.rows:
        raise Refusal("There is a heading in that file, and no row under it.", "table")
    if len(table.rows) > TABLE_ROWS:
        raise Refusal(f"That file has {len(table.rows)} rows; {TABLE_ROWS} are the most at once.", "table")
    return keep_file(request.member, upload.name or "table.csv", raw, len(table.rows))


@lru_cache(maxsize=2)
def _table(path: str) -> Table:
    """A kept file never changes; two are held while their rows come in."""
    with open(path, "rb") as file:
        return read_table(file.read())


def _cells(table: Table, row: int) -> list[str]:
    """A row with a cell for every column."""
    return [table.cell(row, column) for column in range(len(table.head))]


def _file(request: Request, file_id: UUID) -> StashFile:
    return file_of(request.studio, file_id)


def file_context(request: Request, file: StashFile) -> dict:
    table = _table(file.file.path)
    context = {"file": file, "fates": [(fate, file.counts.get(fate, 0)) for fate in FATES], "table": table}
    context["share"] = round(100 * file.done / file.total)
    if file.done == 0:
        row_fates = ledger_fates(request.studio, table) if is_ledger(table) else fates(request.studio, table)
        counts = Counter(row.fate for row in row_fates)
        context["fates"] = [(fate, counts[fate]) for fate in FATES]
        head = [row for row in row_fates if row.fate == REFUSED][: SHOWN // 2]
        shown = sorted([*head, *[row for row in row_fates if row.fate != REFUSED][:SHOWN]], key=lambda row: row.number)
        rows = [(row, _cells(table, row.number - 2)) for row in shown[:SHOWN]]
        context["rows"], context["more"] = rows, len(row_fates) - len(rows)
        context["work"] = counts[NEW] + counts[NEW_LINE] + counts[CHANGED]
    return context


@require_GET
def file(request: Request, file_id: UUID) -> HttpResponse:
    """Before: each row's fate. While it comes in: how far it is. After: the report."""
    return render(request, "stash/import_export/file.html", file_context(request, _file(request, file_id)))


@require_POST
def go_on(request: Request, file_id: UUID) -> HttpResponse:
    """Take in the next rows."""
    request.member.must_be(MAKER)
    upload = _file(request, file_id)
    upload = take_in_rows(request.member, upload.pk, _table(upload.file.path))
    if request.htmx:
        return render(request, "stash/import_export/_file.html", file_context(request, upload))
    if upload.finished_at:
        messages.success(request, f"{upload.name} is in.")
    return redirect("stash:file", studio=request.studio.slug, file_id=upload.pk)


@require_GET
def report(request: Request, file_id: UUID) -> HttpResponse:
    """The rows that were refused, with the reason, as they stood in the file."""
    file = _file(request, file_id)
    table = _table(file.file.path)
    rows = [[number, words, *table.rows[number - 2]] for number, words in file.refused]
    return _csv(write_table(["row", "why", *table.head], rows), f"refused-{file.made_at:%Y-%m-%d}.csv")


@require_GET
def stash_csv(request: Request) -> StreamingHttpResponse:
    return _streamed(COLUMNS, stash_rows(request.studio), f"stash-{clock.today(request.studio)}.csv")


@require_GET
def ledger_csv(request: Request) -> StreamingHttpResponse:
    return _streamed(LEDGER, ledger_rows(request.studio), f"ledger-{clock.today(request.studio)}.csv")


def _streamed(head: Any, rows: Any, name: str) -> StreamingHttpResponse:
    def lines() -> Iterator[str]:
        yield write_table(head, ())
        for row in rows:
            yield write_table([str(cell) if cell is not None else "" for cell in row], ())

    return _named(StreamingHttpResponse(lines(), content_type="text/csv; charset=utf-8"), name)


def _csv(text: str, name: str) -> HttpResponse:
    return _named(HttpResponse(text, content_type="text/csv; charset=utf-8"), name)


def _named(response: Any, name: str) -> Any:
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
