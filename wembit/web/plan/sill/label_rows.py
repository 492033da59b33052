"""Where words stand above the figures: each beginning at its figure's place, as low as there is room."""

from __future__ import annotations

from collections.abc import Sequence

GAP_PX = 12.0  # between two words of one row


def label_rows(places: Sequence[float], widths: Sequence[float]) -> list[int]:
    """The row of each label, 0 the lowest, so that neither other words nor the line from other words down to their figure
    cross it. `places`: where labels begin; `widths`: how wide they are; both in px.
    """
    taken: list[list[tuple[float, float]]] = []
    rows = [0] * len(places)
    for which in sorted(range(len(places)), key=lambda which: (-places[which], -which)):
        start, end = places[which] - 2, places[which] + widths[which] + GAP_PX
        row = 0
        while row < len(taken) and any(start < right and left < end for left, right in taken[row]):
            row += 1
        if row == len(taken):
            taken.append([])
        taken[row].append((start, end))
        for lower in taken[:row]:
            lower.append((start, places[which] + 2))
        rows[which] = row
    return rows
