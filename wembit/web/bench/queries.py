"""What is on the bench."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.db.models import Count, Exists, F, OuterRef, Prefetch, Q, QuerySet, Subquery, Sum
from django.http import Http404
from django.shortcuts import get_object_or_404

from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000
from wembit.core.craft.materials import SMALLEST_PIECE_G
from wembit.core.grams.estimate import Range
from wembit.core.stock.breakage import Breakage, breakage
from wembit.web.caches import by_content
from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.figures.order_of_work.takes import Takes, takes_of
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.scaling import at_scale
from wembit.web.plan.models import PLANNED as PROJECT_PLANNED
from wembit.web.plan.models import Project
from wembit.web.stash.models import ZERO, Entry, Item, Lot, Promise, standing

from .models import (
    Drying,
    Guess,
    Making,
    MakingThing,
    NeedleBreak,
    Piece,
    PieceLayer,
    Spell,
    Take,
    ThingTake,
    Trim,
    Try,
)

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence

    from wembit.web.figures.models import Figure, Part
    from wembit.web.studio.models import Member, Studio

LATER = 1_000  # steps: after all that the order of work asks for


def makings_in_hand(studio: Studio) -> int:
    """How many are being made, looked up once for a request."""
    return studio.once("in hand", Making.objects.of(studio).filter(finished_at=None).count)


@dataclass(frozen=True)
class LayerLine:
    """One layer of a piece: what it takes and what it has got, and how much of that only lies aside for it."""

    layer: PieceLayer
    grams: Range
    taken: Decimal
    aside: Decimal = ZERO

    @property
    def done(self) -> bool:
        return self.taken > self.aside or self.layer.freed > 0

    @property
    def share(self) -> float:
        """What was taken, as a share of what it takes."""
        return float(self.taken) / self.grams.p50 if self.grams.p50 else 0.0

    @property
    def left(self) -> float:
        """Grams still planned for it."""
        return max(0.0, self.grams.p50 - float(self.taken + self.layer.freed))

    @property
    def spare(self) -> Decimal:
        """What of the plan it has not taken and not freed; below zero where it took more."""
        return to_step(self.grams.p50) - self.taken - self.layer.freed

    @property
    def rest(self) -> Range:
        """The range of what is still to take."""
        return self.grams.less(float(self.taken + self.layer.freed))


@dataclass(frozen=True)
class ThingLine:
    """A thing of a making, and how much of it was taken, in its item's unit."""

    thing: MakingThing
    taken: Decimal

    @property
    def left(self) -> Decimal:
        return max(self.thing.amount - self.taken, ZERO)

    @property
    def key(self) -> str:
        """Its id as fields are named after it."""
        return str(self.thing.pk)


@dataclass(frozen=True)
class PieceLine:
    """A piece with its layers."""

    piece: Piece
    layers: list[LayerLine]

    @property
    def weighed(self) -> bool:
        return all(line.done for line in self.layers)

    @property
    def p50(self) -> float:
        return sum(line.grams.p50 for line in self.layers)

    @property
    def aside(self) -> Decimal:
        return sum((line.aside for line in self.layers), ZERO)

    @property
    def taken(self) -> Decimal:
        return sum((line.taken for line in self.layers), ZERO)


@dataclass(frozen=True)
class MakingLine:
    """A making with all its pieces in the order in which they are worked; `next` is the first layer in the order of work
    that has got nothing yet. `takes`: the number of the step that takes the wool of a part in a role.
    """

    making: Making
    pieces: list[PieceLine]
    things: list[ThingLine]
    takes: Takes

    @property
    def sequence(self) -> list[tuple[PieceLine, LayerLine]]:
        """Every layer with its piece, as the order of work asks for them; what it does not ask for comes last."""
        every = [(piece, layer) for piece in self.pieces for layer in piece.layers]
        return sorted(every, key=lambda each: self.step_of(each[0].piece, each[1].layer))

    def step_of(self, piece: Piece, layer: PieceLayer) -> int:
        """The number of the step that takes a layer's wool."""
        return self.takes.get((piece.part_key, layer.role), len(self.takes) + LATER)

    @property
    def unweighed(self) -> list[LayerLine]:
        """The layers for which nothing was taken, though the plan has something for them."""
        return [line for piece in self.pieces for line in piece.layers if not line.done and line.spare > 0]

    @property
    def unweighed_g(self) -> Decimal:
        return sum((line.spare for line in self.unweighed), ZERO)

    @property
    def things_left(self) -> list[ThingLine]:
        return [line for line in self.things if line.left]

    @property
    def next(self) -> LayerLine | None:
        return next((line for _, line in self.sequence if not line.done), None)


