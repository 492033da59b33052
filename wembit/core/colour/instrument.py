"""Reflectance measured by an instrument: a table with a column or a row for each wavelength, laid onto the basis."""

from __future__ import annotations

import re

import numpy as np

from wembit.core import tables
from wembit.core.tables import read_table

from .basis import NM

WAVELENGTH = re.compile(r"\D{0,12}?(\d{3})(?:\.0*)?\s*(?:nm)?\)?", re.IGNORECASE)
MOST_ROWS = 2_000
NARROWEST, WIDEST = (420, 680), 20.0  # what has to be measured at least, and how far apart in nm
LIMITS = (1e-4, 1 - 1e-4)


class Unreadable(ValueError):
    """The table is no spectrum; the message says what is missing."""


def read_spectra(text: str) -> list[tuple[str, np.ndarray]]:
    """The reflectances (36,) of a table as instruments write it, each with its name: wavelengths in the heading (a sample a
    row) or in the first column (a sample a column); commas, semicolons or tabs; decimal comma or point; shares or percent.

    Between the wavelengths measured the curve is straight, beyond them it goes on level. Raises `Unreadable`.
    """
    rows = _rows(text)
    if not rows:
        raise Unreadable("That file is empty.")
    if len(rows) > MOST_ROWS:
        raise Unreadable(f"That file has {len(rows):,} rows; {MOST_ROWS:,} are the most of an instrument's.")
    down = sum(_wavelength(row[0]) is not None for row in rows if row)
    across = [sum(_wavelength(cell) is not None for cell in row) for row in rows]
    if max(across, default=0) >= down:
        head = rows[int(np.argmax(across))]
        samples = rows[int(np.argmax(across)) + 1 :]
    else:
        width = max(map(len, rows))
        padded = [row + [""] * (width - len(row)) for row in rows]
        first = next((row for row in padded if _wavelength(row[0]) is None), [""] * width)
        body = [row for row in padded if _wavelength(row[0]) is not None]
        head = ["", *(row[0] for row in body)]
        samples = [[first[column] or f"sample {column}", *(row[column] for row in body)] for column in range(1, width)]
    places = [(n, nm) for n, cell in enumerate(head) if (nm := _wavelength(cell)) is not None]
    if len(places) < 10:
        raise Unreadable(
            "No wavelengths stand in it. There have to be columns, or a first column, like 400, 410, 420 nm."
        )
    nms = np.array([nm for _, nm in places])
    _check(nms)
    found = []
    for number, row in enumerate(samples, 1):
        if not any(cell.strip() for cell in row):
            continue
        values = [_number(row[n]) if n < len(row) else None for n, _ in places]
        name = next(
            (cell.strip() for n, cell in enumerate(row) if cell.strip() and n < places[0][0]), f"sample {number}"
        )
        if None in values:
            raise Unreadable(f"{name} lacks a number at {nms[values.index(None)]:g} nm.")
        found.append((name, np.array(values, dtype=float)))
    if not found:
        raise Unreadable("There are wavelengths, and no sample under them.")
    percent = max(values.max() for _, values in found) > 1.5
    return [(name, _laid(nms, values / 100 if percent else values, name)) for name, values in found]


def _rows(text: str) -> list[list[str]]:
    try:
        found = read_table(text.encode())
    except tables.Unreadable as fault:
        raise Unreadable(str(fault)) from None
    return [found.head, *found.rows]


def _wavelength(cell: str) -> int | None:
    match = WAVELENGTH.fullmatch(cell.strip())
    return int(match[1]) if match and 300 <= int(match[1]) <= 900 else None


def _number(cell: str) -> float | None:
    try:
        return float(cell.strip().rstrip("%").replace(",", "."))
    except ValueError:
        return None


def _check(nms: np.ndarray) -> None:
    if (np.diff(nms) <= 0).any():
        raise Unreadable("The wavelengths do not rise one after another.")
    if nms[0] > NARROWEST[0] or nms[-1] < NARROWEST[1]:
        raise Unreadable(f"It runs from {nms[0]:g} to {nms[-1]:g} nm; 420 to 680 nm is the least.")
    if np.diff(nms).max() > WIDEST:
        raise Unreadable(f"Its wavelengths are more than {WIDEST:g} nm apart.")


def _laid(nms: np.ndarray, values: np.ndarray, name: str) -> np.ndarray:
    if not np.isfinite(values).all() or values.min() < -0.02 or values.max() > 1.2:
        raise Unreadable(
            f"{name} reflects less than nothing or more than all. Reflectance runs from 0 to 1, or to 100 %."
        )
    return np.clip(np.interp(NM, nms, values), *LIMITS)
