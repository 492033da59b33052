"""The journal: Z takes back the last thing that was done, says what, and never something else."""

import re
import uuid

from tests.conftest import some
from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, text, told, words
from tests.web.shared import shared
from tests.web.test_walls import ROUTES, filled
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Making, PieceLayer
from wembit.web.bench.queries import taken_by_layer
from wembit.web.deed_words import WORDS
from wembit.web.figures.editing.snapshots import rows_of
from wembit.web.figures.models import Part, Version
from wembit.web.figures.queries import newest_version
from wembit.web.plan.queries import open_needs
from wembit.web.restock.models import Order
from wembit.web.restock.queries import sent_orders
from wembit.web.row_deeds import WATCHED
from wembit.web.stash.models import Entry, Lot
from wembit.web.studio.models import VIEWER, Deed


@shared
def hare(maker):
    return figure_with(maker, "Hare", ("body", "60"), ("head", "30"), ("ear", "20"))


@shared
def fawn(owner):
    return make.lot(owner, "fawn")


def undo(client, address="undo/", **more):
    """What is said on the next page."""
    page = text(post(client, address, follow=True, **more))
    return words(page[page.index('class="said"') : page.index("<main")]) if 'class="said"' in page else ""


def parts(figure):
    version = newest_version(figure)
    return {part.key: (part.shape, part.seat, part.firmness, part.count) for part in version.parts.all()}


def test_z_after_a_part_is_taken_off_brings_the_part_and_no_older_weighing_back(client, hare, fawn):
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5")
    held, before = Lot.objects.get(pk=fawn.pk).on_hand, parts(hare)
    layers = {part.key: part.layers.count() for part in newest_version(hare).parts.all()}
    post(client, f"figures/{hare.pk}/part/ear/drop/")
    assert "ear" not in parts(hare)
    assert "Taken back: Hare: ear, taken off." in undo(client)
    assert parts(hare) == before
    assert {part.key: part.layers.count() for part in newest_version(hare).parts.all()} == layers
    assert Lot.objects.get(pk=fawn.pk).on_hand == held, "the weighing before it stands"
    assert "Taken back: fawn, 5 g taken" in undo(client), "then what was done before it, one by one"


def test_every_edit_of_a_figure_is_taken_back_and_done_again(client, hare, fawn):
    def edits():
        yield f"figures/{hare.pk}/part/body/", {"length_mm": "80"}
        yield f"figures/{hare.pk}/part/head/", {"t": "70", "count": "2"}
        yield f"figures/{hare.pk}/part/head/nudge/", {"view": "side", "right_mm": "3"}
        yield f"figures/{hare.pk}/part/body/wire/", {"gauge_mm": "1", "bare_mm": "10"}
        yield f"figures/{hare.pk}/part/body/layer/", {"role": "detail", "new_slot": "belly"}
        yield f"figures/{hare.pk}/part/body/layer/1/drop/", {}
        yield f"figures/{hare.pk}/fibre/", {"item": str(fawn.item_id), "slot": "main"}
        yield f"figures/{hare.pk}/colours/way/", {"do": "add", "way_name": "winter"}
        yield f"figures/{hare.pk}/size/", {"scale": "1.5"}
        yield f"figures/{hare.pk}/list/fit/", {"notion": "bell", "amount": "1"}
        yield f"figures/{hare.pk}/order/step/", {"do": "add", "new_title": "Tea"}

    for address, given in some(edits(), 5, "edits of a figure"):
        version = newest_version(hare)
        before = rows_of(version)
        answer = post(client, address, **given)
        assert answer.status_code < 400, (address, given, answer.status_code)
        after = rows_of(version)
        assert after != before, address
        assert "Taken back: Hare" in undo(client), address
        assert rows_of(version) == before, address
        assert "Done again: Hare" in undo(client, "again/"), address
        assert rows_of(version) == after, address


def test_stock_is_taken_back_by_its_own_name(client, fawn):
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5")
    assert "Taken back: fawn, 5 g taken" in undo(client)
    assert Entry.objects.filter(reverses__verb="pull").count() == 1
    for _ in range(2):
        assert "Done again: fawn, 5 g taken" in undo(client, "again/")
        assert Lot.objects.get(pk=fawn.pk).on_hand == 45
        assert "nothing that was taken back last" in undo(client, "again/")
        assert "Taken back: fawn, 5 g taken" in undo(client)
        assert Lot.objects.get(pk=fawn.pk).on_hand == 50
    post(client, f"stash/lot/{fawn.pk}/take/", amount="1")
    assert "nothing that was taken back last" in undo(client, "again/"), "something else was done since"


