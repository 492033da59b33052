"""What is planned, what it still needs, and from which bag that comes."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING, Any, NamedTuple
from uuid import UUID

from django.contrib.postgres.aggregates import ArrayAgg
from django.db.models import Count, Min, Q, QuerySet, Sum
from django.http import Http404

from wembit.core.colour.thin_layer import Cover
from wembit.core.grams.estimate import Z90, Range
from wembit.core.stock.allocation import LEAST_G
from wembit.core.stock.dye_lots import Given, which_gets_which
from wembit.core.stock.dye_lots import Lot as DyeLot
from wembit.web import clock
from wembit.web.decimals import decimal, to_step
from wembit.web.figures.models import Part
from wembit.web.figures.queries import palettes, parts_of, parts_of_many
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.stash.models import FIBRE, ZERO, Lot, Movement, Promise
from wembit.web.stash.queries import colours, promised_of, unweighed_lots
from wembit.web.studio.models import Member
from wembit.web.studio.queries import makers

from .coming import Coming, coming
from .models import PLANNED, Away, Need, Pin, Project, StandIn

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

CRUMB = decimal(LEAST_G)
SEVERAL = 2  # dye lots, from which on it matters which figure gets which


@dataclass(frozen=True)
class AtTheBench:
    """A maker: her hours by weekday (none while nobody has said), the days she is away, the figures she leaves to others."""

    member: Member
    hours: Mapping[str, float]
    away: Sequence[Away]
    leaves: frozenset[UUID]

    @property
    def name(self) -> str:
        return str(self.member)

    @property
    def days_off(self) -> list[dt.date]:
        return [row.first + dt.timedelta(n) for row in self.away for n in range((row.last - row.first).days + 1)]


def at_the_bench(studio: Studio) -> list[AtTheBench]:
    """The makers by name, looked up once for a request; of their days away those that are not over. Two queries."""
    return studio.once("at the bench", lambda: _at_the_bench(studio))


def _at_the_bench(studio: Studio) -> list[AtTheBench]:
    away: dict[UUID, list[Away]] = {}
    for row in Away.objects.of(studio).filter(last__gte=clock.today(studio)):
        away.setdefault(row.member_id, []).append(row)
    left = ArrayAgg("leaves__figure", filter=Q(leaves__isnull=False), default=[])
    return [
        AtTheBench(maker, _hours(maker), away.get(maker.pk, []), frozenset(maker.left))
        for maker in makers(studio).annotate(left=left)
    ]


def _hours(maker: Member) -> Mapping[str, float]:
    hours: Mapping[str, float] = maker.bench_hours.hours if hasattr(maker, "bench_hours") else {}
    return hours


def plan_line(studio: Studio, today: dt.date) -> tuple[int, int]:
    """Open projects, and how many of them are past their due date."""
    dues = list(Project.objects.of(studio).filter(state=PLANNED).values_list("due", flat=True))
    return len(dues), sum(due < today for due in dues)


def has_projects(studio: Studio) -> bool:
    """Whether the studio ever planned anything."""
    return Project.objects.of(studio).exists()


def projects(studio: Studio) -> QuerySet[Project]:
    """Open projects by due date, with figure and version."""
    rows = Project.objects.of(studio).filter(state=PLANNED).select_related("colourway__version__figure")
    return rows.order_by("due", "name", "pk")


class OpenFigures(NamedTuple):
    """The open projects by due date, the palettes of their colourways by id, and the parts of their versions by id."""

    projects: list[Project]
    palettes: dict[UUID, Palette]
    parts: dict[UUID, list[Part]]


def open_figures(studio: Studio) -> OpenFigures:
    """What is planned and what it is made of, looked up once for a request."""

    def found() -> OpenFigures:
        rows = list(projects(studio))
        ways = [project.colourway for project in rows]
        return OpenFigures(rows, palettes(studio, ways), parts_of_many([way.version for way in ways]))

    return studio.once("open figures", found)


def place_of(studio: Studio, project: Project) -> int:
    """How many open projects come before it; 0 for one that is not open."""
    order = list(projects(studio).values_list("pk", flat=True))
    return order.index(project.pk) if project.pk in order else 0


def first_without(studio: Studio, shorts: dict[UUID, list[NeedNow]]) -> Project | None:
    """The open project that is due first of those that are not among the short ones."""
    return projects(studio).exclude(pk__in=shorts).first()


def projects_named(studio: Studio, words: str) -> list[Project]:
    """Open projects whose names hold all of the words."""
    named = Project.objects.of(studio).filter(state=PLANNED)
    for word in words.split():
        named = named.filter(name__icontains=word)
    return list(named)


def project_of(studio: Studio, project_id: UUID) -> Project:
    """This studio's project with its figure. Raises `Http404`."""
    project = Project.objects.of(studio).filter(pk=project_id).select_related("colourway__version__figure").first()
    if project is None:
        raise Http404
    return project


