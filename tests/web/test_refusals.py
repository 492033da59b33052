"""What an action refuses, and the last value that it still takes, asked of the action itself: forms see to most of it."""

import datetime as dt
from decimal import Decimal as D

import pytest
from django.core.files.base import ContentFile
from django.http import Http404

from tests.web import factories as make
from tests.web.helpers import figure_with
from tests.web.shared import shared
from wembit.web import clock, limits
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.enough import has_enough, takes_more
from wembit.web.bench.actions.finish_making import finish_making
from wembit.web.bench.actions.mark_piece import mark_piece
from wembit.web.bench.actions.take import take
from wembit.web.bench.actions.take_back_making import take_back_making
from wembit.web.bench.actions.take_thing import give_thing_back, take_thing
from wembit.web.bench.models import MakingThing, Piece, PieceLayer
from wembit.web.errors import Refusal
from wembit.web.figures.actions.add_colourway import add_colourway
from wembit.web.figures.actions.add_fitting import MOST_FITTINGS, add_fitting
from wembit.web.figures.actions.add_part import add_part
from wembit.web.figures.actions.add_reference import add_reference
from wembit.web.figures.actions.change_order import add_step, say_step
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.describe_figure import describe_figure
from wembit.web.figures.actions.keep_face import keep_face
from wembit.web.figures.actions.make_figure import make_figure
from wembit.web.figures.actions.nudge_part import Push, nudge_part
from wembit.web.figures.actions.resize_figure import resize_figure
from wembit.web.figures.actions.set_wire import set_wire
from wembit.web.figures.actions.take_back_change import take_back_change
from wembit.web.figures.models import Part
from wembit.web.figures.queries import colourway_of, newest_version
from wembit.web.plan.actions.change_project import change_project
from wembit.web.plan.actions.lay_under import lay_under
from wembit.web.plan.actions.plan_project import plan_project
from wembit.web.plan.actions.stand_in import stand_in
from wembit.web.restock.actions.keep_supplier import keep_supplier
from wembit.web.restock.actions.put_on_list import put_on_list
from wembit.web.stash.actions.blend import Share, blend
from wembit.web.stash.actions.keep_breed import keep_breed
from wembit.web.stash.actions.keep_carding import MOST_FIBRES, MOST_LOSS, MOST_PARTS, keep_carding
from wembit.web.stash.actions.keep_reminder import MOST_DAYS, keep_reminder
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.repeat import repeat
from wembit.web.stash.actions.split import split
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.ledger import Short
from wembit.web.stash.models import FIBRE, Lot
from wembit.web.studio.actions.change_member import change_role
from wembit.web.studio.actions.follow_link import follow_link, new_user
from wembit.web.studio.actions.make_link import make_join_link, make_password_link
from wembit.web.studio.models import Deed, Link, hashed


def refused(why, action, *given, **named):
    with pytest.raises(Refusal, match=why):
        action(*given, **named)


@shared
def moss(owner):
    return make.lot(owner, "moss", "100")


@shared
def ball(owner, moss):
    return make.figure(owner, fibre=moss, length=40)


@shared
def hare(maker, owner, moss):
    figure = figure_with(maker, "Hare", ("body", "60"), ("head", "30"), ("eye", "4"))
    for slot in newest_version(figure).slots.all():
        choose_fibre(owner, figure.pk, slot.name, moss.item_id)
    make.notion_lot(owner)
    return figure


def carding(owner, *, forms=("batt",), fibres=3, parts=8, loss=2.0):
    return keep_carding(owner, forms, fibres=fibres, parts=parts, loss_percent=loss)


def test_how_the_studio_cards(owner):
    refused("one form", carding, owner, forms=())
    refused("one form", carding, owner, forms=("batt", "felt"))
    for fibres in (1, MOST_FIBRES + 1):
        refused("A recipe has", carding, owner, fibres=fibres)
    for parts in (2, MOST_PARTS + 1):
        refused("as many parts", carding, owner, parts=parts)
    for loss in (-0.1, MOST_LOSS + 0.1):
        refused("Carding loses", carding, owner, loss=loss)
    for bounds in (
        {"fibres": 2, "parts": 2, "loss": 0},
        {"fibres": MOST_FIBRES, "parts": MOST_PARTS, "loss": MOST_LOSS},
    ):
        assert carding(owner, **bounds).habits["parts"] == bounds["parts"]