def test_a_weighing_a_split_and_a_blend_are_done_again(client, owner, fawn):
    moss = make.lot(owner, "moss", "50")
    presses = [
        (f"stash/lot/{fawn.pk}/weigh/", {"amount": "41"}),
        (f"stash/lot/{fawn.pk}/split/", {"amount": "7"}),
        (f"stash/lot/{fawn.pk}/throw-away/", {"amount": "2", "why": "moths"}),
        ("stash/delivery/", {"item_0": str(moss.item_id), "amount_0": "20"}),
    ]
    for address, given in presses:
        assert post(client, address, **given).status_code == 302, address
        held = dict(Lot.objects.values_list("pk", "on_hand"))
        weighed_at = Lot.objects.get(pk=fawn.pk).recounted_at
        undo(client)
        assert dict(Lot.objects.values_list("pk", "on_hand")) != held, address
        assert "Done again" in undo(client, "again/"), address
        assert dict(Lot.objects.values_list("pk", "on_hand")) == held, address
        assert Lot.objects.get(pk=fawn.pk).recounted_at == weighed_at
    for lot in Lot.objects.all():
        assert lot.on_hand == sum(line.amount for line in lot.movements.all())


def test_what_is_taken_again_at_the_bench_is_taken_for_the_same_layer(client, owner, fawn):
    making = begin_making(owner, make.project(owner, make.figure(owner, fibre=fawn)).pk)
    layer = PieceLayer.objects.get()
    post(client, f"bench/layer/{layer.pk}/take/", lot=str(fawn.pk), amount="2")
    undo(client)
    assert not taken_by_layer([making.pk])
    assert "Done again: fawn, 2 g taken" in undo(client, "again/")
    assert taken_by_layer([making.pk]) == {layer.pk: 2}
    need = open_needs(owner.studio)[0]
    assert need.taken == 2
    undo(client)
    Making.objects.update(finished_at=making.begun_at)
    assert "finished by now" in undo(client, "again/")
    assert Lot.objects.get(pk=fawn.pk).on_hand == 50


def test_a_parcel_that_has_arrived_again_has_arrived(client, owner, fawn):
    offer = make.offer(owner, fawn.item, "50", "4.90")
    post(client, "restock/list/", **{"item": str(fawn.item_id), "shown": "0", f"pack_{offer.pk}": "1"})
    order = Order.objects.get()
    post(client, f"restock/order/{order.pk}/send/", expected="2099-01-01")
    answer = post(client, f"restock/order/{order.pk}/arrival/", amount_0="50")
    assert answer.status_code == 302, told(answer)
    assert not sent_orders(owner.studio).exists()
    undo(client)
    assert sent_orders(owner.studio).get() == order
    assert "Done again" in undo(client, "again/")
    assert not sent_orders(owner.studio).exists()
    assert sum(lot.on_hand for lot in Lot.objects.all()) == 100


def test_what_cannot_be_taken_back_says_so_and_nothing_older_is_touched(client, owner, hare, fawn):
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5")
    post(client, "house/invite/", role="maker")
    page = undo(client)
    assert "The last thing you did was this: an invitation" in page
    assert Lot.objects.get(pk=fawn.pk).on_hand == fawn.on_hand - 5


def test_a_press_that_was_refused_is_no_deed(client, owner, fawn, hare):
    project = make.project(owner, make.figure(owner, fibre=fawn))
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5")
    count = Deed.objects.count()
    post(client, f"stash/lot/{fawn.pk}/take/", amount="-4")
    post(client, f"figures/{hare.pk}/part/body/", count="none")
    assert post(client, f"plan/{project.pk}/newest-version/").status_code == 302  # there is no newer version
    assert Deed.objects.count() == count
    assert "Taken back: fawn" in undo(client)


def test_what_others_have_built_on_is_refused_with_the_reason(client, hare):
    post(client, f"figures/{hare.pk}/part/head/", diameter_mm="40", length_mm="40")
    first = Deed.objects.filter(kind=Deed.FIGURE).first()
    post(client, f"figures/{hare.pk}/part/head/", t="61")
    now = parts(hare)
    assert "changed there since" in undo(client, f"deeds/{first.pk}/back/")
    assert parts(hare) == now
    assert "Taken back" in undo(client) and "Taken back" in undo(client), "the later one first"


def test_a_change_of_a_frozen_figure_is_taken_back_within_its_new_version(client, owner, fawn):
    figure = make.figure(owner, fibre=fawn)
    begin_making(owner, make.project(owner, figure).pk)
    before = parts(figure)
    post(client, f"figures/{figure.pk}/part/ball/", diameter_mm="44")
    assert newest_version(figure).number == 2
    assert "Taken back" in undo(client)
    assert parts(figure) == before


def test_needs_follow_a_taking_back(client, owner, fawn):
    figure = make.figure(owner, fibre=fawn)
    make.project(owner, figure)
    before = [(need.item_id, need.p50) for need in open_needs(owner.studio)]
    post(client, f"figures/{figure.pk}/part/ball/", diameter_mm="60")
    assert [(need.item_id, need.p50) for need in open_needs(owner.studio)] != before
    undo(client)
    assert [(need.item_id, need.p50) for need in open_needs(owner.studio)] == before