def _open(studio: Studio) -> QuerySet[Need]:
    """The needs of open projects; the studio stands beside both, else all projects of the house are looked through."""
    return Need.objects.of(studio).filter(project__studio=studio, project__state=PLANNED)


def open_needs(studio: Studio, promises: Iterable[Promise] | None = None, **filters: object) -> list[Need]:
    """Needs of open projects with `taken`, `left` (still to take) and `promised`, the earliest due first; `promises`: those of
    these needs, where they are known already. Three queries at most.
    """
    needs = list(
        _open(studio)
        .filter(**filters)
        .select_related("project", "item__own_breed")
        .order_by("project__due", "project__made_at", "item__kind", "-p50")
    )
    ids = [need.pk for need in needs]
    taken = _sums(Movement, ids, studio)
    promised = _sums(Promise, ids, studio) if promises is None else _summed(promises)
    for need in needs:
        need.taken = -taken.get(need.pk, ZERO)
        need.promised = promised.get(need.pk, ZERO)
        need.left = _left(need.p50, need.taken)
        need.sigma = sigma_of(need.p50, need.p90)
        need.rest = Range(float(need.p10), float(need.p50), float(need.p90)).less(float(need.taken))
    return needs


class NeedNow(NamedTuple):
    """A need of whatever is planned, as small as it can be: what is still to take from `start` on, what no bag can give."""

    project_id: UUID
    item_id: UUID
    item_name: str
    start: dt.date
    left: Decimal
    short: Decimal
    sigma: float


def needs_now(studio: Studio) -> list[NeedNow]:
    """The needs of all open projects, the earliest due first, looked up once for a request. Three queries; one for none."""
    return studio.once("needs", lambda: _needs_now(studio))


def _needs_now(studio: Studio) -> list[NeedNow]:
    open_ones = _open(studio)
    rows = list(
        open_ones.order_by("project__due", "project__made_at", "item__kind", "-p50").values_list(
            "pk", "project_id", "item_id", "item__name", "project__start", "p50", "p90"
        )
    )
    if not rows:
        return []
    taken, promised = (_sums(model, open_ones.values("pk"), studio) for model in (Movement, Promise))
    needs = []
    for pk, project_id, item_id, name, start, p50, p90 in rows:
        left = _left(p50, -taken.get(pk, ZERO))
        short = _short(left, promised.get(pk, ZERO))
        needs.append(NeedNow(project_id, item_id, name, start, left, short, sigma_of(p50, p90)))
    return needs


def sigma_of(p50: Decimal, p90: Decimal) -> float:
    """The scatter of the logarithm of a need with that middle and ninetieth percentile; 0 where it is exact."""
    return math.log(float(p90) / float(p50)) / Z90 if p50 and p90 > p50 else 0.0


def _left(p50: Decimal, taken: Decimal) -> Decimal:
    return max(p50 - taken, ZERO)


def _short(left: Decimal, promised: Decimal) -> Decimal:
    missing = left - promised
    return missing if missing >= CRUMB else ZERO


def _sums(model: type[Movement] | type[Promise], needs: Any, studio: Studio) -> dict[UUID, Decimal]:
    """What the lines of these needs come to."""
    rows: Any = model.objects.of(studio).filter(need__in=needs).order_by().values("need").annotate(total=Sum("amount"))
    return dict(rows.values_list("need", "total"))


