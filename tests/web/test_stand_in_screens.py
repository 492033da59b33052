"""From a shortage to what stands in for it: answers, the press, makings that follow, and the way back."""

import re
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.take import take
from wembit.web.bench.models import PieceLayer
from wembit.web.figures.actions.add_layer import add_layer
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Choice
from wembit.web.plan.models import Need, StandIn
from wembit.web.plan.queries import shorts_by_project
from wembit.web.stash.models import Entry, Lot
from wembit.web.studio.models import VIEWER, Studio


@shared
def snails(maker, owner):
    """Ten balls of moss right through, of which the shelf holds too little; other greens lie free."""
    moss = make.lot(owner, "moss", "8", srgb="#6f7d43")
    for name, srgb in (("samphire", "#8c9b4a"), ("olive", "#7a7a3c"), ("pine", "#34503d")):
        make.lot(owner, name, "60", srgb=srgb)
    return make.project(owner, make.figure(owner, fibre=moss), count=10)


def short_of(project) -> list[tuple[str, float]]:
    found = shorts_by_project(Studio.objects.get(pk=project.studio_id)).get(project.pk, [])
    return [(need.item_name, float(need.short)) for need in found]


def page_of(client, project):
    need = project.needs.get()
    return get(client, f"restock/project/{project.pk}/{need.item_id}/"), need


def form_of(page, text):
    """The hidden fields of the answer whose words hold that text."""
    answer = next(word for word in page.split('<section class="answer">')[1:] if text in words(word))
    return dict(re.findall(r'<input type="hidden" name="(\w+)" value="([^"]*)"', answer.split("<form")[1]))


def accept(client, project, page, text):
    return post(client, f"restock/project/{project.pk}/{project.needs.first().item_id}/accept/", **form_of(page, text))


def test_a_shortage_has_three_answers_of_different_kinds(client, owner, snails):
    make.offer(owner, snails.needs.get().item)
    page, need = page_of(client, snails)
    first = page.split('<section class="answer">')[1:4]
    kinds = [next(kind for kind in ("carded together", "Buy it", "instead") if kind in words(each)) for each in first]
    assert len(set(kinds)) == 3
    assert "so that no figure changes its colour half way" in words(page)
    assert "What can stand in?" in get(client, f"plan/{snails.pk}/")
    assert "What can stand in?" in get(client, f"restock/item/{need.item_id}/")


def test_a_wool_whose_colour_nobody_told_has_answers_too(client, owner):
    plain = make.lot(owner, "plain", "8", srgb="")
    make.offer(owner, plain.item)
    project = make.project(owner, make.figure(owner, fibre=plain), count=10)
    page, _ = page_of(client, project)
    assert "Buy it" in words(page)
    assert 'fill="#cfcfcf"' in page


def test_a_wool_stands_in_and_the_shortage_is_gone(client, snails):
    assert short_of(snails)
    page, need = page_of(client, snails)
    answer = accept(client, snails, page, "olive instead")
    assert answer.status_code == 302
    assert not short_of(snails)
    other = Need.objects.get(project=snails, item__name="olive")
    made = StandIn.objects.get()
    need.refresh_from_db()
    assert other.p50 == pytest.approx(made.moved * D(str(made.ratio)), abs=D("0.01"))
    assert need.p50 > 0
    assert made.count < 10, "the moss there is goes into the first ones"
    assert "olive stands in for moss where it is seen, in the last" in words(get(client, f"plan/{snails.pk}/"))
    assert not Choice.objects.filter(item=other.item).exists(), "the figure stays as it is"


def test_taken_back_everything_is_as_before(client, snails):
    before, short = snails.needs.get(), short_of(snails)
    page, _ = page_of(client, snails)
    accept(client, snails, page, "olive instead")
    answer = post(client, f"restock/stand-in/{StandIn.objects.get().pk}/take-back/")
    after = snails.needs.get()
    assert answer.status_code == 302
    assert after.item == before.item
    assert after.p50 == pytest.approx(before.p50, abs=D("0.01"))
    assert after.p90 == pytest.approx(before.p90, abs=D("0.02"))
    assert short_of(snails) == [(short[0][0], pytest.approx(short[0][1], abs=0.01))]
    again = post(client, f"restock/stand-in/{StandIn.objects.get().pk}/take-back/", follow=True)
    assert "taken back already" in again.content.decode()


