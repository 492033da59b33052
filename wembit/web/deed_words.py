"""What a press did, in the journal's words, where neither the action nor its rows say it (row_deeds.py)."""

from __future__ import annotations

WORDS = {
    "colour:card": "a blend, carded",
    "restock:place": "an order, sent as a file",
    "restock:ask": "an order, asked after",
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