def _summed(promises: Iterable[Promise]) -> dict[UUID, Decimal]:
    sums: dict[UUID, Decimal] = {}
    for promise in promises:
        sums[promise.need] = sums.get(promise.need, ZERO) + promise.amount
    return sums


@dataclass(frozen=True)
class Pull:
    """What a promise lays out of one bag, and up to how much of it may be wanted: the bag has so much that is free."""

    promise: Promise
    up_to: Decimal


@dataclass(frozen=True)
class NeedLine:
    """One need as a maker reads it. `short` is what no bag can give; bags that nobody weighed may hold it, and parcels."""

    need: Need
    srgb: str
    left: Decimal
    promised: Decimal
    short: Decimal
    promises: list[Promise]
    unweighed: list[Lot]
    coming: Coming
    pins: list[Pin]

    @property
    def pulls(self) -> list[Pull]:
        """The promises, and how the room above the middle is found in their bags, one after the other."""
        beyond = max(to_step(self.need.rest.p90) - self.left, ZERO)
        pulls = []
        for promise in self.promises:
            more = min(beyond, max(promise.lot.on_hand - promise.lot.promised, ZERO))
            beyond -= more
            pulls.append(Pull(promise, promise.amount + more))
        return pulls

    @property
    def dye_lots(self) -> list[DyeLot]:
        """The dye lots that are promised to it, with what each gives."""
        found: dict[str, Decimal] = {}
        for promise in self.promises:
            name = promise.lot.dye_lot or (
                f"drawer {promise.lot.drawer}" if promise.lot.drawer else "a bag without a number"
            )
            found[name] = found.get(name, ZERO) + promise.amount
        return [DyeLot(name, float(grams)) for name, grams in found.items()]

    def shared_out(self, numbers: Sequence[int]) -> tuple[list[Given], tuple[int, ...]] | None:
        """Which of the makings still to begin gets which dye lot, where a wool that is seen comes from several."""
        lots = self.dye_lots
        if self.need.project.own_sizes:  # each takes another share
            return None
        if not self.need.seen or self.need.item.kind != FIBRE or len(lots) < SEVERAL or not numbers:
            return None
        return which_gets_which(numbers, float(self.need.p50) / self.need.project.count, lots)

    @property
    def all_taken(self) -> bool:
        return self.left < CRUMB


def needs_of(project: Project) -> list[NeedLine]:
    """The needs of one project with the bags promised to them. A bounded number of queries."""
    return lines(project.studio, open_needs(project.studio, project=project))


def lines(studio: Studio, needs: Iterable[Need]) -> list[NeedLine]:
    """Needs as a maker reads them, with the bags promised to them."""
    needs = list(needs)
    items = {need.item_id for need in needs}
    kept = list(Promise.objects.filter(need__in=[need.pk for need in needs]).select_related("lot__item", "lot__drawer"))
    in_all = promised_of({promise.lot_id for promise in kept})
    promises: dict[UUID, list[Promise]] = {}
    for promise in kept:
        promise.lot.promised = in_all[promise.lot_id]
        promises.setdefault(promise.need, []).append(promise)
    pins: dict[tuple[UUID, UUID, bool], list[Pin]] = {}
    for pin in Pin.objects.of(studio).filter(lot__item__in=items).select_related("lot__drawer"):
        pins.setdefault((pin.project_id, pin.lot.item_id, pin.seen), []).append(pin)
    seen, comes, unweighed = colours(studio, items), coming(studio, items), unweighed_lots(studio, items)
    return [
        NeedLine(
            need, seen.get(need.item_id, ""), need.left, need.promised, _short(need.left, need.promised),
            promises.get(need.pk, []), unweighed.get(need.item_id, []), comes.get(need.item_id, Coming()),
            pins.get((need.project_id, need.item_id, need.seen), []),
        )
        for need in needs
    ]  # fmt: skip


def makings_told(studio: Studio, rows: Sequence[Project]) -> dict[UUID, tuple[int, dt.date]]:
    """How many makings of each project are finished, and the day on which the first was begun; nothing of those without."""
    finished, first = Count("makings", filter=Q(makings__finished_at__isnull=False)), Min("makings__begun_at")
    begun = Project.objects.of(studio).filter(pk__in=[project.pk for project in rows], makings__isnull=False)
    told = begun.order_by().values_list("pk").annotate(finished=finished, first=first)
    return {pk: (count, at.astimezone(clock.zone(studio)).date()) for pk, count, at in told}


