"""What a press did, in the journal's words, where the action itself does not say it."""

from __future__ import annotations

WORDS = {
    "bench:begin": "a making, begun",
    "bench:finish": "a making, finished",
    "bench:enough": "a piece has enough",
    "bench:mark": "a piece, marked",
    "bench:more": "a piece takes more",
    "bench:not_begun": "a making, taken back",
    "bench:picture": "a making, photographed",
    "colour:card": "a blend, carded",
    "colour:habits": "how the studio cards",
    "colour:tell": "the colour of a bag",
    "figures:add_reference": "a picture of a figure, added",
    "figures:copy": "a figure, copied",
    "figures:describe": "name and story of a figure",
    "figures:drop_reference": "a picture of a figure, dropped",
    "figures:new": "a figure, begun",
    "figures:new_tracing": "a drawing, begun",
    "figures:origin": "where a design is from",
    "figures:take_in": "a figure, taken in from a file",
    "figures:tracing": "a drawing",
    "figures:way": "a way of working",
    "plan:change": "a project, changed",
    "plan:drop": "a project, given up",
    "plan:finish": "a project, done",
    "plan:new": "a project, planned",
    "plan:newest": "the newest version, used",
    "restock:accept": "an answer to a shortage",
    "restock:arrival": "a parcel, received",
    "restock:new_supplier": "a supplier",
    "restock:off_list": "packs, off the list",
    "restock:offer": "a pack and its price",
    "restock:send": "an order, sent",
    "restock:stand_in_back": "an answer to a shortage, taken back",
    "restock:supplier": "a supplier",
    "restock:to_list": "packs, on the list",
    "stash:breeds": "a breed of your own",
    "stash:describe": "what a bag is",
    "stash:learn": "what the scale shows of a wool",
    "stash:new_reminder": "a look at the wool, noted",
    "stash:notion": "what a notion is",
    "stash:tick": "a look at the wool",
    "studio:invite": "an invitation",
    "studio:new_password": "a link for a new password",
    "studio:pinch": "your pinch and keys",
    "studio:remove": "a member, let go",
    "studio:role": "a member’s role",
    "studio:settings": "the studio’s settings",
}


def words_of(view_name: str) -> str:
    """What a press of this address did; empty where the action itself tells it, or where nothing is left to take back."""
    return WORDS.get(view_name, "")
