"""Presses that change rows of their own, not stock and not a figure's drawing: which rows each may change, told before and
after, so that the journal can put them back and do it again.
"""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.apps import apps
from django.core.serializers.json import DjangoJSONEncoder
from django.db import IntegrityError, connection, models, transaction
from django.db.models import ProtectedError, QuerySet

from wembit.web.asked import id_in
from wembit.web.bench.actions.learn import learn
from wembit.web.bench.models import Drying, Guess, Making, MakingThing, NeedleBreak, Piece, PieceLayer, Spell, Take
from wembit.web.errors import Refusal
from wembit.web.figures.models import Choice, Colourway, Figure, Layer, Part, Reference, Slot, Tracing, Version
from wembit.web.plan.actions.reserve import reserve
from wembit.web.plan.models import PLANNED, Away, LeftToOthers, MakerHours, Need, Pin, Project, StandIn
from wembit.web.restock.models import DRAFT, Offer, Order, OrderLine, Supplier
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import Drawer, Item, Lot, Movement, OwnBreed, Reminder, standing
from wembit.web.studio.models import MAKER, OWNER, Member, Studio

Row = dict[str, Any]
Rows = dict[tuple[str, str], Row]  # by the label of the model and the id
Changes = list[list[Any]]  # label, id, the row before, the row after; None where there was or is none
NOT_KEPT = {"studio.studio": ("stamp", "backed_up_at", "hands")}  # what presses change that are about something else
GONE_ON = "Something was done with it since. Take that back first."


@dataclass(frozen=True)
class Pressed:
    """What a press is about: who pressed, the ids of its address, what its form says, and when it came."""

    member: Member
    ids: Mapping[str, Any]
    given: Mapping[str, str]
    since: dt.datetime

    def of(self, model: type[models.Model], **filters: Any) -> QuerySet:
        """This studio's rows."""
        return model._default_manager.filter(studio=self.member.studio_id, **filters)


@dataclass(frozen=True)
class Watched:
    """How a press is told, `{}` being the first thing that it changed (of the kind `of`, where that says more), and the rows
    that it may change, each after what it points to.
    """

    words: str
    rows: Callable[[Pressed], Sequence[QuerySet]]
    of: str = ""


def _project(press: Pressed) -> list[QuerySet]:
    pk = press.ids["project_id"]
    return [press.of(Project, pk=pk), press.of(Need, project=pk), press.of(StandIn, project=pk)]


def _tried(press: Pressed) -> list[QuerySet]:
    """The projects of a trial that is kept."""
    named = [id_in(words.partition(":")[0]) for words in press.given.get("tried", "").split()]
    projects = press.of(Project, pk__in=[pk for pk in named if pk])
    return [
        projects,
        press.of(Need, project__in=projects.values("pk")),
        press.of(StandIn, project__in=projects.values("pk")),
    ]


def _planned(press: Pressed) -> list[QuerySet]:
    projects = press.of(Project, made_at__gte=press.since)
    return [projects, press.of(Need, project__in=projects.values("pk"))]


def _makings(press: Pressed, **filters: Any) -> list[QuerySet]:
    inside = {f"making__{name}": value for name, value in filters.items()}
    deeper = {f"piece__making__{name}": value for name, value in filters.items()}
    return [
        press.of(Making, **filters),
        press.of(Piece, **inside),
        press.of(PieceLayer, **deeper),
        press.of(MakingThing, **inside),
    ]


def _begun(press: Pressed) -> list[QuerySet]:
    pk = press.ids["project_id"]
    versions = press.of(Version, colourways__projects=pk)
    return [versions, *_project(press), *_makings(press, project=pk, begun_at__gte=press.since)]


def _making(press: Pressed) -> list[QuerySet]:
    pk = press.ids["making_id"]
    return [
        press.of(Version, colourways__makings=pk),
        press.of(Project, makings=pk),
        press.of(Need, project__makings=pk),
        *_makings(press, pk=pk),
    ]


