"""What goes wrong and can be put right by the maker: a message for a person, and the field it stands beside."""

from __future__ import annotations


class Refusal(Exception):
    def __init__(self, message: str, field: str | None = None):
        super().__init__(message)
        self.message, self.field = message, field
