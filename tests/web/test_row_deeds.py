"""Every press that changes rows of its own is taken back by Z, done again by Shift and Z, and refused when it was built on."""

import datetime as dt
import os
from decimal import Decimal as D
from pathlib import Path

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command

from tests.conftest import some
from tests.web import factories as make
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from tests.web.test_stash_screens import photo
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.take import take
from wembit.web.bench.models import Making, Piece, PieceLayer
from wembit.web.errors import Refusal
from wembit.web.figures.actions.add_reference import add_reference
from wembit.web.figures.models import Choice, Colourway, Figure, Layer, Part, Reference, Slot, Tracing, Version
from wembit.web.plan.models import Need, Project, StandIn
from wembit.web.plan.queries import open_needs
from wembit.web.restock.models import Offer, Order, OrderLine, Supplier
from wembit.web.row_deeds import put
from wembit.web.stash.actions.undo import undo as undo_entry
from wembit.web.stash.models import Entry, Item, Lot, Movement, Promise, Reminder
from wembit.web.studio.models import Deed, Member, Studio
from wembit.web.uploads import cleaned


@shared
def moss(owner):
    return make.lot(owner, "moss", "100")


@shared
def figure(owner, moss):
    return make.figure(owner, fibre=moss, length=60)


@shared
def project(owner, figure):
    return make.project(owner, figure, count=3)


def z(client, address="undo/") -> str:
    return words(text(post(client, address, follow=True)))


def state(owner):
    """All that the presses below may change, and what hangs on it."""
    studio = owner.studio
    tables = (
        Project, Need, StandIn, Making, Piece, PieceLayer, Order, OrderLine, Supplier, Offer, Item, Lot, Reminder, Figure,
        Version, Slot, Part, Layer, Colourway, Choice, Reference, Tracing,
    )  # fmt: skip
    rows = {model.__name__: sorted(map(str, model.objects.of(studio).values())) for model in tables}
    rows["Promise"] = sorted((str(p.lot_id), str(p.need), p.amount) for p in Promise.objects.of(studio))
    rows["Studio"] = list(Studio.objects.filter(pk=studio.pk).values("name", "currency", "weight_unit", "habits"))
    rows["Member"] = sorted(map(str, Member.objects.of(studio).values("pk", "role", "pinch_g", "keys_on")))
    rows["frozen"] = sorted(map(str, Version.objects.of(studio).values_list("pk", "frozen_at")))
    return rows


def presses(client, owner, project, moss):
    """Address, fields and the words of the journal of one press of each kind."""
    offer = make.offer(owner, moss.item, "500")
    making = begin_making(owner, project.pk)
    layer = PieceLayer.objects.get()
    take(owner, layer.pk, moss.pk, D("1"), press=make.press())
    piece = Piece.objects.get()
    due = (project.due + dt.timedelta(days=3)).isoformat()
    way = str(project.colourway_id)
    settings = {
        "name": "Reedmoor", "timezone": "Europe/London", "currency": "EUR", "decimal_mark": ",", "weight_unit": "g",
        "length_unit": "cm",
    }  # fmt: skip
    yield f"plan/{project.pk}/change/", {"name": "Fair", "count": "5", "due": due, "start": ""}, "Fair, changed"
    yield f"plan/{project.pk}/drop/", {}, "Market, given up"
    yield f"plan/{project.pk}/finish/", {}, "Market, done"
    yield "plan/new/", {"colourway": way, "count": "2", "due": due, "name": "Gift", "start": ""}, "Gift, planned"
    yield f"bench/begin/{project.pk}/", {}, "begun"
    yield f"bench/piece/{piece.pk}/mark/", {"state": "made"}, "ball, marked"
    yield f"bench/layer/{layer.pk}/enough/", {}, "enough"
    yield f"bench/{making.pk}/finish/", {"unweighed": "nothing"}, "Pebble 1 of 3, finished"
    yield "restock/list/", {f"pack_{offer.pk}": "2", "item": str(moss.item_id)}, "packs, on the list"
    yield (
        f"restock/suppliers/{offer.supplier_id}/",
        {"name": "Reed Wool", "lead_days": "3", "postage": "1"},
        "Reed Wool",
    )
    yield (
        f"restock/suppliers/{offer.supplier_id}/offer/",
        {"item": str(moss.item_id), "pack": "25", "price": "3"},
        "a pack",
    )
    figure = project.colourway.version.figure_id
    file = client.get(f"{client.base}figures/{figure}/json/").content
    shown = add_reference(owner, figure, cleaned(photo(), owner.studio))
    yield "figures/new/", {"name": "Crab", "story": ""}, "Crab, begun"
    yield f"figures/{figure}/copy/", {"copy_name": "Crab"}, "Crab, copied"
    yield "figures/take-in/", {"file": SimpleUploadedFile("a.json", file)}, "taken in from a file"
    yield f"figures/{figure}/pictures/add/", {"photo": photo(), "words": "from below"}, "a picture of a figure, added"
    yield f"figures/{figure}/pictures/{shown.pk}/drop/", {}, "a picture of a figure, dropped"
    yield f"figures/{figure}/draw/", {"kind": "slab"}, "a drawing, begun"
    yield f"figures/{figure}/order/way/", {"question": "eyes", "way": "early"}, "a way of working"
    yield f"bench/{making.pk}/picture/", {"photo": photo()}, "photographed"
    yield "colour/habits/", {"blends": ["batt"], "fibres": "2", "parts": "8", "loss": "1"}, "how the studio cards"
    yield f"stash/lot/{moss.pk}/describe/", {"srgb": "#112233", "has_colour": "on", "dye_lot": "X"}, "what it is"
    yield "stash/walk/reminder/", {"words": "moths", "due": due, "every_days": "9"}, "a look at the wool"
    yield "stash/walk/room/", {"room": "heated"}, "room of the wool is heated"
    yield "house/settings/", settings, "the studio’s settings"
    yield "house/pinch/", {"ten": "0.9"}, "your pinch"


