"""Make the rest of a project by its figure's newest version."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.plan.figure_needs import bare_slots, newer_colourway
from wembit.web.plan.models import PLANNED, Need, Project
from wembit.web.plan.queries import CRUMB, open_needs, project_of
from wembit.web.stash.models import ZERO, Item
from wembit.web.studio.models import MAKER, Member

from .needs import write_needs
from .reserve import reserve


@transaction.atomic
def use_newest_version(member: Member, project_id: UUID) -> Project:
    """The makings that are not begun yet are made by the figure's newest version; those in hand stay as they were begun.

    Raises `Refusal` where there is none, where it has no parts, or where a colour has no fibre; `Http404`.
    """
    member.must_be(MAKER)
    return _use(project_of(member.studio, project_id))


def _use(project: Project) -> Project:
    lock_figure(project.studio, project.colourway.version.figure_id)
    Project.objects.filter(pk=project.pk).locked().get()
    newer = newer_colourway(project)
    if newer is None or project.state != PLANNED:
        raise Refusal("There is no newer version of this figure. Load the page anew.")
    bare = bare_slots(newer)
    if bare:
        raise Refusal(f"Choose a fibre first for: {', '.join(bare)}.")
    project.colourway = newer
    project.save(update_fields=["colourway"])
    reserve(project.studio, write_needs(project))
    return project


@dataclass(frozen=True)
class Change:
    """What the newer version changes for one wool: grams needed, promised and short, now and then."""

    item: Item
    seen: bool
    now: Decimal
    then: Decimal
    promised_now: Decimal
    promised_then: Decimal
    short_then: Decimal

    @property
    def more(self) -> Decimal:
        return self.then - self.now

    @property
    def differs(self) -> bool:
        """Whether a maker sees a change: of what it needs, of what is promised, or that it runs short."""
        return bool(self.more or self.promised_then != self.promised_now or self.short_then)


@transaction.atomic
def what_the_newest_changes(member: Member, project_id: UUID) -> list[Change]:
    """What `use_newest_version` would change, the largest difference first: it is done and undone, also for one who only
    looks on. Raises as it does.
    """
    project = project_of(member.studio, project_id)
    before = _by_wool(project)
    _use(project)
    after = _by_wool(project)
    transaction.set_rollback(True)
    rows = [_change(before.get(key), after.get(key)) for key in {**before, **after}]
    return sorted(rows, key=lambda change: (-abs(change.more), change.item.name))


def _by_wool(project: Project) -> dict[tuple[UUID, bool], Need]:
    return {(need.item_id, need.seen): need for need in open_needs(project.studio, project=project)}


def _change(now: Need | None, then: Need | None) -> Change:
    one = then or now
    assert one is not None, "a wool is needed now or then"
    short = then.left - then.promised if then else ZERO
    return Change(
        one.item, one.seen, now.p50 if now else ZERO, then.p50 if then else ZERO, now.promised if now else ZERO,
        then.promised if then else ZERO, short if short >= CRUMB else ZERO,
    )  # fmt: skip