def makings(studio: Studio, start: int, count: int) -> list[MakingLine]:
    """What is in hand, the longest begun first: `count` of them from `start` on. A bounded number of queries."""
    return _lines(
        Making.objects.of(studio).filter(finished_at=None).order_by("begun_at", "pk")[start : start + count], studio
    )


def finished_lately(studio: Studio) -> list[Making]:
    """The last few finished, newest first."""
    rows = Making.objects.of(studio).exclude(finished_at=None).select_related("project", "colourway__version__figure")
    return list(rows.order_by("-finished_at")[:8])


def makings_of(project: Project) -> list[MakingLine]:
    """The begun makings of a project, finished or in hand. A bounded number of queries."""
    return _lines(Making.objects.filter(project=project).order_by("number"), project.studio)


def making_of(studio: Studio, making_id: UUID) -> MakingLine:
    """This studio's making with its pieces. Raises `Http404`."""
    lines = _lines(Making.objects.of(studio).filter(pk=making_id), studio)
    if not lines:
        raise Http404
    return lines[0]


def layer_of(studio: Studio, layer_id: UUID) -> PieceLayer:
    """This studio's layer of a piece. Raises `Http404`."""
    layer = _layers(studio, layer_id).first()
    if layer is None:
        raise Http404
    return layer


def layer_and_lot(studio: Studio, layer_id: UUID, lot_id: UUID) -> tuple[PieceLayer, UUID]:
    """This studio's layer of a piece, and what is in its lot, in one query. Raises `Http404`."""
    lot = Lot.objects.of(studio).filter(pk=lot_id, waste=False)
    layer = _layers(studio, layer_id).annotate(lot_item=Subquery(lot.values("item"))).first()
    if layer is None or layer.lot_item is None:
        raise Http404
    return layer, layer.lot_item


def _layers(studio: Studio, layer_id: UUID) -> QuerySet[PieceLayer]:
    return PieceLayer.objects.of(studio).filter(pk=layer_id).select_related("piece__making", "item")


def spells_of(making: Making, part_key: str | None = None) -> list[Spell]:
    """The work at a making, or at one part of it, the first first; without what was taken back with its taking."""
    rows = Spell.objects.filter(Q(entry=None) | standing("entry"), making=making)
    return list((rows.filter(part_key=part_key) if part_key else rows).order_by("begun_at"))


def open_spell(member: Member) -> tuple[Spell | None, bool]:
    """What this maker works at, locked, and whether it stands: it was not taken back with its taking."""
    gone = Exists(Entry.objects.filter(reverses=OuterRef("entry")))
    rows = Spell.objects.of(member.studio).filter(maker=member, ended_at=None).annotate(gone=gone)
    spell = rows.select_for_update(of=("self",)).first()
    return spell, spell is not None and not spell.gone


def finished_makings(studio: Studio, most: int, making_ids: Sequence[UUID] | None = None) -> list[Making]:
    """The last finished, or of those some, the newest first, with their figures."""
    rows = Making.objects.of(studio).exclude(finished_at=None).order_by("-finished_at", "pk")
    rows = rows if making_ids is None else rows.filter(pk__in=making_ids)
    return list(rows.select_related("colourway__version__figure")[:most])


def makings_of_figure(figure: Figure) -> list[UUID]:
    """Every making of a figure, of whatever version."""
    return list(Making.objects.filter(colourway__version__figure=figure).values_list("pk", flat=True))


def layers_of(making_ids: Sequence[UUID]) -> list[PieceLayer]:
    """Every layer of some makings with its piece, piece by piece, from the inside out."""
    rows = PieceLayer.objects.filter(piece__making__in=making_ids).select_related("piece")
    return list(rows.order_by("piece__position", "position"))


def loose_parts(making_ids: Sequence[UUID]) -> set[tuple[UUID, str]]:
    """The parts of some makings of which a piece was rolled loosely at first: making and key."""
    rows = Piece.objects.filter(making__in=making_ids, was_loose=True)
    return set(rows.values_list("making", "part_key"))


