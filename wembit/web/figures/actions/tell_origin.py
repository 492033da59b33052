"""Say where a design is from, what may be done with it, and whom the figure is for."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import figure_of
from wembit.web.studio.models import MAKER, Member

KINDS = {
    "own": "our own",
    "class": "from a class",
    "kit": "from a kit",
    "book": "from a book",
    "commission": "a commission",
}
SALE = {"yes": "may be sold", "credit": "may be sold with its credit", "no": "not for sale"}
WHOM = {"": "grown-ups", "child": "a child", "animal": "an animal", "prop": "a photographer’s prop"}


@transaction.atomic
def tell_origin(
    member: Member, figure_id: UUID, *, kind: str, sale: str, whom: str, credit: str, safety: str
) -> Figure:
    """Keep a figure's origin. Raises `Refusal` where a credit is asked for and none stands there, `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    if kind not in KINDS or sale not in SALE or whom not in WHOM:
        raise Refusal("Choose one of the list.", "origin_kind")
    credit = " ".join(credit.split())[:160]
    if sale == "credit" and not credit:
        raise Refusal("Write the credit that goes with it.", "credit")
    figure.origin = {"kind": kind, "sale": sale, "whom": whom, "credit": credit, "safety": safety.strip()[:300]}
    figure.save(update_fields=["origin"])
    return figure
