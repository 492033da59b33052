"""What beasts on four legs have alike: their colours, and a head with snout, nose, ears and eyes."""

from __future__ import annotations

from .writing import PlanPart, bead, core, cover, ellipsoid, frustum, on, part, silhouette

COAT = {"core": "#e9e2d2", "coat": "#a9713f", "belly": "#e8dcc4", "nose": "#24211f"}
DARK = {"dark": "#33291f"}  # of feet


def head(seat: dict) -> list[PlanPart]:
    """A head that sits there, with all that sits on it."""
    return [
        part(1, "head", "head", ellipsoid(40, 36, 34), "firm", [core("core"), cover("coat")], None, seat),
        part(1, "snout", "snout", frustum(19, 12, 20), "firm", [core("belly")], None, on("head", 0.9, None, -12, 0, sink=6)),
        part(1, "nose", "nose", ellipsoid(6, 8, 6), "very_firm", [core("nose")], None, on("snout", 1, None, 0, 0, sink=3)),
        part(2, "ear", "ear", silhouette("0:13 7:15 15:11 24:1", 0.8), "firm", [core("coat")], None,
             on("head", 0.36, 36, 68, 100, sink=5)),
        bead(2, "eye", 4, on("head", 0.76, 52, sink=1)),
    ]  # fmt: skip