def test_every_press_of_rows_goes_back_and_comes_again(client, owner, project, moss):
    all_of_them = list(presses(client, owner, project, moss))
    assert len(all_of_them) == 25
    for address, given, said in some(all_of_them, 8, "presses of rows"):
        before = state(owner)
        answer = post(client, address, **given)
        assert answer.status_code == 302, (address, answer.status_code, text(answer)[-300:])
        after = state(owner)
        assert after != before, address
        assert said in Deed.objects.first().words, (address, Deed.objects.first().words)
        answer = z(client)
        assert "Taken back:" in answer, address
        assert said in answer, address
        assert state(owner) == before, address
        z(client, "again/")
        assert state(owner) == after, address
        z(client)
        assert state(owner) == before, address


def test_a_press_and_its_deed_are_there_together_or_not_at_all(client, owner, project, monkeypatch):
    before = state(owner)
    client.raise_request_exception = False
    monkeypatch.setattr("wembit.web.middleware.keep_deed", lambda *_, **__: 1 / 0)
    assert post(client, f"plan/{project.pk}/drop/").status_code == 500
    assert state(owner) == before
    monkeypatch.undo()
    assert post(client, f"plan/{project.pk}/drop/").status_code == 302
    assert state(owner) != before
    assert Deed.objects.filter(kind=Deed.ROWS).count() == 1


def test_what_was_built_on_is_refused(client, owner, figure, moss):
    due = make.project(owner, figure).due.isoformat()
    way = str(Project.objects.get().colourway_id)
    post(client, "plan/new/", colourway=way, count="2", due=due, name="Gift", start="")
    planned = Project.objects.get(name="Gift")
    begin_making(owner, planned.pk)
    assert "done with it since" in z(client)
    assert Project.objects.filter(pk=planned.pk).exists()


def test_a_making_with_wool_is_not_unbegun_by_the_key(client, owner, project, moss):
    post(client, f"bench/begin/{project.pk}/")
    take(owner, PieceLayer.objects.get().pk, moss.pk, D("1"), press=make.press())
    deed = Deed.objects.get(words__endswith="begun")
    assert "since" in words(text(post(client, f"deeds/{deed.pk}/back/", follow=True)))
    assert Making.objects.exists()


@shared
def short(owner, figure, moss):
    return make.project(owner, figure, count=12)


def test_a_stand_in_is_taken_back_by_z_and_stands_in_again(client, owner, short, moss):
    olive = make.lot(owner, "olive", "900", srgb="#6b7a3a")
    begin_making(owner, short.pk)
    before = state(owner)
    given = {"new": str(olive.item_id), "seen": "1", "count": "12"}
    assert post(client, f"restock/project/{short.pk}/{moss.item_id}/accept/", **given).status_code == 302
    after = state(owner)
    assert PieceLayer.objects.get().item_id == olive.item_id
    assert "an answer to a shortage" in z(client)
    assert state(owner) == before
    z(client, "again/")
    assert state(owner) == after
    take(owner, PieceLayer.objects.get().pk, olive.pk, D("1"), press=make.press())
    deed = Deed.objects.get(words="an answer to a shortage")
    assert "Wool was taken" in words(text(post(client, f"deeds/{deed.pk}/back/", follow=True)))
    assert StandIn.objects.count() == 1


