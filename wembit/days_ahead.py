"""The days by which the house and its stand-ins are ahead of the calendar, in a file that all of them read."""

from __future__ import annotations

import os
from pathlib import Path

MOST = 3660


def days_in(file: Path | None) -> int:
    """How many days have been passed; none where nobody has."""
    try:
        return min(MOST, max(0, int(file.read_text()))) if file else 0
    except (OSError, ValueError):
        return 0


def pass_days(file: Path, days: int) -> int:
    """So many days more; the file is there whole or not at all."""
    ahead = min(MOST, days_in(file) + max(0, days))
    written = file.with_suffix(".new")
    written.write_text(str(ahead))
    os.replace(written, file)
    return ahead