def test_a_blend(owner, moss):
    fern, bare = make.lot(owner, "fern", "10"), make.lot(owner, "bare", "10", srgb="")

    def carded(*shares, grams="10", **more):
        given = {"name": "hedge", "form": "batt", "press": make.press(), **more}
        return blend(owner, [Share(lot.pk, parts) for lot, parts in shares], D(grams), **given)

    refused("two bags or more", carded, (moss, 1))
    refused("two bags or more", carded, (moss, 1), (moss, 2))
    refused("at least one part", carded, (moss, 1), (fern, 0))
    for grams in ("0", "-1"):
        refused("more than nothing", carded, (moss, 1), (fern, 1), grams=grams)
    for loss in (-0.01, 1.0):
        refused("a share below the whole", carded, (moss, 1), (fern, 1), loss=loss)
    refused("Choose what it becomes", carded, (moss, 1), (fern, 1), form="locks")
    refused("has no colour yet", carded, (moss, 1), (bare, 1))
    with pytest.raises(Short):
        carded((moss, 1), (fern, 1), grams="20.02")
    made = carded((moss, 1), (fern, 1), grams="20.004")
    assert Lot.objects.get(pk=made.lot.pk).on_hand == 20, "all that there is of the fern, to the hundredth"
    assert sum(made.entry.movements.values_list("amount", flat=True)) == 0
    assert Lot.objects.get(pk=fern.pk).on_hand == 0


def test_a_bag(owner, moss):
    refused("less than nothing", recount, owner, moss.pk, D("-0.001"), press=make.press())
    with pytest.raises(Refusal):
        split(owner, moss.pk, D("100.001"), press=make.press())
    split(owner, moss.pk, D("99.999"), press=make.press())
    entry = recount(owner, moss.pk, D(0), press=make.press())
    assert Lot.objects.get(pk=moss.pk).on_hand == 0
    refused("stands already", repeat, owner, entry.pk)
    press = make.press()
    back = undo(owner, press=press, entry_id=entry.pk)
    assert undo(owner, press=press, entry_id=entry.pk) == back, "the same press again"
    refused("taken back already", undo, owner, press=make.press(), entry_id=entry.pk)
    assert repeat(owner, entry.pk) == repeat(owner, entry.pk), "done again once"


def test_a_breed_and_a_look(owner):
    told = {"crimp": "", "felting": "x", "touch": "", "uses": []}
    refused("a name", keep_breed, owner, "  ", 24.0, None, **told)
    breed = keep_breed(owner, "n" * 50, 24.0, None, **told)
    assert len(breed.name) == 40
    today = clock.today(owner.studio)
    refused("what to look for", keep_reminder, owner, " ", today)
    refused("behind", keep_reminder, owner, "moths", today - dt.timedelta(1))
    for days in (-1, MOST_DAYS + 1):
        refused("whole days", keep_reminder, owner, "moths", today, every_days=days)
    for days in (0, MOST_DAYS):
        assert keep_reminder(owner, "moths", today, every_days=days).every_days == days


def test_a_figure_has_so_many_of_each_thing(owner, ball):
    version = newest_version(ball)
    for number in range(version.colourways.count(), limits.COLOURWAYS):
        add_colourway(owner, ball.pk, f"way {number}")
    refused("At most", add_colourway, owner, ball.pk, "one more")
    for _ in range(MOST_FITTINGS):
        add_fitting(owner, ball.pk, "bell", 1)
    refused("At most", add_fitting, owner, ball.pk, "bell", 1)
    refused("what is fitted", add_fitting, owner, ball.pk, "needle", 1)
    ids = [str(number) for number in range(limits.STEPS)]
    refused("At most", add_step, owner, ball.pk, "1", ids, title="wash it")
    add_step(owner, ball.pk, "1", ids[1:], title="wash it")
    for minutes in (-0.1, limits.STEP_MINUTES + 0.1):
        refused("minutes", say_step, owner, ball.pk, "begin", title="Lay out", words="", minutes=minutes)
    for minutes in (0, limits.STEP_MINUTES):
        say_step(owner, ball.pk, "begin", title="Lay out", words="", minutes=minutes)


def test_a_figures_pictures(owner, ball, monkeypatch):
    monkeypatch.setattr("wembit.web.figures.actions.add_reference.PICTURES", 0)
    refused("keeps at most", add_reference, owner, ball.pk, ContentFile(b"", "a.png"))


def test_a_figures_name_and_face(owner, ball):
    other = make_figure(owner, "Hare")
    refused("a name", describe_figure, owner, ball.pk, name=" ")
    refused("There is a", describe_figure, owner, ball.pk, name="Hare")
    refused("Nothing sits on a face", keep_face, owner, ball.pk, "sleepy")
    refused("Begin with the body", add_part, owner, other.pk, "eye", 4.0)
    for length in (0.09, 10_001):
        refused("a length between", add_part, owner, other.pk, "body", length)
    for length in (0.1, 10_000):
        assert add_part(owner, other.pk, "body", length).shape
    assert Part.objects.filter(version__figure=other).values_list("key", flat=True)[1] == "body-2"


