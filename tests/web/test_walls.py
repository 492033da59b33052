"""Walls between studios, and what each role may do: every table, every address."""

import datetime as dt
import re
import uuid

import pytest
from django.apps import apps
from django.core.files.base import ContentFile
from django.test import Client, override_settings
from django.urls import get_resolver

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.test_stash_screens import photo
from wembit.demo.loader import wipe
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.break_needle import break_needle
from wembit.web.bench.models import Drying, Making, MakingThing, NeedleBreak, Piece, PieceLayer
from wembit.web.figures.actions.add_reference import add_reference
from wembit.web.figures.actions.begin_tracing import begin_tracing
from wembit.web.plan.models import Away, Pin, StandIn
from wembit.web.restock.actions.put_on_list import put_on_list
from wembit.web.restock.models import Order, OrderLine
from wembit.web.stash.models import Entry, Reminder, StashFile
from wembit.web.studio.models import Deed, HeldIn, Link, Member, Studio, User
from wembit.web.uploads import cleaned

OURS = ("studio", "stash", "figures", "plan", "bench", "restock")
POST_ONLY_OWNER = {
    "studio:settings", "studio:invite", "studio:role", "studio:remove", "studio:new_password",
    "restock:new_supplier", "restock:supplier", "restock:offer", "restock:not_sold",
    "costs:rates",
}  # fmt: skip
OPEN_TO_VIEWERS = {
    "restock:new_feed",
    "restock:no_feed",
    "letters:keep",
    "letters:stop",
    "studio:pinch",
    "studio:password",
    "studio:end_session",
    "studio:hand",
    "studio:second_hand",
    "colour:picture",
    "colour:palette_in",
    "colour:touched",
}  # they change no one else's


@pytest.mark.parametrize("model", [m for app in OURS for m in apps.get_app_config(app).get_models()], ids=str)
def test_every_table_belongs_to_a_studio(model):
    if model in (User, Studio, HeldIn):
        return
    field = model._meta.get_field("studio")
    assert field.related_model is Studio
    assert not field.null
    assert model._meta.pk.get_internal_type() == "UUIDField"


def addresses(patterns=None, before="", space=""):
    """(name, route) of every address under /s/<studio>/."""
    for pattern in patterns or get_resolver().url_patterns:
        route = before + str(pattern.pattern)
        if hasattr(pattern, "url_patterns"):
            name = pattern.namespace or space
            yield from addresses(pattern.url_patterns, route, name or "")
        elif route.startswith("s/<slug:studio>/"):
            yield (f"{space}:{pattern.name}" if space else pattern.name), route


DAY = dt.timedelta(days=1)

ROUTES = sorted(addresses())
WITH_ID = [(name, route) for name, route in ROUTES if "<uuid:" in route]


def a_needle_broke(owner, making):
    """The id of the break."""
    entry = break_needle(owner, making.pieces.first().pk, None, found=False, press=make.press())
    return NeedleBreak.objects.get(entry=entry).pk


def something_dries(making):
    moment = clock.now()
    return Drying.objects.create(studio=making.studio, making=making, step="x", begun_at=moment, until=moment).pk


def one_of_everything(owner) -> dict:
    """A studio's lot, figure, project, making, supplier and list; ids by the names that addresses use."""
    lot = make.lot(owner)
    figure = make.figure(owner, fibre=lot)
    project = make.project(owner, figure)
    making = begin_making(owner, project.pk)
    offer = make.offer(owner, lot.item)
    put_on_list(owner, {offer.pk: 1})
    tracing = begin_tracing(owner, figure.pk, "slab", None)
    reference = add_reference(owner, figure.pk, cleaned(photo(), owner.studio))
    mine = {"studio": owner.studio}
    moths = {"words": "moths", "due": clock.now().date(), "every_days": 9, "drawer": lot.drawer}
    reminder = Reminder.objects.create(**mine, **moths)
    file = StashFile.objects.create(
        **mine, file=ContentFile(b"form\ntops\n", name="x.csv"), name="x", by=owner, total=1
    )
    stand_in = StandIn.objects.create(**mine, project=project, old=lot.item, new=lot.item, seen=True, count=1, moved=0)
    return {
        "lot_id": lot.pk, "entry_id": Entry.objects.filter(**mine).first().pk, "figure_id": figure.pk, "key": "ball",
        "project_id": project.pk, "making_id": making.pk, "layer_id": PieceLayer.objects.filter(**mine).first().pk,
        "thing_id": MakingThing.objects.create(**mine, making=making, item=lot.item, amount=1, words="moss").pk,
        "piece_id": Piece.objects.filter(**mine).first().pk, "item_id": lot.item_id,
        "line_id": OrderLine.objects.filter(**mine).first().pk, "order_id": Order.objects.filter(**mine).first().pk,
        "break_id": a_needle_broke(owner, making),
        "drying_id": something_dries(making),
        "offer_id": offer.pk,
        "away_id": Away.objects.create(**mine, member=owner, first=clock.now(), last=clock.now() + DAY).pk,
        "pin_id": Pin.objects.create(**mine, project=project, lot=lot, amount=1).pk,
        "supplier_id": offer.supplier_id, "member_id": owner.pk, "studio": "saltgrass", "name": "x.jpg", "lot": lot,
        "position": 0, "number": 1, "tracing_id": tracing.pk, "reference_id": reference.pk,
        "stand_in_id": stand_in.pk,
        "file_id": file.pk,
        "notion_id": make.notion_lot(owner).item_id,
        "reminder_id": reminder.pk,
        "link_id": Link.objects.create(**mine, purpose=Link.JOIN, token_hash=str(owner.pk), expires_at=clock.now() + DAY).pk,
        "deed_id": Deed.objects.filter(**mine, kind=Deed.STOCK).first().pk,
        "drawer_id": lot.drawer_id,
        "recipe": f"{lot.pk}*1",
    }  # fmt: skip


