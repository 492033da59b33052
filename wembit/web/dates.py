"""Dates as a person says them."""

from __future__ import annotations

import datetime as dt


def spoken(date: dt.date, today: dt.date) -> str:
    """today, tomorrow, yesterday, a weekday within the week, else 9 Dec; with the year when it is most of a year away."""
    away = (date - today).days
    if away in (-1, 0, 1):
        return {-1: "yesterday", 0: "today", 1: "tomorrow"}[away]
    if 1 < away < 7:
        return f"{date:%a}"
    return f"{date:%-d %b}" if abs(away) < 300 else f"{date:%-d %b %Y}"
