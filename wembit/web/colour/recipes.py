"""Recipes as an address or a form names them: bags with their whole parts."""

from __future__ import annotations

from uuid import UUID

from wembit.web.errors import Refusal
from wembit.web.stash.actions.blend import Share

MOST_BAGS, MOST_PARTS = 8, 99


def shares_of(text: str) -> list[Share]:
    """`<bag>*<parts> <bag>*<parts>`. Raises `Refusal`."""
    try:
        rows = [word.split("*") for word in text.split()]
        shares = [Share(UUID(lot), int(parts)) for lot, parts in rows]
    except ValueError:
        raise Refusal("That recipe cannot be read. Load the page anew and choose it again.") from None
    if not 1 <= len(shares) <= MOST_BAGS or not all(1 <= share.parts <= MOST_PARTS for share in shares):
        raise Refusal(f"A recipe names up to {MOST_BAGS} bags with up to {MOST_PARTS} parts each.")
    return shares
