"""Tables as files: CSV by RFC 4180 out; in, whatever a spreadsheet makes of it."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

MARKS = ";\t,"
MOST_COLUMNS, MOST_ROWS, MOST_CELLS, LONGEST_CELL = 1_000, 200_000, 4_000_000, 20_000
NUMBER = re.compile(r"[-−+]?\d[\d.,\s\u00a0\u202f']*")


class Unreadable(ValueError):
    """The file is no table; the message says what to do."""


@dataclass(frozen=True)
class Table:
    """The heading, rows of at most as many cells, and how the file was written: its encoding and what parts its cells."""

    head: list[str]
    rows: list[list[str]]
    encoding: str
    mark: str

    def cell(self, row: int, column: int) -> str:
        """What stands there; nothing where a row is shorter than the heading."""
        cells = self.rows[row]
        return cells[column] if column < len(cells) else ""


def read_table(raw: bytes) -> Table:
    """A table in UTF-8 (with or without its mark), UTF-16 with its mark, or else Latin-1 as Windows writes it; parted by
    commas, semicolons or tabs. The first row is the heading; empty rows are left out, and cells beyond the heading.

    Raises `Unreadable`, also for more than 1,000 columns, 200,000 rows, 4 million cells or 20,000 characters in one cell.
    """
    text, encoding = _text(raw)
    if "\0" in text:
        raise Unreadable("That is no table of text. Save it as CSV first.")
    lines = [line for line in text.splitlines()[:50] if line.strip()]
    if not lines:
        raise Unreadable("That file is empty.")
    mark = max(MARKS, key=lines[0].count)
    read: list[list[str]] = []
    cells = width = 0
    try:
        for row in csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True):
            if not any(cell.strip() for cell in row):
                continue
            width = width or len(row)
            _check_size(row, width, len(read))
            read.append(row[:width])
            cells += len(read[-1])
            if cells > MOST_CELLS:
                raise Unreadable(f"That file has more than {MOST_CELLS:,} cells. Send it in pieces.")
    except csv.Error as fault:
        if "field larger" in str(fault):
            raise Unreadable(f"A cell of that file is longer than {LONGEST_CELL:,} characters.") from None
        raise Unreadable("That is no table of text: a quotation mark is not closed. Save it as CSV anew.") from None
    if not read:
        raise Unreadable("That file is empty.")
    return Table([cell.strip() for cell in read[0]], read[1:], encoding, mark)


def _check_size(row: list[str], width: int, before: int) -> None:
    """Raises `Unreadable` for a row that no table of a studio has, before anything is made of it."""
    if width > MOST_COLUMNS:
        raise Unreadable(f"That file has {width:,} columns; {MOST_COLUMNS:,} are the most.")
    if before > MOST_ROWS:
        raise Unreadable(f"That file has more than {MOST_ROWS:,} rows. Send it in pieces.")
    if max(map(len, row)) > LONGEST_CELL:
        raise Unreadable(f"A cell of that file is longer than {LONGEST_CELL:,} characters.")


def _text(raw: bytes) -> tuple[str, str]:
    if raw[:2] in (b"\xff\xfe", b"\xfe\xff"):
        try:
            return raw.decode("utf-16"), "UTF-16"
        except UnicodeDecodeError:
            raise Unreadable("That file is cut off. Save it as CSV anew.") from None
    try:
        return raw.decode("utf-8-sig"), "UTF-8"
    except UnicodeDecodeError:
        return raw.decode("cp1252", errors="replace"), "Latin-1"


def write_table(head: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """CSV by RFC 4180: commas, CRLF, quotation marks where they are needed."""
    out = io.StringIO(newline="")
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(head)
    writer.writerows(["" if cell is None else cell for cell in row] for row in rows)
    return out.getvalue()


def number(text: str) -> float | None:
    """A number with a decimal comma or point, and perhaps marks between thousands; None for an empty cell.

    Where both stand, the last one is the decimal mark; one alone is. Raises ValueError.
    """
    text = text.strip()
    if not text:
        return None
    if not NUMBER.fullmatch(text):
        raise ValueError(f"“{text[:40]}” is no number")
    plain = re.sub(r"[\s\u00a0\u202f']", "", text.replace("−", "-"))
    last = max(plain.rfind(","), plain.rfind("."))
    if last >= 0:
        whole, part = plain[:last], plain[last + 1 :]
        if plain[last] in whole:  # the same mark again: it parts thousands
            if any(len(group) != 3 for group in re.split("[.,]", plain)[1:]):
                raise ValueError(f"“{text[:40]}” is no number")
            plain = plain.replace(plain[last], "")
        else:
            plain = re.sub("[.,]", "", whole) + "." + part
    try:
        value = float(plain)
    except ValueError:
        value = math.inf
    if math.isinf(value):
        raise ValueError(f"“{text[:40]}” is no number")
    return value
