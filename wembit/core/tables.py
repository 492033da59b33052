"""Tables as files: CSV by RFC 4180 out; in, whatever a spreadsheet makes of it."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

MARKS = ";\t,"
NUMBER = re.compile(r"[-−+]?\d[\d.,\s\u00a0\u202f']*")


class Unreadable(ValueError):
    """The file is no table; the message says what to do."""


@dataclass(frozen=True)
class Table:
    """The heading, rows of as many cells, and how the file was written: its encoding and what parts its cells."""

    head: list[str]
    rows: list[list[str]]
    encoding: str
    mark: str


def read_table(raw: bytes) -> Table:
    """A table in UTF-8 (with or without its mark), UTF-16 with its mark, or else Latin-1 as Windows writes it; parted by
    commas, semicolons or tabs. The first row is the heading; empty rows are left out. Raises `Unreadable`."""
    text, encoding = _text(raw)
    if "\0" in text:
        raise Unreadable("That is no table of text. Save it as CSV first.")
    lines = [line for line in text.splitlines()[:50] if line.strip()]
    if not lines:
        raise Unreadable("That file is empty.")
    mark = max(MARKS, key=lines[0].count)
    try:
        read = list(csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True))
    except csv.Error:
        raise Unreadable("That is no table of text: a quotation mark is not closed. Save it as CSV anew.") from None
    rows = [row for row in read if any(cell.strip() for cell in row)]
    if not rows:
        raise Unreadable("That file is empty.")
    head = [cell.strip() for cell in rows[0]]
    width = len(head)
    return Table(head, [row[:width] + [""] * (width - len(row)) for row in rows[1:]], encoding, mark)


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
