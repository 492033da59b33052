"""What goes wrong and can be put right by the maker: a message for a person, and the field it stands beside."""

from __future__ import annotations

from collections.abc import Mapping

from wembit.core.errors import RING, BadInput


class Refusal(Exception):
    """An action that was not done; nothing has changed."""

    def __init__(self, message: str, field: str | None = None) -> None:
        super().__init__(message)
        self.message, self.field = message, field


def refusal_of(fault: BadInput, field: str | None = None, names: Mapping[str, str] | None = None) -> Refusal:
    """The core's words as a sentence, beside `field` or the field that the fault names; `names` are the parts' by key."""
    words, names = fault.what, names or {}
    if fault.code == RING:
        ring = ", ".join(names.get(key, key) for key in fault.names)
        words = f"{words.partition(':')[0]}: {ring}"
    return Refusal(f"{words[0].upper()}{words[1:]}.", fault.where.rpartition(".")[2] if field is None else field)
