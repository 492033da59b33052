"""What two workers and the database hold in memory."""

from __future__ import annotations

from .processes import megabytes, served_by


def rows(address: str) -> list[tuple[str, str]]:
    """Measured after the pages were asked for, so that the workers are warm."""
    web, base = (megabytes(pids) for pids in served_by(address))
    return [
        ("memory", f"{web:6.0f} MB gunicorn with two workers  {base:6.0f} MB PostgreSQL  {web + base:6.0f} MB in all")
    ]
