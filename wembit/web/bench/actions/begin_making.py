"""Begin a making."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.bench.models import Making, Piece, PieceLayer
from wembit.web.figures.estimating import Palette, plan_figure
from wembit.web.figures.models import Version
from wembit.web.figures.queries import parts_of
from wembit.web.plan.models import PLANNED, Project
from wembit.web.plan.queries import project_of
from wembit.web.studio.models import MAKER, Member
from wembit.web.told import Told


@transaction.atomic
def begin_making(member: Member, project_id: UUID) -> Making:
    """The project's next making, with its own copy of the plan; freezes the version. Raises `Told`, `Http404`."""
    member.must_be(MAKER)
    project = project_of(member.studio, project_id)
    Project.objects.filter(pk=project.pk).locked().get()
    if project.state != PLANNED:
        raise Told("That project is closed. Plan it again first.")
    number = project.makings.count() + 1
    if number > project.count:
        raise Told(f"All {project.count} are begun. Raise the number in the plan first.")
    version = project.colourway.version
    plan = plan_figure(version, parts_of(version), Palette.of(project.colourway))
    making = Making.objects.create(
        studio=member.studio,
        project=project,
        colourway=project.colourway,
        number=number,
        maker=member,
        begun_at=clock.now(),
    )
    needs = {(need.item_id, need.seen): need.pk for need in project.needs.all()}
    position = 0
    for part_plan in plan.parts:
        part = part_plan.part
        if not part_plan.layers:
            continue
        for index in range(part.count):
            piece = Piece.objects.create(
                studio=member.studio,
                making=making,
                part_key=part.key,
                name=f"{part.name} {index + 1}" if part.count > 1 else part.name,
                position=position,
            )
            position += 1
            PieceLayer.objects.bulk_create(
                PieceLayer(
                    studio=member.studio, piece=piece, item=each.item, need=needs.get((each.item.pk, each.seen)),
                    role=each.layer.role, slot_name=each.layer.slot.name, rule_g=each.grams.rule_g / part.count,
                    bias=each.grams.bias, sigma=each.grams.sigma, position=order,
                )
                for order, each in enumerate(part_plan.layers)
            )  # fmt: skip
    Version.objects.filter(pk=version.pk, frozen_at=None).update(frozen_at=clock.now())
    return making