def booked_layers(making_ids: Sequence[UUID]) -> set[UUID]:
    """The layers for which something was booked as planned, and not weighed."""
    takes = kept_takes().filter(layer__piece__making__in=making_ids, measured=False)
    return set(takes.values_list("layer", flat=True))


def dryings_of(making_ids: Sequence[UUID]) -> list[Drying]:
    """What dries, or has dried, at some makings, what is dry first, first."""
    return list(Drying.objects.filter(making__in=making_ids).order_by("until"))


def guesses_of(member: Member, most: int) -> list[Guess]:
    """What a member laid on the scale last, the oldest first."""
    return list(Guess.objects.of(member.studio).filter(member=member).order_by("-made_at")[:most])[::-1]


def making_in_hand(studio: Studio, making_id: UUID) -> Making:
    """This studio's making, locked. Raises `Refusal` when it is finished, `Http404`."""
    making = get_object_or_404(Making.objects.of(studio).locked(), pk=making_id)
    if making.finished_at:
        raise Refusal("That making is finished.")
    return making


def needles_and_pads(studio: Studio) -> tuple[list[Item], list[Item]]:
    """The needles that the studio has, the coarsest first, and its pads."""
    rows = list(Item.objects.of(studio).filter(notion__in=("needle", "pad"), lots__on_hand__gt=0).distinct())
    needles = [item for item in rows if item.notion == "needle"]
    return sorted(needles, key=_coarsest_first), [item for item in rows if item.notion == "pad"]


def _coarsest_first(needle: Item) -> tuple[float, str]:
    return (needle.told.get("gauge") or 0, needle.name)


def broken_by_role(studio: Studio) -> list[tuple[UUID, str, int]]:
    """How many needles of each kind broke at a layer of each role: item, role, count; the most first."""
    rows = NeedleBreak.objects.of(studio).filter(standing("entry"), item__isnull=False)
    counted = rows.order_by().values_list("item", "role").annotate(count=Count("pk"))
    return sorted(counted, key=lambda row: -row[2])


def breakages(studio: Studio) -> dict[UUID, Breakage]:
    """How many needles of each kind broke in the hours of the finished makings whose minutes are known; of those of which
    enough broke. Two queries, one where none broke.
    """
    rows = NeedleBreak.objects.of(studio).filter(standing("entry"), item__isnull=False)
    broke = rows.exclude(piece__making__took={}).filter(piece__making__finished_at__isnull=False)
    counts = dict(broke.order_by().values_list("item").annotate(count=Count("pk")))
    if not counts:
        return {}
    took = Making.objects.of(studio).filter(finished_at__isnull=False).exclude(took={}).values_list("took", flat=True)
    hours = sum(minutes for parts in took for _, minutes in parts.values()) / 60
    return {item: known for item, count in counts.items() if (known := breakage(count, hours))}


def breaks_of(making_id: UUID) -> list[NeedleBreak]:
    """The needles that broke at a making, the first one first."""
    rows = NeedleBreak.objects.filter(standing("entry"), piece__making=making_id)
    return list(rows.select_related("item", "piece").order_by("entry__recorded_at"))


def tips_in(making_ids: list[UUID]) -> set[UUID]:
    """The makings in which the tip of a needle was not found yet."""
    rows = NeedleBreak.objects.filter(standing("entry"), tip_found=False, piece__making__in=making_ids)
    return set(rows.values_list("piece__making", flat=True))


def piece_of(studio: Studio, piece_id: UUID) -> Piece:
    """This studio's piece of a making. Raises `Http404`."""
    return get_object_or_404(Piece.objects.of(studio), pk=piece_id)


def _lines(found: QuerySet[Making], studio: Studio) -> list[MakingLine]:
    layers = PieceLayer.objects.prefetch_related("item").order_by("position")
    pieces = Piece.objects.order_by("position").prefetch_related(Prefetch("layers", queryset=layers))
    rows = list(
        found.select_related("project", "colourway__version__figure", "maker__user").prefetch_related(
            Prefetch("pieces", queryset=pieces)
        )
    )
    for making in rows:
        making.studio = making.colourway.studio = making.colourway.version.studio = studio  # looked up already
    taken, aside = taken_and_aside([making.pk for making in rows])
    things = _things([making.pk for making in rows])
    return [
        MakingLine(
            making,
            [
                PieceLine(piece, [layer_line(layer, taken, aside) for layer in piece.layers.all()])
                for piece in making.pieces.all()
            ],
            things.get(making.pk, []),
            takes_of(making.colourway.version, making.colourway),
        )
        for making in rows
    ]