def test_so_many_faces(owner, hare, monkeypatch):
    monkeypatch.setattr("wembit.web.figures.actions.keep_face.FACES", 1)
    keep_face(owner, hare.pk, "sleepy")
    keep_face(owner, hare.pk, "sleepy")
    refused("At most", keep_face, owner, hare.pk, "listening")


def test_a_size_a_wire_and_a_push(owner, hare):
    for times in (0.0001, 10_000):
        refused("Choose a size", resize_figure, owner, hare.pk, times)
    refused("no shape of its own", set_wire, owner, hare.pk, "eye", {"gauge_mm": 1.0})
    Part.objects.filter(version__figure=hare, key="head").update(seat={"on": "gone", "t": 0.5})
    with pytest.raises(Refusal):
        nudge_part(owner, hare.pk, "head", Push(right_mm=1))


def test_a_change_of_a_figure(owner, studio, ball):
    describe_figure(owner, ball.pk, name="Pebble")
    resize_figure(owner, ball.pk, 1.1)
    Deed.objects.all().delete()
    deed = Deed.objects.create(studio=studio, member=owner, kind=Deed.FIGURE, words="x", made_at=clock.now())
    with pytest.raises(Http404):
        take_back_change(owner, deed)
    deed.thing = ball.pk
    deed.save()
    refused("too long ago", take_back_change, owner, deed)
    deed.version, deed.rows = newest_version(ball).pk, []
    deed.save()
    refused("stands again already", take_back_change, owner, deed, again=True)
    begin_making(owner, make.project(owner, ball).pk)
    refused("made as it is by now", take_back_change, owner, deed)
    deed.taken_back_at = clock.now()
    deed.save()
    refused("taken back already", take_back_change, owner, deed)


def test_a_project(owner, ball, moss):
    way, today = colourway_of(newest_version(ball)), clock.today(owner.studio)
    tomorrow, yesterday = today + dt.timedelta(1), today - dt.timedelta(1)

    def planned(count=1, due=tomorrow, start=None):
        return plan_project(owner, way.pk, name="", count=count, due=due, start=start)

    refused("lies behind", planned, due=yesterday)
    refused("start after", planned, start=tomorrow + dt.timedelta(1))
    for count in (0, limits.MAKINGS + 1):
        refused("how many", planned, count=count)
    project = planned(due=today, start=today)
    assert planned(count=limits.MAKINGS).count == limits.MAKINGS
    empty = make_figure(owner, "Empty")
    bare_way = colourway_of(newest_version(empty))
    refused("no parts yet", plan_project, owner, bare_way.pk, name="", count=1, due=tomorrow)
    add_part(owner, empty.pk, "body", 40.0)
    refused("Choose a fibre first for: core, main", plan_project, owner, bare_way.pk, name="", count=1, due=tomorrow)

    def changed(count=1, due=tomorrow, start=today):
        return change_project(owner, project.pk, name="", count=count, start=start, due=due)

    refused("lies behind", changed, due=yesterday)
    refused("start after", changed, start=tomorrow + dt.timedelta(1))
    for count in (0, limits.MAKINGS + 1):
        refused("how many", changed, count=count)
    assert changed(count=2, due=today).due == today
    for _ in range(2):
        begin_making(owner, project.pk)
    refused("2 are begun already", changed, count=1)
    assert changed(count=2).count == 2
    type(project).objects.filter(pk=project.pk).update(due=yesterday, start=yesterday)
    assert changed(count=3, due=yesterday, start=yesterday).count == 3, "a late one keeps its day"


def test_what_stands_in(owner, ball, moss):
    project = make.project(owner, ball, count=2)
    bare, fern = make.lot(owner, "bare", "50", srgb=""), make.lot(owner, "fern", "50")
    given = {"seen": True, "count": 1}
    refused("short itself", stand_in, owner, project.pk, moss.item_id, moss.item_id, **given)
    refused("takes no more", stand_in, owner, project.pk, bare.item_id, moss.item_id, **given)
    for count in (0, 3):
        refused("1 to 2", stand_in, owner, project.pk, moss.item_id, fern.item_id, seen=True, count=count)
    refused("Tell the colours", lay_under, owner, project.pk, moss.item_id, bare.item_id, count=1)