def test_a_blend_is_carded_and_used_in_one_press(client, studio, snails):
    page, _ = page_of(client, snails)
    assert accept(client, snails, page, "carded together: same to the eye").status_code == 302
    made = Lot.objects.of(studio).select_related("item").get(item__breed="mixed")
    need = Need.objects.get(project=snails, item=made.item)
    assert not short_of(snails)
    assert made.on_hand == pytest.approx(need.p90, abs=D("0.01")), "as much as nine in ten makings take of the batt"
    assert made.promises.get().need == need.pk


def test_z_does_not_take_the_wool_of_an_answer_away_and_leave_the_answer(client, studio, snails):
    page, _ = page_of(client, snails)
    assert accept(client, snails, page, "carded together: same to the eye").status_code == 302
    count = Entry.objects.count()
    assert "an answer to a shortage" in text(post(client, "undo/", follow=True))
    assert Entry.objects.count() == count and not StandIn.objects.exists(), "first the answer, then its wool"
    post(client, "undo/")
    assert Entry.objects.count() == count + 1


def test_one_batch_is_carded_for_all_projects_that_are_short_of_it(client, owner, studio, snails):
    moss = Lot.objects.get(item__name="moss")
    frogs = make.project(owner, make.figure(owner, name="Frog", fibre=moss), count=3, name="Frog fair")
    assert short_of(snails)
    assert short_of(frogs)
    page, _ = page_of(client, snails)
    assert "one batch for Market and Frog fair" in words(page)
    assert "Only for Market" in page
    assert accept(client, snails, page, "carded together: same to the eye").status_code == 302
    assert not short_of(snails)
    assert not short_of(frogs)
    made = Lot.objects.of(studio).get(item__breed="mixed")
    needs = Need.objects.filter(item=made.item)
    assert needs.count() == 2
    assert made.on_hand == pytest.approx(sum(need.p90 for need in needs), abs=D("0.01"))
    assert {str(row.project) for row in StandIn.objects.all()} == {str(snails), str(frogs)}


def test_a_batch_may_be_for_one_project_alone(client, owner, studio, snails):
    frogs = make.project(
        owner, make.figure(owner, name="Frog", fibre=Lot.objects.get(item__name="moss")), count=3, name="Frog fair"
    )
    need = snails.needs.get()
    page = get(client, f"restock/project/{snails.pk}/{need.item_id}/?only=1")
    assert "One batch for all" in page
    assert "one batch for Market" not in words(page)
    assert accept(client, snails, page, "carded together: same to the eye").status_code == 302
    assert not short_of(snails)
    assert short_of(frogs)
    assert StandIn.objects.count() == 1


def test_makings_begun_later_take_the_stand_in_and_the_first_ones_do_not(client, owner, snails):
    page, need = page_of(client, snails)
    accept(client, snails, page, "olive instead")
    plain = 10 - StandIn.objects.get().count
    for number in range(1, plain + 2):
        making = begin_making(owner, snails.pk)
        layer = PieceLayer.objects.get(piece__making=making)
        assert layer.item.name == ("moss" if number <= plain else "olive")
    assert layer.instead_of == need.item
    assert layer.need == Need.objects.get(item__name="olive").pk


def test_what_is_in_hand_follows_where_nothing_was_taken_yet(client, owner, snails):
    making = begin_making(owner, snails.pk)
    planned = PieceLayer.objects.get(piece__making=making).rule_g
    page, need = page_of(client, snails)
    given = form_of(page, "olive instead") | {"count": "10"}
    post(client, f"restock/project/{snails.pk}/{need.item_id}/accept/", **given)
    layer = PieceLayer.objects.get(piece__making=making)
    assert layer.item.name == "olive"
    StandIn.objects.update(ratio=1.25)  # as where the other wool is thicker
    PieceLayer.objects.update(rule_g=1.25 * planned)
    post(client, f"restock/stand-in/{StandIn.objects.get().pk}/take-back/")
    layer.refresh_from_db()
    assert layer.item.name == "moss"
    assert layer.instead_of is None
    assert layer.rule_g == pytest.approx(planned)


def test_what_was_taken_for_stays_what_it_is(client, owner, snails):
    making = begin_making(owner, snails.pk)
    layer = PieceLayer.objects.get(piece__making=making)
    take(owner, layer.pk, Lot.objects.get(item__name="moss").pk, D("1.5"), press=make.press())
    page, _need = page_of(client, snails)
    accept(client, snails, page, "olive instead")
    layer.refresh_from_db()
    assert layer.item.name == "moss"


