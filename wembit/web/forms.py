"""A form as a page sends it: every fault in Wembit's own voice beside its field, and the action that its press runs."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from django import forms

from .fields import PriceField
from .responses import tried

if TYPE_CHECKING:
    from django.http import HttpRequest, QueryDict

    from wembit.web.request import Request


class PageForm(forms.Form):
    """What a page sends. Only the fields that it sent are in `sent`; what it did not send is not changed."""

    def __init__(self, request: HttpRequest, data: QueryDict | None = None, **options: Any) -> None:
        super().__init__(request.POST if data is None else data, request.FILES, **options)

    @property
    def faults(self) -> dict[str, str]:
        """The first message of each field; what belongs to none stands under ''."""
        return faults_of(self)

    @property
    def sent(self) -> dict[str, Any]:
        """What was read from the fields that the page sent."""
        return {name: value for name, value in self.cleaned_data.items() if self.has(name)}

    def has(self, name: str) -> bool:
        """Whether the page sent this field, filled or not."""
        return self.add_prefix(name) in self.data

    def tried(self, action: Callable[[dict[str, Any]], Any]) -> tuple[Any, dict[str, str]]:
        """The action, run with what was read: its result and no faults, or None and what the maker has to change."""
        if not self.is_valid():
            return None, self.faults
        return tried(lambda: action(self.cleaned_data))


class StudioForm(PageForm):
    """A form of a studio's page: its numbers are read as the member and the studio write them."""

    def __init__(self, request: Request, **options: Any) -> None:
        super().__init__(request, **options)
        self.member, self.studio = request.member, request.studio
        for field in self.fields.values():
            if isinstance(field, PriceField):
                field.currency = request.studio.currency


class RowForm(StudioForm):
    """One of several equal rows of a form: `amount_3` is the amount of row 3."""

    def __init__(self, request: Request, row: int | str) -> None:
        super().__init__(request, prefix=str(row))

    def add_prefix(self, field_name: str) -> str:
        return f"{field_name}_{self.prefix}"

    @property
    def faults(self) -> dict[str, str]:
        return {self.add_prefix(name) if name else "": words for name, words in faults_of(self).items()}


def faults_of(form: forms.BaseForm) -> dict[str, str]:
    """The first message of each field; what belongs to none stands under ''."""
    return {("" if name == "__all__" else name): str(errors[0]) for name, errors in form.errors.items()}