def test_suppliers_and_lists(owner, moss):
    given = {"name": "Marram", "postage": D(4)}
    refused("a name", keep_supplier, owner, **given | {"name": " "}, lead_days=3)
    for days in (-1, 366):
        refused("0 to 365", keep_supplier, owner, **given, lead_days=days)
    assert keep_supplier(owner, **given, lead_days=365).lead_days == 365
    offer = make.offer(owner, moss.item)
    refused("at least one", put_on_list, owner, {offer.pk: 0})
    refused("Check the number", put_on_list, owner, {offer.pk: limits.PACKS + 1})
    (line,) = put_on_list(owner, {offer.pk: limits.PACKS})
    assert line.count == limits.PACKS


def test_a_making_that_is_finished(owner, hare, moss):
    project = make.project(owner, hare, count=2)
    making = begin_making(owner, project.pk)
    thing = MakingThing.objects.get(making=making)
    layer = PieceLayer.objects.filter(piece__making=making).first()
    piece = Piece.objects.filter(making=making).first()
    refused("how far", mark_piece, owner, piece.pk, "half")
    refused("planned already", takes_more, owner, layer.pk)
    refused("Nothing was taken", give_thing_back, owner, thing.pk, press=make.press())
    press = make.press()
    taken = take_thing(owner, thing.pk, press=press)
    assert take_thing(owner, thing.pk, press=press) == taken, "the same press"
    back = make.press()
    assert give_thing_back(owner, thing.pk, press=back) == give_thing_back(owner, thing.pk, press=back)
    refused("what became of", finish_making, owner, making.pk, press=make.press())
    refused("what the figure weighs", finish_making, owner, making.pk, press=make.press(), unweighed="weighed")
    take(owner, layer.pk, moss.pk, D("1"), press=make.press())
    weighs = {"unweighed": "weighed", "press": make.press()}
    refused("more than that already", finish_making, owner, making.pk, figure_g=D("0.999"), **weighs)
    finish_making(owner, making.pk, figure_g=D("1"), **weighs)
    for action in (take_thing, give_thing_back):
        refused("finished", action, owner, thing.pk, press=make.press())
    refused("finished", has_enough, owner, layer.pk)
    refused("finished", take, owner, layer.pk, moss.pk, D("1"), press=make.press())
    refused("finished already", finish_making, owner, making.pk, press=make.press())
    refused("cannot be taken back", take_back_making, owner, making.pk)


def test_a_begun_one_before_a_later_one(owner, ball):
    project = make.project(owner, ball, count=2)
    first, second = (begin_making(owner, project.pk) for _ in range(2))
    refused("later one", take_back_making, owner, first.pk)
    take_back_making(owner, second.pk)
    assert newest_version(ball).frozen_at, "the first one is begun still"
    take_back_making(owner, first.pk)
    assert newest_version(ball).frozen_at is None


def test_eyes_from_two_bags(owner, hare):
    """All of the first bag, the rest from the second; no line of nothing."""
    make.notion_lot(owner, "black eyes", "1")
    project = make.project(owner, hare, count=10)
    for making in (begin_making(owner, project.pk) for _ in range(10)):
        entry = take_thing(owner, MakingThing.objects.get(making=making).pk, press=make.press())
        amounts = list(entry.movements.values_list("amount", flat=True))
        assert sum(amounts) == -2
        assert all(amount < 0 for amount in amounts)
    thing = MakingThing.objects.get(making=begin_making(owner, make.project(owner, hare).pk))
    refused("1 piece free, and it takes 2 pieces. Count", take_thing, owner, thing.pk, press=make.press())


def test_members_and_links(owner, studio):
    tove = make.member(studio)
    refused("what the member may do", change_role, owner, tove.pk, "king")
    refused("what the new member may do", make_join_link, owner, "king")
    link = Link.objects.get(token_hash=hashed(make_join_link(owner, "maker")))
    refused("taken", follow_link, link, username="TOVE", name="Tove", password="reeds and rushes")
    assert follow_link(link, username="una", name="Una", password="reeds and rushes").username == "una"
    refused("used already", follow_link, link, username="ada", name="Ada", password="reeds and rushes")
    link = Link.objects.get(token_hash=hashed(make_password_link(owner, tove.pk)))
    tove.user.set_password("another one of mine")
    tove.user.save()
    refused("holds no longer", follow_link, link, password="reeds and rushes")
    assert new_user("n" * 200, "m " * 200, "reeds and rushes").username == "n" * 150


def test_wool_is_wool(owner, moss):
    entry = pull(owner, moss.pk, D(1), press=make.press())
    assert entry.movements.get().lot.item.kind == FIBRE
