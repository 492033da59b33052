"""Finish a making: what was not weighed is settled, what it did not take is free again."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal
from fractions import Fraction
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction

from wembit.core.portions import rounded
from wembit.web import clock
from wembit.web.bench.models import FITTED, Making, MakingThing, Piece, PieceLayer, Spell
from wembit.web.bench.part_clock import minutes_taken
from wembit.web.bench.queries import MakingLine, making_of
from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.plan.actions.close_project import finish_project
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.stash.actions.pull import PULL
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import ZERO
from wembit.web.studio.models import MAKER, Member

from .learn import learn
from .take_thing import lines_for, note_takes

if TYPE_CHECKING:
    from django.core.files.base import ContentFile

AS_PLANNED, BY_WEIGHT, NOTHING = "planned", "weighed", "nothing"
UNWEIGHED = (AS_PLANNED, BY_WEIGHT, NOTHING)  # what became of the pieces that nothing was weighed for


@transaction.atomic
def finish_making(
    member: Member,
    making_id: UUID,
    *,
    press: Press,
    unweighed: str = "",
    figure_g: Decimal | None = None,
    photo: ContentFile | None = None,
    needles_back: bool = False,
    missing: str = "",
) -> Making:
    """The figure is done; the last one closes its project. `unweighed` says what became of pieces without a take: they took
    what was planned, or their share of what the figure weighs (its wool alone, `figure_g`), or nothing; eyes, wire and
    fittings go with them. Where needles were counted out, all are back or `missing` says where one is. Raises `Refusal`,
    `Http404`.
    """
    member.must_be(MAKER)
    line = making_of(member.studio, making_id)
    making = line.making
    if making.finished_at:
        raise Refusal("It is finished already.")
    if making.needles_out and not (needles_back or missing):
        raise Refusal(
            f"Count the needles: {making.needles_out} went out. Say that all are back, or where one is.", "missing"
        )
    if (line.unweighed or line.things_left) and unweighed not in UNWEIGHED:
        raise Refusal("Say what became of what was not weighed.", "unweighed")
    if unweighed in (AS_PLANNED, BY_WEIGHT):
        _book(member, line, _grams(line, figure_g if unweighed == BY_WEIGHT else None, unweighed), press)
        line = making_of(member.studio, making_id)
    making.finished_at = clock.now()
    Spell.objects.filter(making=making, ended_at=None).update(ended_at=making.finished_at)
    making.took = minutes_taken(making)
    making.missing = "" if needles_back else missing
    if photo:
        making.photo = photo
    making.save(update_fields=["finished_at", "photo", "missing", "took"])
    Piece.objects.filter(making=making).update(state=FITTED)
    project = making.project
    if project:
        reserve(member.studio, write_needs(project))
    if project and not project.makings.filter(finished_at=None).exists() and project.makings.count() == project.count:
        finish_project(member, project.pk)
    transaction.on_commit(lambda: learn(member.studio))
    return making


def _grams(line: MakingLine, figure_g: Decimal | None, unweighed: str) -> list[Decimal]:
    """What each layer without a take has taken."""
    planned = [layer.spare for layer in line.unweighed]
    if unweighed == AS_PLANNED or not planned:
        return planned
    if figure_g is None:
        raise Refusal("Write what the figure weighs, without its wire and eyes.", "figure_g")
    rest = figure_g - sum((layer.taken for piece in line.pieces for layer in piece.layers), ZERO)
    if rest < 0:
        raise Refusal("What was weighed for it is more than that already. Weigh the figure again.", "figure_g")
    whole = sum(planned)
    shares = rounded(float(rest), [Fraction(grams) / Fraction(whole) for grams in planned])
    taken = [to_step(grams) for grams in shares]
    taken[taken.index(max(taken))] += rest - sum(taken)  # the thousandths that shares of 0.01 g do not hold
    return taken


def _book(member: Member, line: MakingLine, grams: Sequence[Decimal], press: Press) -> None:
    """Pull all of it in one entry, from what is promised first."""
    wanted = [(layer.layer, amount) for layer, amount in zip(line.unweighed, grams, strict=True) if amount > 0]
    things = line.things_left
    if not wanted and not things:
        return
    items = [layer.item_id for layer, _ in wanted] + [thing.thing.item_id for thing in things]
    draft = EntryDraft.start(member, press, PULL, (line.making.pk, *grams), items)
    if draft.repeated:
        return
    gone: dict[UUID, Decimal] = {}
    lines: list[Line] = []
    owners: list[PieceLayer | MakingThing] = []
    owed: list[tuple[PieceLayer | MakingThing, Decimal]] = [*wanted, *((thing.thing, thing.left) for thing in things)]
    for owner, amount in owed:
        mine = lines_for(owner, amount, gone, anyway=True)
        lines += mine
        owners += [owner] * len(mine)
    note_takes(draft.commit(lines), owners, measured=False)
