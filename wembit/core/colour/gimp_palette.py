"""Palettes in the GIMP palette format: a heading, then a line for each colour, three numbers of 0–255 and a name."""

from __future__ import annotations

import re
from collections.abc import Iterable

HEAD = "GIMP Palette"
LINE = re.compile(r"\s*(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})(?:\s+(.*))?")
MOST = 2000


class Unreadable(ValueError):
    """The text is no palette; the message says where."""


def write_palette(name: str, colours: Iterable[tuple[str, str]], columns: int = 8) -> str:
    """A palette of `#rrggbb` and names."""
    lines = [HEAD, f"Name: {_plain(name)}", f"Columns: {columns}", "#"]
    for srgb, called in colours:
        red, green, blue = (int(srgb[i : i + 2], 16) for i in (1, 3, 5))
        lines.append(f"{red:3d} {green:3d} {blue:3d}\t{_plain(called)}")
    return "\n".join(lines) + "\n"


def read_palette(text: str) -> tuple[str, list[tuple[str, str]]]:
    """The name, and the colours as `#rrggbb` with their names. Raises `Unreadable`."""
    lines = text.lstrip("\ufeff").splitlines()
    if not lines or lines[0].strip() != HEAD:
        raise Unreadable("That is no GIMP palette: its first line has to be “GIMP Palette”.")
    name, found = "", []
    for number, line in enumerate(lines[1:], 2):
        if line.startswith("Name:"):
            name = line[5:].strip()
        elif not line.strip() or line.startswith(("#", "Columns:")):
            continue
        else:
            match = LINE.fullmatch(line)
            if not match or any(int(match[n]) > 255 for n in (1, 2, 3)):
                raise Unreadable(f"Line {number} is no colour: three numbers of 0 to 255 and a name.")
            srgb = "#" + "".join(f"{int(match[n]):02x}" for n in (1, 2, 3))
            found.append((srgb, (match[4] or "").strip()))
    if not found:
        raise Unreadable("There is no colour in that palette.")
    if len(found) > MOST:
        raise Unreadable(f"That palette holds {len(found)} colours; {MOST} are the most.")
    return name, found


def _plain(text: str) -> str:
    return " ".join(text.split())