def layer_line(layer: PieceLayer, taken: Mapping[UUID, Decimal], aside: Mapping[UUID, Decimal]) -> LayerLine:
    """A layer with the range of what it takes; what was taken and what of that lies aside, in g by layer."""
    grams = Range.of(layer.rule_g * layer.bias, layer.sigma).at_least(SMALLEST_PIECE_G if layer.rule_g else 0.0)
    return LayerLine(layer, grams, taken.get(layer.pk, ZERO), aside.get(layer.pk, ZERO))


def set_lines(layer: PieceLayer) -> list[LayerLine]:
    """The same layer of every piece of its part, in the same wool, with what each has got."""
    same = PieceLayer.objects.filter(
        piece__making=layer.piece.making_id,
        piece__part_key=layer.piece.part_key,
        position=layer.position,
        item=layer.item_id,
    ).select_related("piece", "item")
    taken, aside = taken_and_aside([layer.piece.making_id])
    return [layer_line(each, taken, aside) for each in same.order_by("piece__position")]


def taken_by_layer(making_ids: list[UUID]) -> dict[UUID, Decimal]:
    """Net grams taken for each layer, without what was taken back and what went with a try that was given up."""
    return taken_and_aside(making_ids)[0]


def taken_and_aside(making_ids: list[UUID]) -> tuple[dict[UUID, Decimal], dict[UUID, Decimal]]:
    """The same, and what of it lies aside until the layer is worked."""
    takes = kept_takes().filter(layer__piece__making__in=making_ids).values_list("layer")
    rows = list(takes.annotate(all=Sum("movement__amount"), ready=Sum("movement__amount", filter=Q(aside=True))))
    return {layer: -whole for layer, whole, _ in rows}, {layer: -ready for layer, _, ready in rows if ready is not None}


def kept_takes() -> QuerySet[Take]:
    """The takes that count: neither taken back nor given up."""
    given_up = Q(given_up__isnull=False) & standing("given_up__entry")
    return Take.objects.filter(standing("movement__entry")).exclude(given_up)


def pulls_by_layer(layers: list[UUID]) -> dict[UUID, list[Decimal]]:
    """What was pulled for each layer, one after the other, without what was put back."""
    found: dict[UUID, list[Decimal]] = {}
    takes = kept_takes().filter(layer__in=layers, movement__amount__lt=0).order_by("movement__entry__recorded_at")
    for layer, amount in takes.values_list("layer", "movement__amount"):
        found.setdefault(layer, []).append(-amount)
    return found


def given_up_by_layer(making_ids: list[UUID]) -> dict[UUID, Decimal]:
    """Net grams of each layer that went with tries that were given up."""
    tries = [each.pk for some in tries_of(making_ids).values() for each in some]
    if not tries:
        return {}
    rows = Take.objects.filter(standing("movement__entry"), given_up__in=tries).values("layer")
    return {row["layer"]: -row["total"] for row in rows.annotate(total=Sum("movement__amount"))}


class Happened(NamedTuple):
    """Whether a piece of a making was ever started again or trimmed, a needle broke at one, a step dries: mostly none did."""

    tries: bool
    trims: bool
    breaks: bool
    dryings: bool


def what_happened(making_id: UUID) -> Happened:
    """One query, in place of four that mostly find nothing."""
    inside = {"piece__making": OuterRef("pk")}
    rows = Making.objects.filter(pk=making_id).values_list(
        Exists(Try.objects.filter(**inside)),
        Exists(Trim.objects.filter(layer__piece__making=OuterRef("pk"))),
        Exists(NeedleBreak.objects.filter(**inside)),
        Exists(Drying.objects.filter(making=OuterRef("pk"))),
    )
    return Happened(*rows[0])


def tries_of(making_ids: list[UUID]) -> dict[UUID, list[Try]]:
    """The tries that stand, by piece, the first one first."""
    found: dict[UUID, list[Try]] = {}
    rows = Try.objects.filter(standing("entry"), piece__making__in=making_ids).select_related("lot__item")
    for each in rows.order_by("entry__recorded_at"):
        found.setdefault(each.piece_id, []).append(each)
    return found