def _layer(press: Pressed) -> list[QuerySet]:
    layer = press.of(PieceLayer, pk=press.ids["layer_id"])
    return [press.of(Need, pk__in=layer.values("need")), layer]


def _hand(press: Pressed) -> list[QuerySet]:
    return [press.of(Guess, made_at__gte=press.since), press.of(Member, pk=press.member.pk)]


def _answered(press: Pressed) -> list[QuerySet]:
    """Where a wool is short, in all projects that need it."""
    item = press.ids.get("item_id")
    if item is None:
        item = press.of(StandIn, pk=press.ids["stand_in_id"]).values_list("old", flat=True).first()
    projects = press.of(Project, state=PLANNED, needs__item=item).values("pk")
    return [
        press.of(Need, project__in=projects),
        press.of(StandIn, project__in=projects),
        press.of(PieceLayer, piece__making__project__in=projects, piece__making__finished_at=None),
    ]


def _lists(press: Pressed) -> list[QuerySet]:
    drafts = press.of(Order, state=DRAFT)
    return [drafts, press.of(OrderLine, order__in=drafts.values("pk"))]


def _bag(press: Pressed) -> list[QuerySet]:
    pk = press.ids["lot_id"]
    return [press.of(Item, lots=pk), press.of(Lot, pk=pk)]


def _offers(press: Pressed) -> list[QuerySet]:
    pk = press.ids["supplier_id"]
    return [press.of(Item, pk=id_in(press.given.get("item", ""))), press.of(Offer, supplier=pk)]


def _dropped_offer(press: Pressed) -> list[QuerySet]:
    pk = press.ids["offer_id"]
    item = press.of(Item, pk=id_in(press.given.get("item", "")))
    return [item, press.of(Offer, pk=pk)]


def _studio(press: Pressed) -> list[QuerySet]:
    return [Studio.objects.filter(pk=press.member.studio_id)]


def _figures(studio: UUID, **filters: Any) -> list[QuerySet]:
    """All rows of these figures, each after what it points to. The figures and versions are looked up first, so that no
    query reads those of other studios.
    """
    figures = list(Figure.objects.filter(studio=studio, **filters).values_list("pk", flat=True))
    versions = list(Version.objects.filter(studio=studio, figure__in=figures).values_list("pk", flat=True))
    parts = list(Part.objects.filter(studio=studio, version__in=versions).values_list("pk", flat=True))
    ways = list(Colourway.objects.filter(studio=studio, version__in=versions).values_list("pk", flat=True))
    return [
        Figure.objects.filter(studio=studio, pk__in=figures),
        *(model.objects.filter(studio=studio, figure__in=figures) for model in (Version, Reference, Tracing)),
        *(model.objects.filter(studio=studio, version__in=versions) for model in (Slot, Part, Colourway)),
        Layer.objects.filter(studio=studio, part__in=parts),
        Choice.objects.filter(studio=studio, colourway__in=ways),
    ]


def _new_figures(press: Pressed) -> list[QuerySet]:
    return _figures(press.member.studio_id, made_at__gte=press.since)


def _pictures(press: Pressed) -> list[QuerySet]:
    pk = press.ids["figure_id"]
    return [press.of(Reference, figure=pk), press.of(Tracing, figure=pk)]


