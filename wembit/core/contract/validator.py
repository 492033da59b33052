"""One validator for every verb of the command line: small rules that compose, each naming the place of a fault.

A rule is called with a value and the place where it stands and returns the clean value or raises `BadInput`.
"""

from __future__ import annotations

import datetime as dt
import math
import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from wembit.core.errors import BadInput

Rule = Callable[[Any, str], Any]
LARGEST = 1e9
ISO_DATE = re.compile(r"\d{4}-\d{2}-\d{2}")


class Pairs(dict):
    """A JSON object that remembers the first key written twice in it."""

    repeated: str | None = None

    @classmethod
    def hook(cls, pairs: list[tuple[str, Any]]) -> Pairs:
        found = cls()
        for key, value in pairs:
            if key in found and found.repeated is None:
                found.repeated = key
            found[key] = value
        return found


@dataclass(frozen=True)
class Number:
    """A finite number; text and true are none."""

    gt: float | None = None
    ge: float | None = None
    lt: float | None = None
    le: float = LARGEST
    whole: bool = False

    def __call__(self, value: Any, where: str) -> float:
        if isinstance(value, bool) or not isinstance(value, int | float):
            raise BadInput(where, "must be a number", value)
        if isinstance(value, float) and not math.isfinite(value):
            raise BadInput(where, "must be a finite number", value)
        if self.whole and value != int(value):
            raise BadInput(where, "must be a whole number", value)
        if self.gt is not None and not value > self.gt:
            raise BadInput(where, f"must be greater than {self.gt:g}", value)
        if self.ge is not None and value < self.ge:
            raise BadInput(where, f"must be at least {self.ge:g}", value)
        if self.lt is not None and not value < self.lt:
            raise BadInput(where, f"must be less than {self.lt:g}", value)
        if value > self.le:
            raise BadInput(where, f"must be at most {self.le:g}", value)
        if value < -LARGEST:
            raise BadInput(where, f"must be at least {-LARGEST:g}", value)
        return int(value) if self.whole else float(value)


POSITIVE = Number(gt=0)
NOT_NEGATIVE = Number(ge=0)
SHARE = Number(ge=0, le=1)
COUNT = Number(ge=1, le=100_000, whole=True)


def text(value: Any, where: str) -> str:
    """Text that is not empty."""
    if not isinstance(value, str):
        raise BadInput(where, "must be text", value)
    if not value.strip():
        raise BadInput(where, "must not be empty", value)
    return value


def truth(value: Any, where: str) -> bool:
    """true or false."""
    if not isinstance(value, bool):
        raise BadInput(where, "must be true or false", value)
    return value


def day(value: Any, where: str) -> dt.date:
    """A date of the calendar, ISO 8601."""
    if not isinstance(value, str) or not ISO_DATE.fullmatch(value):
        raise BadInput(where, "must be a date like 2026-12-09", value)
    try:
        return dt.date.fromisoformat(value)
    except ValueError:
        raise BadInput(where, "is not a day of the calendar", value) from None


def srgb(value: Any, where: str) -> str:
    """A colour as #rrggbb, in small letters."""
    if not isinstance(value, str) or not re.fullmatch(r"#[0-9a-fA-F]{6}", value):
        raise BadInput(where, "must be a colour like #6f7d43", value)
    return value.lower()


@dataclass(frozen=True)
class Choice:
    """One of some words."""

    words: tuple[str, ...]

    def __call__(self, value: Any, where: str) -> str:
        if not isinstance(value, str) or value not in self.words:
            raise BadInput(where, f"must be one of {', '.join(self.words)}", value)
        return value


@dataclass(frozen=True)
class Many:
    """A list; `unique` names the key that may not come twice in it."""

    of: Rule
    least: int = 0
    most: int | None = None
    unique: str | None = None

    def __call__(self, value: Any, where: str) -> list:
        if not isinstance(value, list):
            raise BadInput(where, "must be a list", value)
        if len(value) < self.least:
            raise BadInput(where, f"must have at least {self.least}", value)
        if self.most is not None and len(value) > self.most:
            raise BadInput(where, f"must have at most {self.most}", len(value))
        found = [self.of(each, f"{where}[{index}]") for index, each in enumerate(value)]
        if self.unique:
            seen = set()
            for index, each in enumerate(found):
                if each[self.unique] in seen:
                    raise BadInput(f"{where}[{index}].{self.unique}", "stands twice", each[self.unique])
                seen.add(each[self.unique])
        return found


@dataclass(frozen=True)
class Row:
    """A list of fixed length with a rule for each place."""

    of: tuple[Rule, ...]

    def __call__(self, value: Any, where: str) -> list:
        if not isinstance(value, list) or len(value) != len(self.of):
            raise BadInput(where, f"must be a list of {len(self.of)} numbers", value)
        return [rule(each, f"{where}[{index}]") for index, (rule, each) in enumerate(zip(self.of, value, strict=True))]


class _Needed:
    """Marks a key without which the object cannot be used."""


NEEDED = _Needed()


@dataclass(frozen=True)
class Key:
    """A key of an object: its rule, and what stands where it is left out."""

    rule: Rule
    default: Any = NEEDED


@dataclass(frozen=True)
class Thing:
    """An object with known keys. `one_of` groups name keys of which exactly one must stand; `rules` see the whole."""

    keys: dict[str, Key]
    one_of: tuple[tuple[str, ...], ...] = ()
    rules: tuple[Callable[[dict, str], None], ...] = field(default=())

    def __call__(self, value: Any, where: str) -> dict:
        must_be_object(value, where)
        if not value.keys() <= self.keys.keys():
            key = next(key for key in value if key not in self.keys)
            raise BadInput(place(where, key), "is not a known key", value[key])
        for group in self.one_of:
            given = [key for key in group if key in value]
            if len(given) > 1:
                raise BadInput(place(where, given[1]), f"only one of {' and '.join(group)} may stand", value[given[1]])
            if not given:
                raise BadInput(place(where, group[0]), f"is missing (or {' or '.join(group[1:])})", None)
        found = {}
        for name, key in self.keys.items():
            if name in value:
                found[name] = key.rule(value[name], place(where, name))
            elif key.default is not NEEDED:
                found[name] = key.default
            elif not any(name in group for group in self.one_of):
                raise BadInput(place(where, name), "is missing", None)
        for rule in self.rules:
            rule(found, where)
        return found


@dataclass(frozen=True)
class Kinds:
    """An object whose shape hangs on one of its keys: a shape by `kind`, a layer by `role`."""

    by: str
    of: dict[str, Thing]

    def __call__(self, value: Any, where: str) -> dict:
        must_be_object(value, where)
        if self.by not in value:
            raise BadInput(place(where, self.by), "is missing", None)
        kind = Choice(tuple(self.of))(value[self.by], place(where, self.by))
        rest = Pairs({key: each for key, each in value.items() if key != self.by})
        return {self.by: kind, **self.of[kind](rest, where)}


def must_be_object(value: Any, where: str) -> None:
    """Raises `BadInput` for what is no JSON object, or holds a key twice."""
    if not isinstance(value, dict):
        raise BadInput(where or "request", "must be an object", value)
    repeated = getattr(value, "repeated", None)
    if repeated is not None:
        raise BadInput(place(where, repeated), "stands twice", repeated)


def place(where: str, key: str) -> str:
    """The place of a key within the place `where`."""
    return f"{where}.{key}" if where else key