def trimmed_by_layer(making_ids: list[UUID]) -> dict[UUID, Decimal]:
    """Grams that were cut off each layer."""
    rows = Trim.objects.filter(standing("entry"), layer__piece__making__in=making_ids)
    return dict(rows.order_by().values_list("layer").annotate(total=Sum("grams")))


def scrap_bags(studio: Studio, srgb: str) -> list[Lot]:
    """The studio's bags of scrap, the nearest to a colour first; those without a colour last."""
    lots = (
        Lot.objects.of(studio).filter(item__form="scrap", item__unit="g", waste=False).select_related("item", "drawer")
    )
    seen = lab(srgb)
    return sorted(
        lots, key=lambda lot: (not lot.srgb, delta_e_2000(seen, lab(lot.srgb)) if lot.srgb else 0.0, lot.item.name)
    )


def thing_of(studio: Studio, thing_id: UUID) -> ThingLine:
    """This studio's thing of a making, with what was taken. Raises `Http404`."""
    thing = MakingThing.objects.of(studio).filter(pk=thing_id).first()
    if thing is None:
        raise Http404
    return next(line for line in _things([thing.making_id])[thing.making_id] if line.thing.pk == thing_id)


def _things(making_ids: list[UUID]) -> dict[UUID, list[ThingLine]]:
    """The things of each making. Two queries, one where there are none."""
    things = list(MakingThing.objects.filter(making__in=making_ids).select_related("item"))
    takes = ThingTake.objects.filter(standing("movement__entry"), thing__in=things).order_by()
    taken = dict(takes.values_list("thing").annotate(total=Sum("movement__amount"))) if things else {}
    lines: dict[UUID, list[ThingLine]] = {}
    for thing in things:
        lines.setdefault(thing.making_id, []).append(ThingLine(thing, -taken.get(thing.pk, ZERO)))
    return lines


def last_take(layer: PieceLayer) -> Take | None:
    """What was moved for a layer last, with who did it."""
    takes = layer.takes.filter(standing("movement__entry")).select_related("movement__entry__by__user")
    return takes.order_by("-movement__entry__recorded_at").first()


@dataclass(frozen=True)
class Source:
    """A bag to take from: what it holds, and what of it is free for this layer."""

    lot: Lot
    free: Decimal
    promised_here: Decimal


def sources(wanted: PieceLayer | MakingThing) -> list[Source]:
    """Bags of its item, first the one promised to its need, then the one with most that is free; from a closed drawer last.
    Two queries.
    """
    lots = Lot.objects.of(wanted.studio).filter(item=wanted.item_id, waste=False, on_hand__gt=0)
    promises = Promise.objects.of(wanted.studio).filter(lot__item=wanted.item_id).order_by()
    here: dict[UUID, Decimal] = {}
    elsewhere: dict[UUID, Decimal] = {}
    for lot_id, need, amount in promises.values_list("lot", "need", "amount"):
        whose = here if need == wanted.need else elsewhere
        whose[lot_id] = whose.get(lot_id, ZERO) + amount
    found = []
    for lot in lots.select_related("drawer"):
        lot.item = wanted.item  # looked up already
        mine = here.get(lot.pk, ZERO)
        found.append(Source(lot, lot.on_hand - elsewhere.get(lot.pk, ZERO), mine))
    return sorted(found, key=lambda each: (_is_closed(each.lot), -each.promised_here, -each.free))


def _is_closed(lot: Lot) -> bool:
    return lot.drawer is not None and lot.drawer.closed_until is not None


def next_number(project: Project) -> int:
    """Of the making that is begun next, of a project as `to_begin` gives it."""
    left: int = getattr(project, "left", project.count)
    return project.count - left + 1


def parts_of_making(making: Making) -> Sequence[Part]:
    """The parts of a making's version in its size, with their layers; they stay as they are for as long as it is frozen."""
    version = making.colourway.version
    parts = by_content.get_or_make(("parts", version.pk), version.frozen_at, lambda: parts_of(version))
    return at_scale(version, parts, making.scale)


def to_begin(studio: Studio) -> QuerySet[Project]:
    """Open projects of which not all are begun, with `left` to begin, by start date."""
    rows = Project.objects.of(studio).filter(state=PROJECT_PLANNED).annotate(left=F("count") - Count("makings"))
    return rows.filter(left__gt=0).select_related("colourway__version__figure").order_by("start", "due", "pk")
