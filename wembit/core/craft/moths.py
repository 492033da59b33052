"""What is done with wool in which moths were found."""

from __future__ import annotations

COLD_DAYS = 14  # shut tight, in a household freezer, each time; common practice