def test_a_carded_blend_goes_back_in_two_presses_and_not_under_what_it_stands_in_for(client, owner, short, moss):
    for name, srgb in (("fern", "#5f7a3a"), ("ochre", "#8a7a3a")):
        make.lot(owner, name, "400", srgb=srgb)
    page = get(client, f"restock/project/{short.pk}/{moss.item_id}/")
    fern, ochre = (Lot.objects.get(item__name=name) for name in ("fern", "ochre"))
    assert "carded together" in page
    given = {"recipe": f"{fern.pk}*1 {ochre.pk}*1", "grams": "300", "seen": "1", "count": "12", "name": "moss blend"}
    assert post(client, f"restock/project/{short.pk}/{moss.item_id}/accept/", **given).status_code == 302
    blend = Entry.objects.get(verb="blend")
    with pytest.raises(Exception, match="stands in"):
        undo_entry(owner, press=make.press(), entry_id=blend.pk)
    assert "an answer to a shortage" in z(client)
    assert not StandIn.objects.exists()
    assert "carded" in z(client)
    assert Lot.objects.get(pk=fern.pk).on_hand == 400
    assert open_needs(owner.studio, project=short)[0].item_id == moss.item_id
    assert sum(Movement.objects.filter(lot=fern).values_list("amount", flat=True)) == 400


def test_letting_a_member_go_asks_first(client, owner):
    tove = make.member(owner.studio)
    answer = post(client, f"house/members/{tove.pk}/remove/")
    assert "cannot be taken back" in words(text(answer))
    assert "Tove go for good" in words(text(answer))
    assert Member.objects.filter(pk=tove.pk).exists(), "unsure is no"
    post(client, f"house/members/{tove.pk}/remove/", sure="on")
    assert not Member.objects.filter(pk=tove.pk).exists()


def test_a_role_that_is_gone_takes_back_nothing_of_an_owners(client, owner, moss):
    tove = make.member(owner.studio)
    offer = make.offer(owner, moss.item, "500")
    supplier = f"restock/suppliers/{offer.supplier_id}/"
    post(client, supplier, name="Reed Wool", lead_days="3", postage="1")
    post(client, f"house/members/{tove.pk}/role/", role="owner")
    post(client, f"house/members/{owner.pk}/role/", role="maker")
    roles = set(Member.objects.values_list("user__username", "role"))
    assert roles == {("mira", "maker"), ("tove", "owner")}
    assert post(client, "undo/").status_code == 403, "nobody makes herself an owner again"
    for deed in Deed.objects.filter(kind=Deed.ROWS):
        assert post(client, f"deeds/{deed.pk}/back/").status_code == 403, deed
    assert set(Member.objects.values_list("user__username", "role")) == roles
    assert Supplier.objects.get().name == "Reed Wool"


def test_a_studio_keeps_an_owner_whatever_is_taken_back(client, owner):
    tove = make.member(owner.studio)
    post(client, f"house/members/{tove.pk}/role/", role="owner")
    deed = Deed.objects.get(kind=Deed.ROWS)
    with pytest.raises(Refusal, match="needs an owner"):
        Member.objects.filter(pk=owner.pk).update(role="maker")
        put(Member.objects.get(pk=tove.pk), deed.rows, back=True)


def test_a_new_figure_goes_with_the_key_while_nothing_stands_on_it(client, owner):
    page = post(client, "figures/new/", name="Crab", story="", follow=True)
    here = page.request["PATH_INFO"]
    post(client, f"{here.removeprefix(client.base)}part/", kind="body", length="40")
    begun = Deed.objects.get(words="Crab, begun")
    assert "done with it since" in words(text(post(client, f"deeds/{begun.pk}/back/", follow=True)))
    assert "Taken back: Crab: body, added" in z(client)
    assert "Taken back: Crab, begun" in z(client)
    assert not Figure.objects.exists()


def test_the_page_of_what_was_taken_back_gives_way_to_the_place_above_it(client, owner):
    here = post(client, "figures/new/", name="Crab", story="", follow=True).request["PATH_INFO"]
    navigates = {"Referer": f"http://testserver{here}", "Sec-Fetch-Mode": "navigate"}
    answer = client.post(f"{client.base}undo/", {"key": make.press().key}, follow=True, headers=navigates)
    assert answer.status_code == 200
    assert answer.request["PATH_INFO"] == f"{client.base}figures/"
    assert "Taken back: Crab, begun" in words(text(answer))
    assert client.get(here, headers={"Sec-Fetch-Mode": "navigate"}).status_code == 404, "only the first time"


def test_a_dropped_picture_is_swept_up_when_nobody_can_want_it_back(client, owner, figure, settings):
    reference = add_reference(owner, figure.pk, cleaned(photo(), owner.studio))
    kept = add_reference(owner, figure.pk, cleaned(photo(), owner.studio))
    path = Path(reference.image.path)
    post(client, f"figures/{figure.pk}/pictures/{reference.pk}/drop/")
    call_command("sweep_pictures")
    assert path.exists(), "it may be taken back"
    long_ago = (clock.now() - dt.timedelta(days=8)).timestamp()
    stranger = Path(settings.MEDIA_ROOT) / "letters" / "from-home.txt"
    stranger.parent.mkdir()
    stranger.write_text("not the house's")
    for file in (path, Path(kept.image.path), stranger):
        os.utime(file, (long_ago, long_ago))
    call_command("sweep_pictures")
    assert not path.exists()
    assert Path(kept.image.path).exists()
    assert stranger.exists()