def test_for_an_inside_scrap_goes_before_core_and_nothing_is_carded(client, owner):
    """Whatever the colours: locks and silk never, a dark fleece with the cover that it takes more, and a warning."""
    core = make.lot(owner, "core", "6", form="core", srgb="#e9e2d2")
    chalk = make.lot(owner, "chalk", "90", srgb="#f1ede3")
    for name, form, srgb in (("offcuts", "scrap", "#e2dccd"), ("curls", "locks", "#e9e2d2"), ("pale batt", "batt", "#e6dfcf"),
                             ("dark fell", "fleece", "#3a302a"), ("cream top", "tops", "#e9e2d2")):  # fmt: skip
        make.lot(owner, name, "200", form=form, srgb=srgb)
    figure = make.figure(owner, fibre=core, length=50)
    add_layer(owner, figure.pk, "ball", "cover", "skin")
    choose_fibre(owner, figure.pk, "skin", chalk.item_id)
    project = make.project(owner, figure, count=2)
    need = next(need for need in project.needs.all() if not need.seen)
    page = get(client, f"restock/project/{project.pk}/{need.item_id}/")
    told = [words(each) for each in page.split('<section class="answer">')[1:]]
    stands = [each for each in told if "instead" in each]
    assert "offcuts" in stands[0]
    assert not any("carded together" in each for each in told)
    assert not any("curls" in each or "cream top" in each for each in told)
    dark = next(each for each in stands if "dark fell" in each)
    assert "chalk over it takes" in dark
    assert "dark fibres may creep out" in dark
    assert "creep" not in next(each for each in stands if "pale batt" in each)


def test_what_does_not_felt_is_no_skin(client, owner, snails):
    silk = make.lot(owner, "silk", "90", srgb="#6f7d44")
    silk.item.breed = "silk"
    silk.item.save()
    make.lot(owner, "green core", "90", form="core", srgb="#6f7d43")
    page = page_of(client, snails)[0]
    assert "silk" not in words(page)
    assert "green core" not in words(page)
    blend = next(each for each in page.split('<section class="answer">') if "carded together" in words(each))
    assert "of hand carders, about" in words(blend)


def test_the_wool_is_kept_for_what_shows(client, owner):
    moss = make.lot(owner, "moss", "6", srgb="#6f7d43")
    make.lot(owner, "core", "300", form="core", srgb="#e9e2d2")
    figure = make.figure(owner, fibre=moss, length=40)
    add_layer(owner, figure.pk, "ball", "cover", "main")
    choose_fibre(owner, figure.pk, "main", moss.item_id)
    project = make.project(owner, figure, count=2)
    page = get(client, f"restock/project/{project.pk}/{moss.item_id}/")
    assert "so that the moss stays for what shows" in words(page)
    answer = accept(client, project, page, "so that the moss stays")
    assert answer.status_code == 302
    assert StandIn.objects.get().seen is False


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"count": "0"}, "Choose an answer"),
        ({"count": "99"}, "Choose for how many"),
        ({"new": "none"}, "Choose an answer"),
        ({"recipe": "x", "grams": "3"}, "cannot be read"),
        ({"grams": "1e9999"}, "Choose an answer"),
    ],
)
def test_a_press_that_cannot_be_is_told(client, snails, change, said):
    page, need = page_of(client, snails)
    given = form_of(page, "olive instead") | change
    assert said in told(post(client, f"restock/project/{snails.pk}/{need.item_id}/accept/", **given))
    assert not StandIn.objects.exists()


def test_how_many_can_be_asked_for_and_nonsense_is_passed_over(client, snails):
    need = snails.needs.get()
    base = f"restock/project/{snails.pk}/{need.item_id}/"
    assert "all 10 of Market" in words(get(client, base + "?count=10"))
    assert "the last" in words(get(client, base + "?count=some"))


def test_a_viewer_reads_the_answers_and_presses_nothing(studio, snails, client):
    page, need = page_of(client, snails)
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    seen = get(viewer, f"restock/project/{snails.pk}/{need.item_id}/")
    assert "olive" in seen
    assert "Use it" not in seen
    base = f"restock/project/{snails.pk}/{need.item_id}/accept/"
    given = form_of(page, "olive instead")
    del given["hand"]  # which the viewer's own page would not name
    assert post(viewer, base, **given).status_code == 403


