"""What is tried before it is planned."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.web.plan.forms import NewForm
from wembit.web.restock.answers.forms import AcceptForm

if TYPE_CHECKING:
    from wembit.web.request import Request


class PreviewForm(NewForm):
    """The form of a new project as its address has it."""

    def __init__(self, request: Request) -> None:
        super().__init__(request, data=request.GET)


class AnswerForm(AcceptForm):
    """An answer to a shortage as its address has it."""

    def __init__(self, request: Request) -> None:
        super().__init__(request, data=request.GET)
