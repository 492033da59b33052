"""Parts that follow other parts: after every change the sizes that follow are worked out and kept."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict

from wembit.core.errors import BadInput
from wembit.core.grams.relations import WOOL, Relation, holds, resolve
from wembit.core.shape.sizes import sizes
from wembit.web.errors import Refusal, refusal_of
from wembit.web.figures.models import Part, Version
from wembit.web.figures.queries import colourway_of, parts_of
from wembit.web.figures.to_core.estimating import Palette, request_of

ROUNDS, NEAR = 8, 1e-6


def relations_of(part: Part) -> list[Relation]:
    """What of a part follows other parts, as the core has it."""
    return [Relation(**relation) for relation in part.relations]


def held_sizes(part: Part) -> dict[str, str]:
    """The lengths of a part that follow something, each with the size by which its relation is let go."""
    lengths = [name for name in sizes(part.shape) if name != "wire_mm"]
    held: dict[str, str] = {}
    for relation in relations_of(part):
        whole = relation.whole or relation.size == WOOL
        held |= dict.fromkeys(lengths if whole else [relation.size], relation.size)
    return held


def follow(version: Version, parts: list[Part] | None = None) -> None:
    """Keep the sizes of all parts that follow others; `parts` are the version's, where they have been read already.

    Raises `Refusal` with the core's words where one cannot be held.

    What a join hides hangs on the sizes, and wool on what is hidden, so it is asked again until nothing moves.
    """
    parts = parts_of(version) if parts is None else parts
    before = {part.key: part.shape for part in parts}
    followed(version, parts, lambda: Palette.of(colourway_of(version)))
    for part in parts:
        if part.shape != before[part.key]:
            part.save(update_fields=["shape"])


def followed(version: Version, parts: list[Part], palette_of: Callable[[], Palette]) -> None:
    """Work out the sizes of all parts that follow others, and keep nothing; the palette is asked for where wool is followed.

    Raises `Refusal` as `follow` does.
    """
    if not any(part.relations for part in parts):
        return
    by_wool = any(relation.size == WOOL for part in parts for relation in relations_of(part))
    palette = palette_of() if by_wool else Palette({}, {})
    for _ in range(ROUNDS):
        rows = {part.key: {"shape": part.shape} for part in parts}
        if by_wool:
            rows = dict(zip(rows, request_of(version, parts, palette)["parts"], strict=True))
        try:
            shapes = resolve(rows, {part.key: relations_of(part) for part in parts})
        except BadInput as fault:
            raise _refusal(fault, parts) from None
        moved = [part for part in parts if part.key in shapes and not alike(part.shape, shapes[part.key])]
        for part in moved:
            part.shape = shapes[part.key]
        if not moved:
            break


def let_go_of_lost_sizes(parts: list[Part]) -> None:
    """After a change of shape: a part stops following by a size that it, or what it follows, no longer has."""
    shapes = {part.key: part.shape for part in parts}
    for part in parts:
        kept = [
            asdict(relation)
            for relation in relations_of(part)
            if holds(relation, part.shape, shapes.get(relation.of or ""))
        ]
        if len(kept) != len(part.relations):
            part.relations = kept


def alike(one: dict, two: dict) -> bool:
    """Whether no size differs by more than a part in a million."""
    mine, yours = sizes(one), sizes(two)
    return all(abs(mm - yours[name]) <= NEAR * max(mm, 1.0) for name, mm in mine.items())


def _refusal(fault: BadInput, parts: list[Part]) -> Refusal:
    """The core's words, with the name of the part that cannot follow."""
    names = {part.key: part.name for part in parts}
    who = names.get(fault.where.removeprefix("relations.").split(".")[0])
    if who and not fault.code:
        return Refusal(f"{who}: {fault.what}.", "relations")
    return refusal_of(fault, "relations", names)