def test_another_studios_wool_does_not_stand_in(client, snails):
    theirs = make.lot(make.studio_owner("Dune", "ana"), "theirs")
    page, need = page_of(client, snails)
    given = form_of(page, "olive instead") | {"new": str(theirs.item_id)}
    assert post(client, f"restock/project/{snails.pk}/{need.item_id}/accept/", **given).status_code == 404


@shared
def balls(maker, owner):
    """Two white balls under rust, which hides white only where it is thick; brick, much like it, lies free."""
    rust = make.lot(owner, "rust", "1", srgb="#a8502c")
    make.lot(owner, "brick", "60", srgb="#a33a2a")
    make.lot(owner, "core", "300", form="core", srgb="#e9e2d2")
    figure = make.figure(owner, fibre=make.lot(owner, "white", "90", srgb="#f1ede3"), length=60)
    add_layer(owner, figure.pk, "ball", "cover", "skin")
    choose_fibre(owner, figure.pk, "skin", rust.item_id)
    return make.project(owner, figure, count=2)


def under_it(client, project, **changed):
    """The page of what is short, and the press that lays the thin layer under it."""
    rust = project.needs.get(item__name="rust").item_id
    page = get(client, f"restock/project/{project.pk}/{rust}/?count=2")
    return page, lambda: post(
        client, f"restock/project/{project.pk}/{rust}/accept/", **(form_of(page, "thin layer") | changed)
    )


def layers_of(making) -> list[tuple[str, bool, float]]:
    rows = PieceLayer.objects.filter(piece__making=making).order_by("position").select_related("item")
    return [(layer.item.name, layer.seen, round(layer.rule_g, 6)) for layer in rows]


def test_a_thin_layer_under_a_cover_saves_what_is_said(client, balls):
    before, short = balls.needs.get(item__name="rust"), dict(short_of(balls))["rust"]
    page, lay = under_it(client, balls)
    taken, saved = map(float, re.search(
        r"brick as a thin layer under the rust, ([\d.]+) g: it saves ([\d.]+) g of rust", words(page)).groups())  # fmt: skip
    assert saved > 0.5
    assert lay().status_code == 302
    assert StandIn.objects.get().under
    rust, brick = balls.needs.get(item__name="rust"), balls.needs.get(item__name="brick")
    assert float(before.p50 - rust.p50) == pytest.approx(saved, abs=0.06)
    assert rust.seen
    assert float(brick.p50) == pytest.approx(taken, abs=0.06)
    assert not brick.seen
    assert "brick lies thinly under rust" in words(get(client, f"plan/{balls.pk}/"))
    assert dict(short_of(balls)).get("rust", 0) == pytest.approx(max(0, short - saved), abs=0.06)
    assert Lot.objects.get(item__name="brick").promises.get()


def test_a_blend_is_carded_for_what_the_cover_takes_of_it(client, owner, balls):
    for name, srgb in (("brick red", "#c0392b"), ("tan", "#8f6a3c"), ("chestnut", "#6e3b23"), ("orange", "#d0702c")):
        make.lot(owner, name, "60", srgb=srgb)
    rust = balls.needs.get(item__name="rust")
    page = get(client, f"restock/project/{balls.pk}/{rust.item_id}/?count=2")
    post(client, f"restock/project/{balls.pk}/{rust.item_id}/accept/", **form_of(page, "carded together"))
    made, stand_in = Lot.objects.get(item__breed="mixed"), StandIn.objects.get()
    need = Need.objects.get(project=balls, item=made.item)
    assert abs(stand_in.ratio - 1) > 0.02, "a mixed batt covers unlike the merino that is short"
    assert made.on_hand == pytest.approx(need.p90, abs=D("0.01"))


def test_a_wool_that_covers_worse_has_to_hold_more_to_be_an_answer(client, owner, balls):
    rust = balls.needs.get(item__name="rust")
    address = f"restock/project/{balls.pk}/{rust.item_id}/?count=2"
    salmon = make.lot(owner, "salmon", f"{rust.p50 + D('0.05'):.2f}", srgb="#bb6440")
    assert "salmon instead" not in words(get(client, address)), "as much as of the rust, but it does not hide the white"
    post(client, f"stash/lot/{salmon.pk}/weigh/", amount=f"{rust.p50 * 3:.2f}")
    page = get(client, address)
    said = float(re.search(r"salmon instead: .*?, ([\d.]+) g of [\d.]+ g free", words(page))[1])
    assert said > float(rust.p50) * 1.02
    post(client, f"restock/project/{balls.pk}/{rust.item_id}/accept/", **form_of(page, "salmon instead"))
    need = Need.objects.get(project=balls, item=salmon.item)
    assert float(need.p50) == pytest.approx(said, abs=0.051), (
        "what is said is what the plan then needs, as it is rounded"
    )


