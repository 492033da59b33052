"""One truth: what is left, short, on its way or unknown is the same in figure, plan, pull list, bench and restock."""

import re
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.core.craft.materials import SMALLEST_PIECE_G
from wembit.core.grams.estimate import Range
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.finish_making import finish_making
from wembit.web.bench.actions.take import take
from wembit.web.bench.models import PieceLayer
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Layer, Part
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure, sums
from wembit.web.plan.queries import needs_of, open_needs
from wembit.web.restock.actions.put_on_list import put_on_list
from wembit.web.restock.actions.send_order import send_order
from wembit.web.restock.models import Order
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.models import Promise


@shared
def moss(owner):
    return make.lot(owner, "moss", "100")


@shared
def project(owner, moss):
    return make.project(owner, make.figure(owner, fibre=moss, length=60), count=3, start=0)


def line_of(project):
    (line,) = needs_of(project)
    return line


def layer_of(making) -> PieceLayer:
    return PieceLayer.objects.get(piece__making=making)


def shown(low: float, high: float) -> str:
    places = 1 if high >= 10 else 2
    return f"{low:.{places}f}–{high:.{places}f} g"


def test_what_is_left_has_its_own_range_in_every_room(client, owner, project, moss):
    making = begin_making(owner, project.pk)
    layer = layer_of(making)
    whole = line_of(project).need
    take(owner, layer.pk, moss.pk, D("10"), press=make.press())
    line = line_of(project)
    left = whole.p50 - 10
    assert line.left == left
    share = float(left / whole.p50)
    low, high = float(whole.p10) * share, float(whole.p90) * share
    assert (line.need.rest.p10, line.need.rest.p90) == (pytest.approx(low), pytest.approx(high))
    assert f"to go ({shown(low, high)})" in words(get(client, f"plan/{project.pk}/"))
    assert f"({shown(low, high)})" in words(get(client, f"restock/item/{moss.item_id}/"))
    (pull_,) = line.pulls
    assert pull_.promise.amount == left
    assert float(pull_.up_to) == pytest.approx(high, abs=2e-3)
    rest = Range.of(layer.rule_g, layer.sigma).less(10)
    assert f"ten {shown(rest.p10, rest.p90)} more" in words(get(client, f"bench/{making.pk}/?layer={layer.pk}"))


def test_several_bags_share_the_room_above_the_middle(client, owner, moss):
    project = make.project(owner, make.figure(owner, fibre=moss, length=60), count=6)
    need = line_of(project).need
    recount(owner, moss.pk, need.p50 - 20, press=make.press())
    make.lot(owner, "moss", "24")
    pulls = line_of(project).pulls
    assert sum(pull_.promise.amount for pull_ in pulls) == need.p50
    assert sum(pull_.up_to for pull_ in pulls) == need.p50 + 4, "no bag gives more than it holds"
    assert all(pull_.up_to <= pull_.promise.lot.on_hand for pull_ in pulls)
    page = words(get(client, f"plan/{project.pk}/pull-list/"))
    assert page.count("24") >= 1


def test_a_bag_that_nobody_weighed_is_the_first_answer(client, owner, moss):
    project = make.project(owner, make.figure(owner, fibre=moss, length=60), count=12)
    unknown = make.lot(owner, "moss", None, drawer="C4")
    assert line_of(project).short > 0
    for address in (f"plan/{project.pk}/", f"restock/item/{moss.item_id}/"):
        page = words(get(client, address))
        assert "Weigh the bag you have" in page, address
        assert "drawer C4" in page, address
    page = get(client, f"restock/project/{project.pk}/{moss.item_id}/")
    first = page[page.index('class="answer"') :]
    assert "Weigh the bag you have" in first[: first.index("</section>")]
    assert f"/stash/lot/{unknown.pk}/" in first[: first.index("</section>")]
    recount(owner, unknown.pk, D("900"), press=make.press())
    assert "Weigh the bag" not in words(get(client, f"plan/{project.pk}/"))
    assert line_of(project).short == 0