def test_the_same_press_takes_back_once(client, hare):
    post(client, f"figures/{hare.pk}/part/ear/", count="3")
    post(client, f"figures/{hare.pk}/part/head/", count="2")
    for _ in range(2):
        undo(client, key="one-press-0001")
    assert Part.objects.get(version__figure=hare, key="head").count == 1
    assert Part.objects.get(version__figure=hare, key="ear").count == 3, "a double press takes back one deed"


def test_each_takes_back_her_own_and_a_viewer_nothing(client, owner, studio, fawn, hare):
    tove = signed_in(make.member(studio, "maker", "tove"))
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5")
    assert "nothing of today" in undo(tove)
    deed = Deed.objects.filter(kind=Deed.STOCK, words__contains="taken").get()
    assert post(tove, f"deeds/{deed.pk}/back/").status_code == 404
    viewer = signed_in(make.member(studio, VIEWER, "vera"))
    assert post(viewer, "undo/").status_code == 403
    assert Deed.objects.get(pk=deed.pk).taken_back_at is None


def test_the_day_is_read_and_taken_back_from_its_page(client, hare, fawn):
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5")
    post(client, f"figures/{hare.pk}/part/ear/drop/")
    page = words(get(client, "deeds/"))
    assert page.index("ear, taken off") < page.index("fawn, 5 g taken"), "the last thing first"
    deed = Deed.objects.get(words__contains="5 g taken")
    assert "Taken back: fawn" in undo(client, f"deeds/{deed.pk}/back/")
    assert Lot.objects.get(pk=fawn.pk).on_hand == fawn.on_hand
    assert "ear" not in parts(hare), "what stands beside it stays"
    assert "taken back" in words(get(client, "deeds/"))


def test_a_figure_keeps_the_rows_of_its_last_hundred_deeds(client, hare, monkeypatch):
    monkeypatch.setattr("wembit.web.studio.deeds.KEPT_A_FIGURE", 3)
    for count in range(2, 8):
        post(client, f"figures/{hare.pk}/part/ear/", count=str(count))
    assert Deed.objects.filter(thing=hare.pk, rows__isnull=False).count() == 3
    oldest = Deed.objects.filter(thing=hare.pk, rows__isnull=True).first()
    assert "too long ago" in undo(client, f"deeds/{oldest.pk}/back/")
    assert Version.objects.filter(figure=hare).count() == 1


SILENT = {  # they take back, hand over, show once, or keep a table that is only looked at yet
    "undo", "again", "deed_back", "studio:hand", "studio:second_hand", "colour:picture", "colour:palette_in",
    "restock:new_feed", "restock:no_feed", "letters:keep", "letters:stop",
    "stash:take_back", "stash:files", "stash:file_go_on", "studio:backup", "studio:end_session",
}  # fmt: skip
BY_THEMSELVES = {"bench:take_thing", "bench:thing_back",   # the ledger and the door of the figures write these
    "bench:aside", "bench:as_made", "bench:back", "bench:broke", "bench:start_again", "bench:take", "bench:trim",
    "stash:delivery", "stash:merge", "stash:put_back", "stash:split", "stash:stocktake",
    "stash:take", "stash:throw_away", "stash:walk_nowhere", "stash:walk_place", "stash:weigh",
    "figures:colourway", "figures:divide", "figures:drop_layer", "figures:drop_part", "figures:face", "figures:fibre",
    "figures:fit", "figures:follow", "figures:keep_tracing", "figures:later_layer", "figures:layer", "figures:let_go",
    "figures:mark", "figures:new_layer", "figures:new_part", "figures:nudge", "figures:part", "figures:size", "figures:step",
    "figures:swap", "figures:unfit", "figures:wire",
}  # fmt: skip


def test_every_address_that_takes_a_press_has_words_for_it(client):
    names = {name for name, _ in ROUTES}
    assert set(WORDS) | set(WATCHED) | SILENT | BY_THEMSELVES <= names, "no words for what is not there"
    ids = {
        "studio": "saltgrass",
        "name": "x.jpg",
        "key": "x",
        "position": 0,
        "number": 1,
        "recipe": f"{uuid.uuid4()}*1",
    }
    for name, route in some(ROUTES, 60, "presses with words"):
        found = dict.fromkeys(re.findall(r"<uuid:(\w+)>", route), uuid.uuid4())
        takes_a_press = client.post(filled(route, {**found, **ids})).status_code != 405
        told = name in WORDS or name in WATCHED or name in SILENT or name in BY_THEMSELVES
        assert told or not takes_a_press, name


def test_a_press_that_changed_nothing_is_no_deed(client, hare, fawn):
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5", key="the-first-press")
    count = Deed.objects.count()
    post(client, f"figures/{hare.pk}/part/ear/", count="2", name="ear")
    post(client, f"stash/lot/{fawn.pk}/take/", amount="5", key="the-first-press")
    assert Deed.objects.count() == count
    assert "Taken back: fawn" in undo(client)
