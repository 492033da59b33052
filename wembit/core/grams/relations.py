"""Parts that follow other parts: a length or the wool of one as a share of another's, and a gap.

"Legs half the body", "tail a third of a leg's wool", "the shell goes round the crab with 2 mm to spare". A relation is
held at the size at which the figure is made, so that it keeps its sense under scaling: shares stay shares, a gap stays
as wide as it was said.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from wembit.core.errors import RING, BadInput
from wembit.core.shape.sizes import grown, resized, size

from .estimate import estimate

WOOL = "wool"
SMALLEST_MM, LARGEST_MM = 0.1, 10_000.0
PRECISION = 1e-9


@dataclass(frozen=True)
class Relation:
    """`size` of the part (WOOL for its grams a piece) = `share` × `of_size` of the part `of`, + `gap_mm`; without `of`
    the wool is `share` grams. `whole`: the part keeps its proportions, else that one size changes alone.
    """

    size: str
    of: str | None
    of_size: str
    share: float
    gap_mm: float = 0.0
    whole: bool = True


def order(relations: Mapping[str, Sequence[Relation]]) -> list[str]:
    """The parts that follow, each after what it follows. Raises `BadInput` naming the parts of a ring."""
    done: list[str] = []

    def visit(key: str, way: tuple[str, ...]) -> None:
        if key in way:
            ring = (*way[way.index(key) :], key)
            words = f"these parts follow each other in a ring: {', '.join(ring)}"
            raise BadInput("relations", words, code=RING, names=ring)
        for relation in relations.get(key, ()):
            if relation.of is not None:
                visit(relation.of, (*way, key))
        if key not in done and relations.get(key):
            done.append(key)

    for key in relations:
        visit(key, ())
    return done


def resolve(
    parts: Mapping[str, dict], relations: Mapping[str, Sequence[Relation]], scale: float = 1.0
) -> dict[str, dict]:
    """The shapes, unscaled, that hold every relation at `scale`, for the parts that follow.

    `parts`: the estimate's parts by key. Raises `BadInput` for a ring, a part that is not there, a size that a shape has
    not, and a size below 0.1 mm or above 10 m.
    """
    now = {key: dict(part) for key, part in parts.items()}
    for key in order({key: found for key, found in relations.items() if key in now}):
        for relation in relations[key]:
            if relation.of is not None and relation.of not in now:
                raise BadInput(f"relations.{key}.of", "follows a part that is not there", relation.of)
            now[key]["shape"] = _followed(now, key, relation, scale)
    return {key: now[key]["shape"] for key, found in relations.items() if found and key in now}


def holds(relation: Relation, shape: Mapping, of_shape: Mapping | None) -> bool:
    """Whether both shapes have the sizes that a relation names; a part of another shape can lose one."""
    if relation.size == WOOL:
        return True
    try:
        size(shape, relation.size)
        size(of_shape or {"kind": "none"}, relation.of_size)
    except KeyError:
        return False
    return True


def _followed(now: Mapping[str, dict], key: str, relation: Relation, scale: float) -> dict:
    shape = now[key]["shape"]
    if relation.size == WOOL:
        wanted = relation.share * (grams(now[relation.of], scale) if relation.of is not None else 1.0)
        return _of_grams(now[key], wanted, scale)
    try:
        wanted = relation.share * size(now[str(relation.of)]["shape"], relation.of_size) + relation.gap_mm / scale
        have = size(shape, relation.size)
    except KeyError as missing:
        raise BadInput(f"relations.{key}.size", "is no size of that shape", missing.args[0]) from None
    if not SMALLEST_MM <= wanted * scale <= LARGEST_MM:
        raise BadInput(f"relations.{key}", "comes out below 0.1 mm or above 10 m", round(wanted * scale, 3))
    if relation.whole and have > 0:
        return grown(shape, wanted / have)
    return resized(shape, {relation.size: wanted})


def grams(part: dict, scale: float) -> float:
    """The rule's grams of one piece with its loss."""
    estimated = estimate({"scale": scale, "parts": [part]}).parts[0]
    return sum(layer.middle for layer in estimated.layers) / estimated.count


def _of_grams(part: dict, wanted_g: float, scale: float) -> dict:
    """The part's shape grown or shrunk until a piece takes so many grams."""
    from scipy.optimize import brentq

    def over(times: float) -> float:
        try:
            return grams({**part, "shape": grown(part["shape"], times)}, scale) - wanted_g
        except BadInput:
            return -wanted_g  # too small for its wire: far too little wool

    low, high = 0.02, 50.0
    if not wanted_g > 0 or over(low) > 0 or over(high) < 0:
        raise BadInput("relations", "no size of the part takes so much wool", round(wanted_g, 3))
    return grown(part["shape"], brentq(over, low, high, xtol=PRECISION, rtol=1e-12))