def test_what_nobody_weighed_is_unknown_in_every_room(client, owner):
    """Not nothing: no room says 0 g of it, and before any order comes the scale."""
    heap = make.lot(owner, "heap", None)
    some = make.lot(owner, "some", "2")
    make.lot(owner, "some", None)
    thread = make.notion_lot(owner, "linen", None, notion="thread", unit="mm")
    figure = make.figure(owner, fibre=heap, length=60)
    project = make.project(owner, figure, count=3)
    rooms = {
        "figure": f"figures/{figure.pk}/", "how big": f"figures/{figure.pk}/size/", "list": f"figures/{figure.pk}/list/",
        "plan": f"plan/{project.pk}/", "its list": f"plan/{project.pk}/list/", "pull list": f"plan/{project.pk}/pull-list/",
        "restock": "restock/", "shortage": f"restock/item/{heap.item_id}/", "fibre": f"stash/fibre/{heap.item_id}/",
        "bag": f"stash/lot/{heap.pk}/", "shelf": "stash/", "deeds": "deeds/",
        "notions": "stash/notions/", "walk": "stash/walk/", "today": "",
    }  # fmt: skip
    pages = {room: words(get(client, at)) for room, at in rooms.items()}
    for room, page in pages.items():
        assert not re.search(r"(?<![\d.])0 ?(g|mm)\b", page), room
    for room in ("how big", "list", "its list", "pull list", "restock", "shortage", "fibre", "bag", "shelf"):
        assert "not weighed" in pages[room], room
    assert "heap, Merino tops (not weighed)" in pages["figure"]
    assert "some, Merino tops (2 g free, one not weighed)" in pages["figure"]
    assert "not measured" in pages["notions"]
    assert "weigh it first" in pages["list"] and "weigh it first" in pages["its list"]
    assert "weigh it first" in pages["restock"] and "Nobody sells" not in pages["restock"]
    assert re.search(r"heap runs out [^:]+ more hold it: weigh it first", pages["today"])
    assert "weigh 1 first" in pages["today"], "the strip"
    assert "2 g weighed, 4 lots" in pages["today"], "the strip"
    assert post(client, f"stash/lot/{heap.pk}/weigh/", amount="500").status_code == 302
    for room in ("how big", "list", "its list", "pull list", "restock", "shortage", "fibre"):
        page = words(get(client, rooms[room]))
        assert "not weighed" not in page and "weigh it first" not in page, room
    assert "nothing to order" in words(get(client, ""))
    assert thread.unweighed and some.weighed


def test_a_bag_to_weigh_sets_no_limit_to_how_big(client, owner):
    heap, moss = make.lot(owner, "heap", None), make.lot(owner, "moss", "1")
    figure = figure_with(client, "Hare", ("body", "30"))
    choose_fibre(owner, figure.pk, "core", heap.item_id)
    page = told(client.get(f"{client.base}figures/{figure.pk}/size/?way=shelf"))
    assert "No bag of its wools is weighed" in page
    choose_fibre(owner, figure.pk, "main", moss.item_id)
    page = words(get(client, f"figures/{figure.pk}/size/?way=shelf"))
    assert "moss sets the limit" in page
    assert "Sets no limit, since a bag of it is not weighed: heap." in page


def test_what_a_bag_says_of_its_promises_adds_up(client, owner, moss):
    for _ in range(3):
        make.project(owner, make.figure(owner, f"Pebble {_}", 11.0 + _ / 3, moss), count=3)
    page = words(get(client, f"stash/lot/{moss.pk}/"))
    rows = [D(amount) for amount in re.findall(r"([\d.]+) g for Market", page)]
    (promised,) = re.findall(r"([\d.]+) g promised", page)
    (free,) = re.findall(r"([\d.]+) g free", page)
    assert len(rows) == 3
    assert sum(rows) == D(promised)
    assert D(promised) + D(free) == 100


def test_seen_and_hidden_come_out_of_the_same_bag(client, owner):
    figure = figure_with(client, "Hare", ("body", "60"))
    wool = make.lot(owner, "fawn", "1000")
    for slot in ("core", "main"):
        choose_fibre(owner, figure.pk, slot, wool.item_id)
    version = newest_version(figure)
    needs = sums(plan_figure(version, parts_of(version), Palette.of(colourway_of(version))))
    core, cover = (need.grams.p50 for need in needs)
    recount(owner, wool.pk, D(str(round(core + cover / 2, 3))), press=make.press())
    assert words(get(client, f"figures/{figure.pk}/list/")).count("short") == 1


def test_plan_answers_and_top_bar_know_the_same_lists_and_parcels(client, owner, moss):
    project = make.project(owner, make.figure(owner, fibre=moss, length=60), count=12, start=20)
    assert "nobody sells 1 yet" in words(get(client, "plan/"))
    assert "Nobody sells it yet" in words(get(client, "restock/"))
    assert "nobody sells it" in words(get(client))
    offer = make.offer(owner, moss.item, "500")
    owner.studio.pressed()
    assert "order 1 by" in words(get(client, "plan/"))
    put_on_list(owner, {offer.pk: 1})
    owner.studio.pressed()
    assert "a list to send" in words(get(client, "plan/"))
    assert "500 g on a list that is not sent yet" in words(get(client, f"plan/{project.pk}/"))
    answers = words(get(client, f"restock/project/{project.pk}/{moss.item_id}/"))
    assert "Send the list: 500 g" in answers
    assert "Buy it" not in answers, "it is on the list already"
    send_order(owner, Order.objects.get().pk)
    owner.studio.pressed()
    assert "500 g on the way" in words(get(client, f"plan/{project.pk}/"))
    answers = words(get(client, f"restock/project/{project.pk}/{moss.item_id}/"))
    assert "Wait for the parcel: 500 g" in answers
    assert "in time" in answers
    assert "nothing to order" in words(get(client, "restock/"))