def bags_for(studio: Studio, needs: Iterable[NeedLine]) -> dict[UUID, list[Lot]]:
    """The bags from which each need could be served, by need; several of an item, else there is nothing to choose. One
    query.
    """
    rows = list(needs)
    found: dict[UUID, list[Lot]] = {}
    lots = (
        Lot.objects.of(studio).filter(item__in={line.need.item_id for line in rows}).on_shelf().select_related("drawer")
    )
    for lot in lots.order_by("made_at"):
        found.setdefault(lot.item_id, []).append(lot)
    return {line.need.pk: bags for line in rows if len(bags := found.get(line.need.item_id, [])) > 1}


def shorts_by_project(studio: Studio) -> dict[UUID, list[NeedNow]]:
    """The needs of every open project for which no bag can give enough."""
    found: dict[UUID, list[NeedNow]] = {}
    for need in needs_now(studio):
        if need.short:
            found.setdefault(need.project_id, []).append(need)
    return found


def short_elsewhere(studio: Studio, need: Need) -> list[tuple[Need, Decimal]]:
    """Needs of other open projects that are short of the same wool, seen or hidden as it is here, and of how much."""
    others = open_needs(studio, item=need.item_id, seen=need.seen)
    rows = [(other, _short(other.left, other.promised)) for other in others if other.project_id != need.project_id]
    return [(other, short) for other, short in rows if short]


def stand_ins_of(project: Project) -> list[StandIn]:
    """What stands in for what in a project, with both fibres."""
    return list(project.stand_ins.filter(taken_back_at=None).select_related("old", "new"))


def stand_ins_by_project(studio: Studio, project_ids: Iterable[UUID]) -> dict[UUID, list[StandIn]]:
    """The same of many projects, the first accepted first."""
    found: dict[UUID, list[StandIn]] = {}
    rows = StandIn.objects.of(studio).filter(project__in=set(project_ids), taken_back_at=None)
    for made in rows.select_related("old", "new"):
        found.setdefault(made.project_id, []).append(made)
    return found


def answered_by(studio: Studio, key: str) -> bool:
    """Whether that press has answered a shortage already."""
    return StandIn.objects.of(studio).filter(client_key=key).exists()


def need_of(studio: Studio, project_id: UUID, item_id: UUID) -> list[NeedLine]:
    """What a project needs of one fibre, where it is seen first. Raises `Http404` where it needs none."""
    needs = lines(studio, open_needs(studio, project=project_id, item=item_id))
    if not needs:
        raise Http404
    return sorted(needs, key=lambda line: not line.need.seen)


@dataclass(frozen=True)
class CoverOver:
    """A cover that lies over a wool: its own wool and colour, fibre diameter in µm, weight per area and middle grams."""

    name: str
    srgb: str
    micron_um: float
    cover: Cover


def covers_over(project: Project, item_id: UUID) -> list[CoverOver]:
    """The covers that lie over that wool in the project's figure."""
    way = project.colourway
    palette = Palette.of(way)
    return [
        CoverOver(
            layer.item.name,
            palette.colour(layer.layer.slot_id),
            layer.item.source.micron_um,
            Cover(layer.grams.middle, layer.grams.cover_g_m2, palette.colour(layer.over)),
        )
        for layer in plan_figure(way.version, parts_of(way.version), palette).layers()
        if layer.item and layer.layer.role == "cover" and layer.grams.cover_g_m2
        and (under := palette.items.get(layer.over)) and under.pk == item_id
    ]  # fmt: skip


def covers_of(project: Project, item_id: UUID) -> list[Cover]:
    """The covers of that wool in the project's figure."""
    way = project.colourway
    palette = Palette.of(way)
    return [
        Cover(layer.grams.middle, layer.grams.cover_g_m2, palette.colour(layer.over))
        for layer in plan_figure(way.version, parts_of(way.version), palette).layers()
        if layer.item and layer.item.pk == item_id and layer.layer.role == "cover" and layer.grams.cover_g_m2
    ]