WATCHED = {
    "bench:begin": Watched("{}, begun", _begun, of="bench.making"),
    "bench:enough": Watched("a piece has enough", _layer),
    "bench:finish": Watched("{}, finished", _making, of="bench.making"),
    "bench:gone": Watched("{}, what became of it", lambda press: [press.of(Making, pk=press.ids["making_id"])]),
    "bench:mark": Watched("{}, marked", lambda press: [press.of(Piece, pk=press.ids["piece_id"])]),
    "bench:let_dry": Watched("{}, dries", lambda press: [press.of(Drying, making=press.ids["making_id"])]),
    "bench:is_dry": Watched("{}, dry", lambda press: [press.of(Drying, pk=press.ids["drying_id"])]),
    "bench:measure": Watched("{}, measured", lambda press: [press.of(Piece, pk=press.ids["piece_id"])]),
    "bench:seen": Watched("{}, its picture", lambda press: [press.of(Piece, pk=press.ids["piece_id"])]),
    "bench:minutes": Watched("{}, its minutes", lambda press: [press.of(Making, pieces=press.ids["piece_id"])]),
    "bench:still": Watched("a clock, answered", lambda press: [press.of(Spell, making__pieces=press.ids["piece_id"])]),
    "bench:more": Watched("a piece takes more", _layer),
    "bench:needles": Watched("{}, its needles", lambda press: [press.of(Making, pk=press.ids["making_id"])]),
    "bench:not_begun": Watched("a making, taken back", _making),
    "bench:picture": Watched("{}, photographed", lambda press: [press.of(Making, pk=press.ids["making_id"])]),
    "bench:show_hand": Watched(
        "your hand, shown",
        lambda press: [press.of(Guess, made_at__gte=press.since), press.of(Member, pk=press.member.pk)],
    ),
    "bench:use_aside": Watched("what lay aside, in use", lambda press: [press.of(Take, layer=press.ids["layer_id"])]),
    "bench:tip_found": Watched("{}, its tip", lambda press: [press.of(NeedleBreak, pk=press.ids["break_id"])]),
    "colour:habits": Watched("how the studio cards", _studio),
    "colour:tell": Watched("{}, its colour", _bag),
    "figures:add_reference": Watched("a picture of a figure, added", _pictures),
    "figures:copy": Watched("{}, copied", _new_figures, of="figures.figure"),
    "figures:describe": Watched("{}, its name and story", lambda press: [press.of(Figure, pk=press.ids["figure_id"])]),
    "figures:drop_reference": Watched("a picture of a figure, dropped", _pictures),
    "figures:like": Watched("{}, begun", _new_figures, of="figures.figure"),
    "figures:plan": Watched("{}, begun", _new_figures, of="figures.figure"),
    "figures:new": Watched("{}, begun", _new_figures, of="figures.figure"),
    "figures:new_tracing": Watched("a drawing, begun", _pictures),
    "figures:origin": Watched("{}, where it is from", lambda press: [press.of(Figure, pk=press.ids["figure_id"])]),
    "figures:take_in": Watched("{}, taken in from a file", _new_figures, of="figures.figure"),
    "figures:tracing": Watched("a drawing", lambda press: [press.of(Tracing, pk=press.ids["tracing_id"])]),
    "costs:rates": Watched("what we ask for our work", _studio),
    "figures:way": Watched("a way of working", _studio),
    "plan:change": Watched("{}, changed", _project),
    "plan:drop": Watched("{}, given up", _project),
    "plan:finish": Watched("{}, done", _project),
    "plan:hours": Watched("hours at the bench", lambda press: [press.of(MakerHours)]),
    "plan:away": Watched("{}, away", lambda press: [press.of(Away)]),
    "plan:back": Watched("{}, there after all", lambda press: [press.of(Away, pk=press.ids["away_id"])]),
    "plan:who": Watched("{}, who makes it", lambda press: [press.of(LeftToOthers)]),
    "plan:move": Watched("{}, moved", _project),
    "plan:pin": Watched(
        "a bag, kept for a project",
        lambda press: [press.of(Project, pk=press.ids["project_id"]), press.of(Pin, project=press.ids["project_id"])],
    ),
    "plan:unpin": Watched("a bag, let go", lambda press: [press.of(Pin, pk=press.ids["pin_id"])]),
    "plan:new": Watched("{}, planned", _planned),
    "plan:newest": Watched("{}, by the newest version", _project),
    "what_if:keep": Watched("a plan as it was tried, kept", _tried),
    "restock:accept": Watched("an answer to a shortage", _answered),
    "restock:new_supplier": Watched("{}, a supplier", lambda press: [press.of(Supplier)]),
    "restock:off_list": Watched("packs, off the list", _lists),
    "restock:offer": Watched("a pack and its price", _offers),
    "restock:not_sold": Watched("{}, not sold any more", _dropped_offer, of="stash.item"),
    "restock:together": Watched("packs, on a list", _lists),
    "restock:wish": Watched("a wish for one dye lot", lambda press: [press.of(Order, pk=press.ids["order_id"])]),
    "restock:send": Watched("an order, sent", lambda press: [press.of(Order, pk=press.ids["order_id"])]),
    "restock:stand_in_back": Watched("an answer to a shortage, taken back", _answered),
    "restock:supplier": Watched("{}, a supplier", lambda press: [press.of(Supplier)]),
    "restock:to_list": Watched("packs, on the list", _lists),
    "stash:breeds": Watched("{}, a breed of your own", lambda press: [press.of(OwnBreed)]),
    "stash:clear": Watched("drawer {}, open again", lambda press: [press.of(Drawer, pk=press.ids["drawer_id"])]),
    "stash:describe": Watched("{}, what it is", _bag),
    "stash:learn": Watched("{}, what the scale shows", lambda press: [press.of(Item, pk=press.ids["item_id"])]),
    "stash:moths": Watched("drawer {}, closed for moths", lambda press: [press.of(Drawer, pk=press.ids["drawer_id"])]),
    "stash:new_reminder": Watched("{}, a look at the wool", lambda press: [press.of(Reminder)]),
    "stash:notion": Watched("{}, what it is", lambda press: [press.of(Item, pk=press.ids["notion_id"])]),
    "stash:room": Watched("whether the room of the wool is heated", _studio),
    "stash:tick": Watched("a look at the wool", lambda press: [press.of(Reminder)]),
    "studio:pinch": Watched("your pinch and keys", lambda press: [press.of(Member, pk=press.member.pk)]),
    "studio:role": Watched("{}, another role", lambda press: [press.of(Member, pk=press.ids["member_id"])]),
    "studio:settings": Watched("the studio’s settings", _studio),
}


