"""Begin a making."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from django.db import transaction

from wembit.core.pose.rows import Row
from wembit.web import clock
from wembit.web.bench.models import Making, MakingThing, Piece, PieceLayer
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.figures.models import Version
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.estimating import Palette, PartPlan, plan_figure
from wembit.web.figures.to_core.hands import hand
from wembit.web.figures.to_core.scaling import at_scale
from wembit.web.plan.actions.follow_figure import follow_figure
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.plan.begun import begun_of
from wembit.web.plan.laid_layers import laid, standing_by_number
from wembit.web.plan.models import PLANNED, Project, StandIn
from wembit.web.plan.notion_items import things_for
from wembit.web.plan.queries import project_of, stand_ins_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def begin_making(member: Member, project_id: UUID) -> Making:
    """The project's next making, with its own copy of the plan; freezes the version. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    project = project_of(member.studio, project_id)
    lock_figure(member.studio, project.colourway.version.figure_id)
    Project.objects.filter(pk=project.pk).locked().get()
    if project.state != PLANNED:
        raise Refusal("That project is closed. Plan it again first.")
    number = project.makings.count() + 1
    if number > project.count:
        raise Refusal(f"All {project.count} are begun. Raise the number in the plan first.")
    version = project.colourway.version
    follow_figure(version)  # a colour told anew may have changed what its covers weigh
    if version.frozen_at is not None:
        reserve(member.studio, write_needs(project))
    size = project.size_of(number)
    plan = plan_figure(version, at_scale(version, parts_of(version), size), Palette.of(project.colourway))
    if plan.fault:
        raise Refusal(f"{version.figure.name} cannot be computed: {plan.fault.what}.")
    bare = sorted({layer.layer.slot.name for layer in plan.layers() if layer.item is None})
    if bare:
        raise Refusal(f"Choose a fibre first for: {', '.join(bare)}.")
    standing = standing_by_number(project.count, begun_of(project), stand_ins_of(project))[number]
    making = Making.objects.create(
        studio=member.studio,
        project=project,
        colourway=project.colourway,
        number=number,
        scale=size,
        maker=member,
        begun_at=clock.now(),
        needles_out=_usual_needles(member),
    )
    needs = {(need.item_id, need.seen): need.pk for need in project.needs.all()}
    pieces: list[Piece] = []
    layers: list[PieceLayer] = []
    for part_plan in plan.parts:
        part = part_plan.part
        for index in range(part.count if part_plan.layers else 0):
            name = f"{part.name} {index + 1}" if part.count > 1 else part.name
            pieces.append(
                Piece(studio=member.studio, making=making, part_key=part.key, name=name, position=len(pieces))
            )
            layers += _layers(pieces[-1], part_plan, index, needs, standing)
    Piece.objects.bulk_create(pieces)
    PieceLayer.objects.bulk_create(layers)
    of_item = {item: pk for (item, seen), pk in needs.items() if seen}
    things = things_for(version, [part_plan.part for part_plan in plan.parts], {item for item, _ in needs})
    MakingThing.objects.bulk_create(
        MakingThing(
            studio=member.studio, making=making, item=thing.item, need=of_item.get(thing.item.pk), position=position,
            words=thing.needed.words, what_for=thing.needed.what_for, amount=thing.amount_of(number),
        )
        for position, thing in enumerate(things)
    )  # fmt: skip
    Version.objects.filter(pk=version.pk, frozen_at=None).update(frozen_at=clock.now())
    return making


def _usual_needles(member: Member) -> int:
    """As many as this maker had out the last time."""
    last = (
        Making.objects.of(member.studio)
        .filter(maker=member)
        .order_by("-begun_at")
        .values_list("needles_out", flat=True)
    )
    return last.first() or 0


def _layers(piece: Piece, plan: PartPlan, index: int, needs: dict, standing: Sequence[StandIn]) -> list[PieceLayer]:
    """The layers of one piece of the part, from the core out, with what stands in and what is laid thinly under it; as the
    hand of its maker takes them, where that is known.
    """
    row = Row.of(plan.part.seat["row"]) if plan.part.seat.get("row") else None

    def share(role: str) -> float:
        return row.weight(role, plan.part.count, index) if row else 1 / plan.part.count

    found = []
    for order, layer in enumerate(laid(plan.layers, standing)):
        own = hand(plan.part.version.studio, layer.counts_for, piece.making.maker_id)
        bias, sigma = (own.bias, own.sigma) if own.n else (layer.bias, layer.sigma)
        found.append(PieceLayer(
            studio=piece.studio, piece=piece, item=layer.item, instead_of=layer.instead_of, seen=layer.seen,
            need=needs.get((layer.item.pk, layer.seen)), role=layer.role, slot_name=layer.slot_name,
            rule_g=layer.rule_g * share(layer.role), bias=bias, sigma=sigma, position=order,
            counts_for=layer.counts_for,
        ))  # fmt: skip
    return found
