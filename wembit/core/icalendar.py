"""Days as a calendar file: RFC 5545, written."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass

LINE_OCTETS = 75  # of a content line, without its break (3.1)
PRODUCT = "-//Wembit//Dates of a felting studio//EN"


@dataclass(frozen=True)
class Day:
    """Something on a day, all day long: a name that stays the same for good, and words."""

    uid: str
    date: dt.date
    words: str
    more: str = ""


def calendar(name: str, days: Iterable[Day], now: dt.datetime) -> str:
    """The file's text; `now`: in UTC, when it was made."""
    lines = [
        "BEGIN:VCALENDAR",
        "VERSION:2.0",
        f"PRODID:{PRODUCT}",
        "CALSCALE:GREGORIAN",
        f"X-WR-CALNAME:{escaped(name)}",
    ]
    stamp = now.astimezone(dt.UTC).strftime("%Y%m%dT%H%M%SZ")
    for day in days:
        lines += [
            "BEGIN:VEVENT",
            f"UID:{escaped(day.uid)}",
            f"DTSTAMP:{stamp}",
            f"DTSTART;VALUE=DATE:{day.date:%Y%m%d}",
            f"DTEND;VALUE=DATE:{day.date + dt.timedelta(1):%Y%m%d}",
            f"SUMMARY:{escaped(day.words)}",
            *([f"DESCRIPTION:{escaped(day.more)}"] if day.more else []),
            "TRANSP:TRANSPARENT",
            "END:VEVENT",
        ]
    return "".join(f"{folded(line)}\r\n" for line in [*lines, "END:VCALENDAR"])


def escaped(text: str) -> str:
    """Text as a value (3.3.11): backslash, semicolon, comma and line breaks are escaped, other control characters left out."""
    text = text.replace("\\", "\\\\").replace(";", "\\;").replace(",", "\\,")
    text = text.replace("\r\n", "\n").replace("\r", "\n").replace("\n", "\\n")
    return "".join(each for each in text if each >= " " and each != "\x7f")


def folded(line: str) -> str:
    """A content line broken so that no line is longer than 75 octets (3.1), and no character is broken."""
    parts, now, used = [], "", 0
    for each in line:
        octets = len(each.encode())
        if used + octets > LINE_OCTETS:
            parts.append(now)
            now, used = " ", 1
        now, used = now + each, used + octets
    return "\r\n".join([*parts, now])