def test_an_opened_bag_is_used_before_a_whole_one(owner):
    whole, opened = make.lot(owner, "moss", "80"), make.lot(owner, "moss", "85")
    pull(owner, opened.pk, D("5"), press=make.press())
    make.project(owner, make.figure(owner, fibre=whole, length=60), count=1)
    assert {promise.lot_id for promise in Promise.objects.all()} == {opened.pk}


def test_a_promise_does_not_make_a_bag_an_opened_one(owner):
    first, second = make.lot(owner, "moss", "80"), make.lot(owner, "moss", "60")
    figure = make.figure(owner, fibre=first, length=60)
    make.project(owner, figure, count=1)
    held = set(Promise.objects.values_list("lot", flat=True))
    assert held == {second.pk}, "the fuller use of a bag"
    pull(owner, first.pk, D("1"), press=make.press())
    later = make.project(owner, figure, count=1, days=40)
    assert set(Promise.objects.filter(need=line_of(later).need.pk).values_list("lot", flat=True)) == {first.pk}
    assert {promise.lot_id for promise in Promise.objects.filter(due__lt=later.due)} == held, "what stands is kept"


def test_the_plan_says_what_is_begun_and_what_is_finished(client, owner, project):
    finish_making(owner, begin_making(owner, project.pk).pk, press=make.press(), unweighed="planned")
    begin_making(owner, project.pk)
    assert "2 begun, 1 of them finished" in words(get(client, f"plan/{project.pk}/"))


# --- the figure -----------------------------------------------------------------------------------------------------


@shared
def snail(maker, owner, moss):
    figure = figure_with(maker, "Snail", ("body", "60"), ("head", "20"))
    post(maker, f"figures/{figure.pk}/part/body/layer/", role="cover", new_slot="skin")
    chalk = make.lot(owner, "chalk", "100", srgb="#f2eee4")
    for slot in newest_version(figure).slots.all():
        choose_fibre(owner, figure.pk, slot.name, chalk.item_id if slot.name == "skin" else moss.item_id)
    return figure


def planned(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))


def cover_of(figure):
    return next(
        layer for layer in planned(figure).layers() if layer.layer.slot.name == "skin" and layer.layer.role == "cover"
    )


def test_a_cover_lies_on_the_core_that_is_there_now(client, owner, snail, moss):
    over_moss = cover_of(snail).grams.cover_g_m2
    assert over_moss > 60
    core = Layer.objects.get(part__key="body", role="core")
    post(client, f"figures/{snail.pk}/part/body/layer/{core.position}/", slot="skin")
    assert Layer.objects.get(part__key="body", role="core").slot.name == "skin"
    assert cover_of(snail).grams.cover_g_m2 == 60, "on wool of its own colour the least is enough"


def test_a_part_without_wool_is_pointed_at_and_nothing_is_joined_to_it(client, snail):
    assert "Join head to body" in words(get(client, f"figures/{snail.pk}/order/"))
    for layer in Layer.objects.filter(part__key="body").order_by("-position"):
        post(client, f"figures/{snail.pk}/part/body/layer/{layer.position}/drop/")
    assert not Part.objects.get(key="body").layers.exists()
    page = words(get(client, f"figures/{snail.pk}/"))
    assert "body: it has no wool. There is nothing to join head to." in page
    assert "Join head" not in words(get(client, f"figures/{snail.pk}/order/"))


def test_no_layer_takes_less_than_the_smallest_piece_in_any_room(client, owner, snail, moss):
    straw = make.lot(owner, "straw", "10", srgb="#d9b95b")
    post(client, f"figures/{snail.pk}/part/head/layer/", role="detail", new_slot="dot")
    at = Layer.objects.get(slot__name="dot").position
    post(client, f"figures/{snail.pk}/part/head/layer/{at}/", kind="spots", spots="1", across_mm="1")
    choose_fibre(owner, snail.pk, "dot", straw.item_id)
    dot = next(layer for layer in planned(snail).layers() if layer.layer.slot.name == "dot")
    assert dot.grams.middle == pytest.approx(SMALLEST_PIECE_G)
    project = make.project(owner, snail, count=2)
    (need,) = open_needs(owner.studio, project=project, item=straw.item_id)
    assert (need.p10, need.p50) == (D("0.040"), D("0.040")), "the range is never below it"
    assert need.promised == D("0.040")
    assert "straw" in words(get(client, f"plan/{project.pk}/pull-list/"))
    making = begin_making(owner, project.pk)
    layer = PieceLayer.objects.get(piece__making=making, item=straw.item_id)
    page = words(get(client, f"bench/{making.pk}/?layer={layer.pk}"))
    assert "0.02 g" in page
    assert re.search(r"ten 0\.02–0\.0\d g", page)