def one_at_a_time(studio: Studio) -> None:
    """Wait until no other press of the studio is watched; until the end of the transaction none other is."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(%s)", [studio.pk.int & 0x7FFF_FFFF_FFFF_FFFF])


def told(queries: Iterable[QuerySet]) -> Rows:
    """The rows as the journal keeps them, in the order of the queries."""
    rows: Rows = {}
    for query in queries:
        label = query.model._meta.label_lower
        left_out = NOT_KEPT.get(label, ())
        for row in query.values():
            kept = {name: _plain(value) for name, value in row.items() if name not in left_out}
            rows[label, str(row["id"])] = json.loads(json.dumps(kept, cls=DjangoJSONEncoder))
    return rows


def _plain(value: Any) -> Any:
    """What JSON keeps of a value without losing any of it: moments to the microsecond, bytes in hexadecimal digits."""
    if isinstance(value, dt.datetime):
        return value.isoformat()
    return {"hex": bytes(value).hex()} if isinstance(value, bytes | memoryview) else value


def _whole(value: Any) -> Any:
    return bytes.fromhex(value["hex"]) if isinstance(value, dict) and set(value) == {"hex"} else value


def changes(before: Rows, after: Rows) -> Changes:
    """The rows that differ, each after what it points to."""
    keys = dict.fromkeys([*before, *after])
    return [[*key, before.get(key), after.get(key)] for key in keys if before.get(key) != after.get(key)]


def name_of(found: Changes, of: str = "") -> str:
    """The name of the first thing (of that kind) that was changed, as it is now or was last."""
    label, pk, before, after = next((row for row in found if row[0] == of), found[0])
    row = after or before
    one = apps.get_model(label)._default_manager.filter(pk=pk).first()
    return str(one) if one is not None else str(row.get("name") or row.get("words") or "it")


@transaction.atomic
def put(member: Member, kept: Changes, *, back: bool) -> None:
    """The rows as they were before, or as they became. What follows from them is made true again.

    Raises `Refusal` where one of them has changed since, something was built on it, or no owner would be left;
    `PermissionDenied` for what is an owner's to change, also where she was one when she changed it.
    """
    member.must_be(OWNER if any(map(_is_an_owners, kept)) else MAKER)
    studio = member.studio
    old, new = (3, 2) if back else (2, 3)
    for label, pk, *_ in kept:
        list(_one(label, pk).select_for_update())
    for row in kept:
        now = told([_one(row[0], row[1])]).get((row[0], row[1]))
        if now != row[old]:
            raise Refusal(GONE_ON)
    for pk in (row[1] for row in kept if row[0] == "figures.figure" and row[new] is None):
        _nothing_more(studio, pk, kept)
    _not_used(studio, [row[1] for row in kept if row[0] == "plan.need" and row[new] is None])
    try:
        with transaction.atomic():
            for label, pk, *_ in reversed([row for row in kept if row[new] is None]):
                _one(label, pk).delete()
            for row in [row for row in kept if row[new] is not None]:
                _write(row[0], row[1], row[new], made=row[old] is None)
    except (ProtectedError, IntegrityError):
        raise Refusal(GONE_ON) from None
    if not Member.objects.of(studio).filter(role=OWNER).exists():
        raise Refusal("A studio needs an owner. Make somebody else an owner first.")
    _follow(studio, kept)


def _is_an_owners(row: list[Any]) -> bool:
    """Whether only an owner changes such a row: settings, suppliers and what they offer, the role of a member."""
    label, _, before, after = row
    if label == "studio.member":
        return (before or {}).get("role") != (after or {}).get("role")
    if label == "studio.studio":
        return {**(before or {}), "habits": None} != {**(after or {}), "habits": None}
    return label in ("restock.supplier", "restock.offer")


def _one(label: str, pk: str) -> QuerySet:
    return apps.get_model(label)._default_manager.filter(pk=pk)


def _write(label: str, pk: str, row: Row, *, made: bool) -> None:
    fields = {name: _whole(value) for name, value in row.items()}
    if made:
        apps.get_model(label)(**fields).save(force_insert=True)
        dates = {name: value for name, value in fields.items() if name.endswith("_at")}
        _one(label, pk).update(**dates)  # fields that are set when a row is made
    else:
        _one(label, pk).update(**{name: value for name, value in fields.items() if name != "id"})


def _nothing_more(studio: Studio, figure: str, kept: Changes) -> None:
    """Raises `Refusal` where the figure has got parts, pictures or versions since."""
    if set(told(_figures(studio.pk, pk=figure))) - {(row[0], row[1]) for row in kept}:
        raise Refusal(GONE_ON)


def _not_used(studio: Studio, needs: list[str]) -> None:
    taken = Movement.objects.of(studio).filter(standing("entry"), need__in=needs, entry__reverses=None)
    if needs and taken.exists():
        raise Refusal("Wool was taken for it since. Put that back first.")


def _follow(studio: Studio, kept: Changes) -> None:
    """Promises follow needs and projects, plans follow what a fibre looks like."""
    rows = [(label, pk, before or after) for label, pk, before, after in kept]
    projects = {row["project_id"] for label, _, row in rows if label == "plan.need"}
    projects |= {pk for label, pk, _ in rows if label == "plan.project"}
    projects |= {row["project_id"] for label, _, row in rows if label == "plan.pin"}
    items: set[UUID] = set(Need.objects.filter(project__in=projects).values_list("item", flat=True))
    items |= {UUID(row["item_id"]) for label, _, row in rows if label == "plan.need"}
    if items:
        reserve(studio, items)
    looks = {UUID(row["item_id"]) for label, _, row in rows if label == "stash.lot"}
    looks |= {UUID(pk) for label, pk, _ in rows if label == "stash.item"}
    if looks:
        tell_looks(studio, looks)
    if any(label == "bench.making" for label, _, _ in rows):
        transaction.on_commit(lambda: learn(studio))
