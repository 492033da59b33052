"""A figure as its order of work sees it: parts with their wool, wire and size, and which of them are worked as one."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

FILLING = "filling"  # the form that does not felt
THIN_MM = 8.0  # thinner than that is stabbed like wire: one fine needle, shallow; common practice


@dataclass(frozen=True)
class Wool:
    """What is taken for a step: `role` of the layer, fibre and slot by name, grams for all pieces.

    Of a coat: how far its rows are apart, whether its locks are folded, pulled and finished length in mm. Of a detail: how it
    is measured (`how`: spots, line, border or patch), how many on a piece, how long and wide in mm, at which share of
    the axis it lies and how many degrees round from the top. `felting`: how quickly it felts, a word of `FELTING`.
    """

    role: str
    fibre: str
    slot: str
    grams: float
    trimmed_g: float = 0.0
    area_cm2: float = 0.0
    row_cm: float = 0.0
    pulled_mm: float = 0.0
    finished_mm: float = 0.0
    form: str = ""
    breed: str = ""
    row_mm: float = 0.0
    folded: bool = False
    share: float = 1.0
    how: str = ""
    pieces: int = 1
    long_mm: float = 0.0
    wide_mm: float = 0.0
    t: float = 0.5
    angle: float | None = None
    felting: str = ""


@dataclass(frozen=True)
class Worked:
    """A part: its shape by kind, thickness and length in mm, its wire (`wire`: of what, in words; how many pieces of which
    length are cut), the shank of a bought eye, the kind of line that it is, the share of its host's axis at which it sits
    (`at`) and how many degrees round it, all that its pieces sit on, and the number of its template. `also`: other parts that
    are worked as this one. `outline`: what tells its outline from another of the same size. `foot`: the parts that share one
    wire with it, doubled toe by toe over `spans_mm`.
    """

    key: str
    name: str
    kind: str
    count: int
    on: str | None
    firmness: str
    wools: tuple[Wool, ...]
    wire: str = ""
    bead_mm: float = 0.0
    shank_mm: float = 0.0
    loose_mm: float = 0.0
    size: str = ""
    shape: str = "ellipsoid"
    thick_mm: float = 30.0
    long_mm: float = 30.0
    cut_list: tuple[tuple[int, float], ...] = ()
    loop: bool = False
    doubled: bool = False
    through: bool = False
    bare_mm: float = 0.0
    former: bool = False
    line: str = ""
    at: float = 0.5
    round_: float | None = None
    hosts: tuple[str, ...] = ()
    foot: tuple[str, ...] = ()
    spans_mm: tuple[float, ...] = ()
    template: int = 0
    outline: str = ""
    also: tuple[str, ...] = ()

    @property
    def keys(self) -> tuple[str, ...]:
        """The parts that are worked as this one."""
        return (self.key, *self.also)

    @property
    def called(self) -> str:
        """Its name, with how many there are."""
        return f"{self.count} × {self.name}" if self.count > 1 else self.name

    @property
    def cuts(self) -> int:
        """How many pieces of wire are cut."""
        return sum(count for count, _ in self.cut_list)

    @property
    def thin(self) -> bool:
        return bool(self.wire) or self.thick_mm < THIN_MM

    def of(self, *roles: str) -> tuple[Wool, ...]:
        """Its wools in these roles."""
        return tuple(wool for wool in self.wools if wool.role in roles)

    @property
    def skin(self) -> set[str]:
        """The colour slots that are seen of it."""
        return {wool.slot for wool in self.of("cover") or self.of("core", "weighed")}

    @property
    def is_made(self) -> bool:
        """Whether it is felted by itself; locks and plumes are taken when they are joined."""
        return bool(self.of("core")) or bool(self.of("weighed") and not self.on)

    @property
    def is_bead(self) -> bool:
        return bool(self.bead_mm)


def families(parts: Sequence[Worked]) -> list[Worked]:
    """The parts, with those that differ in nothing but their place worked as one: eight arms are one piece of work."""
    found: dict[tuple, list[Worked]] = {}
    for part in parts:
        recipe = tuple((wool.role, wool.fibre, wool.slot, wool.how) for wool in part.wools)
        form = (part.kind, part.firmness, part.wire, part.size, part.shape, part.outline)
        alike = (part.on, part.count, form, recipe, part.through)
        own = part.key if not part.wools or part.on is None else ""
        found.setdefault((*alike, own), []).append(part)
    one = {group[0].key: _together(group) for group in found.values()}
    merged = {part.key: part.key for part in parts}
    for group in found.values():
        merged |= {part.key: group[0].key for part in group}
    return [replace(part, on=merged.get(part.on or "", part.on)) for part in one.values()]


def _together(group: Sequence[Worked]) -> Worked:
    first = group[0]
    if len(group) == 1:
        return first
    wools = tuple(
        replace(each, grams=sum(grams), trimmed_g=sum(trimmed), area_cm2=sum(areas), row_cm=sum(rows))
        for each, grams, trimmed, areas, rows in (
            (same[0], *zip(*((w.grams, w.trimmed_g, w.area_cm2, w.row_cm) for w in same), strict=True))
            for same in zip(*(part.wools for part in group), strict=True)
        )
    )
    return replace(
        first,
        name=_common(part.name for part in group),
        count=sum(part.count for part in group),
        cut_list=_counted(cut for part in group for cut in part.cut_list),
        wools=wools,
        also=tuple(part.key for part in group[1:]),
    )


def _counted(cuts: Iterable[tuple[int, float]]) -> tuple[tuple[int, float], ...]:
    """The cuts with those of one length as one, long before short."""
    found: dict[float, int] = {}
    for count, mm in cuts:
        found[mm] = found.get(mm, 0) + count
    return tuple((found[mm], mm) for mm in sorted(found, reverse=True))


def _common(names) -> str:  # type: ignore[no-untyped-def]
    """The words that all names begin with, else the first name."""
    split = [name.split() for name in names]
    same = [words[0] for words in zip(*split, strict=False) if len(set(words)) == 1]
    return " ".join(same) or " ".join(split[0])
