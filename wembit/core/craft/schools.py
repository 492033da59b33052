"""The schools of the craft: what each studio, figure or part may do its own way. None is the right one; all are common
practice. Each question is asked only of a figure that needs it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True)
class Question:
    """`needs`: what a figure must have for the question to arise; the first way stands until one is chosen."""

    words: str
    needs: str
    ways: Mapping[str, str]


QUESTIONS: dict[str, Question] = {
    "wool": Question("Tops for a body: how?", "tops", {
        "as they are": "as they are", "restacked": "pulled apart and restacked crosswise", "broken up": "broken up small",
    }),
    "weigh": Question("What do you weigh?", "bulk", {
        "all": "everything", "bodies": "the large parts; the rest by eye", "nothing": "nothing, by eye and finger",
    }),
    "pad": Question("What do you felt on?", "bulk", {
        "foam": "a block of foam", "mat": "a wool mat", "brush": "a brush mat", "colours": "one pad for pale, one for dark",
    }),
    "needles": Question("How many needles for the bulk?", "bulk", {
        "one": "one needle for nearly all", "bundle": "two or three together until it gets stiff",
    }),
    "amounts": Question("How do you begin?", "bulk", {
        "small": "small, and add", "generous": "generous, it shrinks",
    }),
    "pace": Question("How far is a part taken before it is joined?", "joins", {
        "steady": "shaped and firm", "quick": "soft, and finished on the figure", "slow": "finished, edges and all",
    }),
    "twins": Question("Two of a kind: how alike?", "pairs", {
        "halves": "one piece torn in equal halves, both worked at once", "strip": "one long piece cut through",
        "stencil": "both held to a stencil", "beside": "laid side by side", "free": "they need not match",
    }),
    "edges": Question("The edge of a flat piece?", "flat", {
        "fold": "folded in while it is soft", "scissors": "cut with scissors", "cutter": "felted in a cutter",
        "clamp": "held in a clamp and stabbed from its rim",
    }),
    "attach": Question("How are parts joined?", "joins", {
        "loose end": "the loose end felted in", "pinned": "pinned first, then felted in", "stitch": "stitched",
        "glue": "glued", "bored": "bare wire into a bored hole, with glue", "wisp": "a wisp laid over like tape",
    }),
    "sculpt": Question("How is a face shaped?", "head", {
        "sockets": "sockets and a mouth", "full": "sockets, mouth, brow and cheeks", "none": "not at all, colours make it",
    }),
    "eyes": Question("When do the eyes go in?", "eyes", {
        "last": "last, when all else is settled", "middle": "in the middle, after the face's colours",
        "early": "early, on a bald head",
    }),
    "lines": Question("A thin line: from where?", "lines", {
        "ends": "both ends first", "middle": "the middle first", "guided": "one end, the twist guided along",
    }),
    "trim": Question("When is a coat trimmed?", "coat", {
        "zone": "after a zone, against a picture", "row": "each row", "lock": "each lock at once",
        "end": "all at the end", "hardly": "hardly at all",
    }),
    "surface": Question("How is the surface left?", "cover", {
        "smooth": "smooth, two fine needles at the end", "fluffy": "fluffy, on purpose",
    }),
    "strays": Question("And stray fibres?", "bulk", {
        "stab": "stabbed in", "cut": "cut off", "leave": "left",
    }),
    "build": Question("What is made first?", "head", {
        "body": "the body", "head": "the head", "small": "the smallest parts, while the eye is fresh",
    }),
    "fingers": Question("How do you keep your fingers whole?", "bulk", {
        "care": "care, and a slanting needle", "guards": "leather guards", "helper": "a helper needle holds the piece",
    }),
}  # fmt: skip


def way(chosen: Mapping, question: str, part: str = "") -> str:
    """The way taken: the part's own, else the figure's and studio's, else the first."""
    own = chosen.get("parts", {}).get(part, {}).get(question)
    taken = str(own or chosen.get(question))
    ways = QUESTIONS[question].ways
    return taken if taken in ways else next(iter(ways))


def asked(needs: set[str], chosen: Mapping) -> list[str]:
    """The questions that a figure raises and nobody has answered yet, in their order."""
    return [key for key, question in QUESTIONS.items() if question.needs in needs and key not in chosen]
