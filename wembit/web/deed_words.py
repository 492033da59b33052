"""What a press did, in the journal's words, where neither the action nor its rows say it (row_deeds.py)."""

from __future__ import annotations

WORDS = {
    "bench:picture": "a making, photographed",
    "colour:card": "a blend, carded",
    "colour:habits": "how the studio cards",
    "figures:add_reference": "a picture of a figure, added",
    "figures:copy": "a figure, copied",
    "figures:drop_reference": "a picture of a figure, dropped",
    "figures:new": "a figure, begun",
    "figures:new_tracing": "a drawing, begun",
    "figures:take_in": "a figure, taken in from a file",
    "figures:way": "a way of working",
    "restock:arrival": "a parcel, received",
    "studio:invite": "an invitation",
    "studio:new_password": "a link for a new password",
    "studio:password": "your password",
    "studio:remove": "a member, let go",
    "studio:withdraw": "a link, withdrawn",
}


def words_of(view_name: str) -> str:
    """What a press of this address did; empty where the action itself tells it, or where nothing is left to take back."""
    return WORDS.get(view_name, "")