@pytest.fixture(scope="module")
def both(django_db_setup, django_db_blocker, tmp_path_factory):
    """Two studios with one of everything, and where their files are, once for all tests of a file: what a test changes is
    rolled back after it."""
    files = tmp_path_factory.mktemp("media")
    with django_db_blocker.unblock():
        wipe()  # what an interrupted run has left
        with override_settings(MEDIA_ROOT=files):
            rows = one_of_everything(make.studio_owner()), one_of_everything(make.studio_owner("Dune", "ana"))
        yield *rows, files
        wipe()


@pytest.fixture
def ours(both, db, settings):
    settings.MEDIA_ROOT = both[2]
    return both[0]


@pytest.fixture
def theirs(both, db):
    """Another studio's one of everything, under the address of ours."""
    return both[1]


@pytest.fixture
def owner(ours):
    return Member.objects.get(pk=ours["member_id"])


def filled(route, ids):
    everywhere = {"plan_key": "standing"}  # the same in all studios
    return "/" + re.sub(r"<\w+:(\w+)>", lambda found: str({**everywhere, **ids}[found[1]]), route)


@pytest.mark.sampled("ids of another studio", 20)
@pytest.mark.parametrize(("name", "route"), WITH_ID, ids=[name for name, _ in WITH_ID])
def test_ids_of_another_studio_are_not_there(theirs, owner, name, route):
    client = signed_in(owner)
    address = filled(route, theirs)
    answer = client.get(address)
    if answer.status_code == 405:
        lot = make.lot(owner, "own")
        given = {
            "key": str(uuid.uuid4()), "amount": "1", "lot": str(lot.pk), "into": str(lot.pk), "role": "maker",
            "length": "9", "item": str(lot.item_id), "pack": "5", "price": "1", "name": "x", "lead_days": "3",
            "count": "1", "due": "2099-01-01", "state": "made", "kind": "ball", "new_slot": "back",
        }  # fmt: skip
        answer = client.post(address, given)
    assert answer.status_code == 404


def test_another_studio_is_not_there(theirs, owner):
    client = signed_in(owner)
    for name, route in ROUTES:
        if "<uuid" not in route and "<path" not in route:
            answer = client.get(filled(route, {"studio": "dune"}))
            assert answer.status_code == 404, name


def test_without_signing_in_everything_asks_for_it(owner):
    stranger = Client()
    for name, route in ROUTES:
        ids = {
            "studio": "saltgrass",
            "name": "x",
            "key": "k",
            "recipe": "x",
            "position": 0,
            "number": 1,
            **dict.fromkeys(re.findall(r"uuid:(\w+)", route), uuid.uuid4()),
        }
        answer = stranger.get(filled(route, ids))
        assert answer.status_code == 302 and answer.url.startswith("/sign-in/"), name
    from_htmx = Client().get("/s/saltgrass/stash/", headers={"HX-Request": "true"})
    assert from_htmx.status_code == 401
    assert from_htmx.headers["HX-Redirect"].startswith("/sign-in/")


def posted(client, route, ids):
    given = {"key": str(uuid.uuid4()), "amount": "1", "lot": str(ids["lot_id"]), "into": str(ids["lot_id"]), "role": "maker",
             "length": "9", "item": str(ids["item_id"]), "pack": "5", "price": "1", "name": "x", "lead_days": "3",
             "count": "1", "due": str(clock.now().date()), "state": "made",
             "kind": "fibre" if "stocktake" in route else "tuft" if "hand" in route else "ball",
             "colourway": str(uuid.uuid4()), "slot": "main",
             "timezone": "UTC", "currency": "EUR", "decimal_mark": ".", "weight_unit": "g", "length_unit": "mm",
             "form": "tops", "breed": "merino", "copy_name": "y", "item_0": str(ids["item_id"]), "amount_0": "3",
             "where": "waste", "trimmed": "0.1", "aside": "1", "later": str(ids["layer_id"]), "step": "x",
             "out": "2", "how": "sold", "guessed": "1",
             f"pack_{uuid.uuid4()}": "1"}  # fmt: skip
    return client.post(filled(route, ids), given)


ASKED_BY_MAKERS = {"what_if:answer"}  # it tries what only they can press
CHANGES = [(name, route) for name, route in ROUTES if name not in OPEN_TO_VIEWERS and "<path" not in route]


@pytest.mark.sampled("what a viewer may not", 20)
@pytest.mark.parametrize(("name", "route"), CHANGES, ids=[name for name, _ in CHANGES])
def test_a_viewer_reads_and_changes_nothing(ours, studio, name, route):
    client = signed_in(make.member(studio, "viewer", "vera"))
    read = client.get(filled(route, ours))
    assert read.status_code in ((403,) if name in ASKED_BY_MAKERS else (200, 405))
    before = Entry.objects.count()
    answer = posted(client, route, ours)
    assert answer.status_code in (403, 405), name
    if answer.status_code == 403:
        assert "Ask an owner" in answer.content.decode()
    assert Entry.objects.count() == before
    assert not Making.objects.filter(finished_at__isnull=False).exists()


@pytest.mark.parametrize("name", sorted(POST_ONLY_OWNER))
def test_a_maker_leaves_members_prices_and_settings_alone(ours, studio, name):
    client = signed_in(make.member(studio))
    answer = posted(client, dict(ROUTES)[name], ours)
    assert answer.status_code == 403
    assert "Only an owner" in answer.content.decode()