def test_makings_have_the_thin_layer_before_the_cover_and_lose_it_again(client, owner, balls):
    first = begin_making(owner, balls.pk)
    plain = layers_of(first)
    _, lay = under_it(client, balls)
    lay()
    second = begin_making(owner, balls.pk)
    assert layers_of(first) == layers_of(second), "in hand and begun later are alike"
    assert [(name, seen) for name, seen, _ in layers_of(second)] == [("white", False), ("brick", False), ("rust", True)]
    made = StandIn.objects.get()
    assert layers_of(second)[2][2] == pytest.approx(plain[1][2] * made.remains)
    assert layers_of(second)[1][2] == pytest.approx(plain[1][2] * (1 - made.remains) * made.ratio)
    brick, rust = (balls.needs.get(item__name=name) for name in ("brick", "rust"))
    total = sum(grams for making in (first, second) for name, _, grams in layers_of(making) if name == "brick")
    assert total == pytest.approx(float(brick.p50), rel=0.15), "the allowance apart, the need is that of the makings"
    post(client, f"restock/stand-in/{made.pk}/take-back/")
    assert layers_of(first) == layers_of(second) == plain
    assert not balls.needs.filter(item__name="brick").exists()
    assert balls.needs.get(pk=rust.pk).p50 > rust.p50


def test_each_of_two_covers_gets_its_own_layer_and_loses_it_again(client, owner, balls):
    figure = balls.colourway.version.figure
    add_layer(owner, figure.pk, "ball", "cover", "skin")
    rust = Lot.objects.get(item__name="rust")
    choose_fibre(owner, figure.pk, "skin", rust.item_id)
    twice = make.project(owner, figure, count=1, name="Twice")
    making = begin_making(owner, twice.pk)
    plain = layers_of(making)
    assert [name for name, *_ in plain] == ["white", "rust", "rust"]
    page = get(client, f"restock/project/{twice.pk}/{rust.item_id}/")
    given = form_of(page, "thin layer")
    assert post(client, f"restock/project/{twice.pk}/{rust.item_id}/accept/", **given).status_code == 302
    assert [name for name, *_ in layers_of(making)] == ["white", "brick", "rust", "brick", "rust"]
    post(client, f"restock/stand-in/{StandIn.objects.get().pk}/take-back/")
    assert layers_of(making) == plain


def test_a_second_layer_under_it_or_one_that_saves_nothing_is_told(client, owner, balls):
    white = Lot.objects.get(item__name="white").item_id
    _, lay = under_it(client, balls, new=str(white))
    assert "would save nothing" in lay().content.decode()
    assert not StandIn.objects.exists()
    page, lay = under_it(client, balls)
    given = form_of(page, "thin layer")
    lay()
    again = post(client, f"restock/project/{balls.pk}/{StandIn.objects.get().old_id}/accept/", **given)
    assert again.status_code == 302 and StandIn.objects.count() == 1, "the same press twice"
    other = make.lot(owner, "fox", "60", srgb="#a5442b").item_id
    told_ = post(
        client, f"restock/project/{balls.pk}/{StandIn.objects.get().old_id}/accept/",
        **(given | {"new": str(other), "key": "another", "count": "1", "short": ""}),
    )  # fmt: skip
    assert "lies under it already" in told_.content.decode()
    assert StandIn.objects.count() == 1


def test_where_all_of_it_is_stood_in_for_nothing_is_left_to_answer(client, snails):
    page, need = page_of(client, snails)
    base = f"restock/project/{snails.pk}/{need.item_id}/"
    post(client, base + "accept/", **form_of(page, "olive instead") | {"count": "10"})
    need.refresh_from_db()
    assert need.p50 == 0
    assert "takes no more moss" in words(get(client, base))


def test_the_same_press_twice_stands_in_once(client, snails):
    page, need = page_of(client, snails)
    given = form_of(page, "carded together") | {"count": "3"}
    for _ in range(2):
        assert post(client, f"restock/project/{snails.pk}/{need.item_id}/accept/", **given).status_code == 302
    assert StandIn.objects.get().count == 3
    assert Lot.objects.filter(item__breed="mixed").count() == 1
