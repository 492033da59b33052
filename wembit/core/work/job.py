"""A figure and the ways that hold for it, asked by all who write its steps."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from wembit.core.craft.schools import way

from .alike import BEARING
from .worked import THIN_MM, Worked

LATE = ("ear", "plume", "feeler", "line", "patch", "wing", "ring", "door")  # fitted when covers and coats lie
LARGE_G = 3.0  # a part so heavy is weighed where only the large ones are; common practice
YIELDING = ("airy", "soft")  # what is so soft carries nothing
TIP = 0.9  # of the axis: what sits further out sits on the end
TWO_ENDS_MM = 24.0  # bare wire for two joins, about


@dataclass(frozen=True)
class Job:
    """The parts as they are worked, and what the maker, the figure and the studio chose."""

    parts: Sequence[Worked]
    school: Mapping

    @cached_property
    def by_key(self) -> dict[str, Worked]:
        return {part.key: part for part in self.parts}

    def way(self, question: str, part: Worked | None = None) -> str:
        return way(self.school, question, part.key if part else "")

    def by_eye(self, part: Worked) -> bool:
        """Whether its wool is taken by eye and finger, without the scale."""
        match self.way("weigh"):
            case "nothing":
                return True
            case "bodies":
                return sum(wool.grams for wool in part.of("core", "weighed")) < LARGE_G
        return False

    def is_firmed_on_the_figure(self, part: Worked) -> bool:
        """Whether it is joined while it is soft, and felted through where it sits."""
        quick = self.way("pace", part) == "quick" and part.is_made and self.host(part) is not None
        round_ = not part.thin and part.shape not in ("slab", "torus") and part.kind != "eye"
        return quick and round_ and part.firmness not in YIELDING

    def host(self, part: Worked) -> Worked | None:
        """What a part is joined to: what it sits on, or, where that has no wool, what that sits on."""
        host, seen = self.by_key.get(part.on or ""), {part.key}
        while host and not host.wools and host.key not in seen:
            seen.add(host.key)
            host = self.by_key.get(host.on or "")
        return host if host and host.wools else None

    def on(self, part: Worked) -> list[Worked]:
        """What sits on a part."""
        return [other for other in self.parts if other.on in part.keys]

    def is_late(self, part: Worked) -> bool:
        """Whether it is fitted on the covered host: by its kind, or since the host's cover has not its colour."""
        host, inner = self.host(part), self.inner(part)
        if inner is not None and self.is_late(inner):
            return True
        if part.kind in LATE or (host is not None and host.of("coat") and part.kind == "eye"):
            return True
        if host is None or not host.of("cover"):
            return False
        return not part.through and not part.skin & {wool.slot for wool in host.of("cover")}

    def inner(self, part: Worked) -> Worked | None:
        """What is wired in at the very place of a part that lies round it."""
        if part.wire or not part.is_made:
            return None
        here = (part.on, part.at, part.round_)
        return next(
            (other for other in self.on_host(part) if other.wire and (other.on, other.at, other.round_) == here), None
        )

    def on_host(self, part: Worked) -> list[Worked]:
        """The others that sit on what a part sits on."""
        return [other for other in self.parts if other.on == part.on and other is not part]

    def bears(self, part: Worked) -> bool:
        return part.kind in BEARING and part.firmness not in YIELDING

    def is_finished_first(self, part: Worked) -> bool:
        """Whether its covers and details lie before it is joined: no cover goes over its seam afterwards."""
        host = self.host(part)
        if host is None or self.is_bound(part) or part.through:
            return False
        return (self.is_late(part) or not host.of("cover")) and bool(part.of("cover", "detail")) and part.is_made

    def join_way(self, part: Worked) -> str:
        """How it is joined: wire goes in bare whatever the school says; without wire nothing is bored for."""
        if not part.is_made:
            return "locks"
        if part.through:
            return "closed"
        if part.shape == "torus":
            return "ring"
        if part.wire and part.bare_mm > 0 and not part.former:
            return "wire in"
        chosen = self.way("attach", part)
        return "loose end" if chosen == "bored" else chosen

    def is_bound(self, part: Worked) -> bool:
        """Whether its wire is bound to the wire of what it sits on, so that both are wound as one."""
        host = self.by_key.get(part.on or "")
        return bool(part.wire and host and host.wire and not part.bare_mm and not part.through)

    def bound_to(self, part: Worked) -> list[Worked]:
        """What is bound to its wire."""
        return [other for other in self.on(part) if self.is_bound(other)]

    def bare_mm(self, part: Worked) -> float:
        """How much bare wire goes into the host: half of it where the other end goes into what sits on its tip."""
        both = any(self.bare_end_for(other) is part for other in self.on(part))
        return part.bare_mm / 2 if both else part.bare_mm

    def bare_end_for(self, part: Worked) -> Worked | None:
        """The wired part whose other bare end goes into this one."""
        host = self.by_key.get(part.on or "")
        fits = host and host.wire and host.bare_mm >= TWO_ENDS_MM and part.at >= TIP and part.thick_mm >= THIN_MM
        return host if fits and not part.wire else None
