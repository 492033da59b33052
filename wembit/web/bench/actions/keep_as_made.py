"""Plan a figure's next version with the numbers of a finished making."""

from __future__ import annotations

from dataclasses import asdict
from uuid import UUID

from django.db import transaction

from wembit.core.grams.relations import WOOL, Relation
from wembit.web.bench.as_made import AsMade, as_made
from wembit.web.bench.own_plan import own_plan
from wembit.web.bench.queries import making_of
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Part, Version
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def keep_as_made(member: Member, making_id: UUID) -> Version:
    """The figure's newest version, or the one after a frozen one, with sizes, firmness and grams as they came out. A part that
    was measured follows no other part's size any more. Raises `Refusal`, `Http404`.
    """
    member.must_be(MAKER)
    line = making_of(member.studio, making_id)
    if line.making.finished_at is None:
        raise Refusal("It is still in hand. Finish it first.")
    if line.making.scale != 1:
        raise Refusal("It was made in another size than the figure's own. Keep one that was made in its own size.")
    way = line.making.colourway
    plan = own_plan(line, plan_figure(way.version, parts_of(way.version), Palette.of(way)))
    found = {row.key: row for row in as_made(line, plan)}
    if not found:
        raise Refusal("Nothing came out otherwise than planned.")
    with editing(member, way.version.figure_id, f"as {line.making} was made") as edit:
        for part in edit.parts:
            if part.key in found:
                _keep(part, found[part.key])
    return edit.version


def _keep(part: Part, row: AsMade) -> None:
    if row.grams is not None:
        fixed = asdict(Relation(WOOL, None, WOOL, row.grams))
        part.relations = [relation for relation in part.relations if relation["size"] != WOOL] + [fixed]
        return
    part.relations = []
    part.shape = dict(row.shape or part.shape)
    part.firmness = row.firmness or part.firmness
