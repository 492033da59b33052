"""What an address asks for: words, ids and numbers; what cannot be read is not asked."""

from __future__ import annotations

import datetime as dt
import math
from decimal import Decimal
from uuid import UUID

from wembit.core import units
from wembit.web.decimals import to_cent


def id_in(text: str) -> UUID | None:
    """The id that a text names; None for any other text."""
    try:
        return UUID(text.strip())
    except ValueError:
        return None


def words_in(text: str, most: int = 80) -> str:
    """The first `most` characters of a text, without NUL, which nobody types and no database takes."""
    return text.replace("\0", "")[:most]


def whole_number_in(text: str) -> int | None:
    """A whole number of at most six digits; None for any other text."""
    return int(text) if text.isascii() and text.isdigit() and len(text) < 7 else None


def moment_in(text: str) -> dt.datetime | None:
    """A moment with its zone, as the house writes it; None for any other text."""
    try:
        moment = dt.datetime.fromisoformat(text[:40])
        return moment.astimezone(dt.UTC) if moment.tzinfo and moment.year > 1900 else None
    except (ValueError, OverflowError):
        return None


def number_in(text: str) -> float | None:
    """A finite number with a decimal point; None for any other text."""
    try:
        number = float(text[:30])
    except ValueError:
        return None
    return number if math.isfinite(number) else None


def price_in(text: str) -> Decimal | None:
    """Money as a field reads it, more than nothing and at most a million; None for any other text."""
    try:
        price = to_cent(units.number(text[:30]))
    except ValueError:
        return None
    return price if 0 < price < 1_000_000 else None
