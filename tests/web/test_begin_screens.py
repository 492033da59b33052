"""A figure begun from a body plan, or like another one: drawn, weighed and kept as it was asked for."""

import json
import re
import uuid

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import forms_of
from tests.web.helpers import get, post, text, title, told, words
from tests.web.shared import shared
from wembit.core.body_plans.every_plan import PLANS
from wembit.web.figures.actions.add_colourway import add_colourway
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.copy_figure import copy_figure
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.files.figure_file import figure_as_json
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.studio.models import Deed

FOX, CREAM = "#a9713f", "#e8dcc4"


@shared
def shelf(owner):
    return {
        name: make.lot(owner, name, "400", srgb=srgb)
        for name, srgb in {"rust": FOX, "cream": CREAM, "pitch": "#2a2420", "sea": "#3f6f78"}.items()
    }


def begin(client, address, **changes):
    """The page's own form, with what the maker changed."""
    form = next(form for form in forms_of(get(client, address)) if "size" in form.fields)
    return form.send(client, **changes)


def grams_of(figure) -> float:
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version))).all.p50


def high(figure) -> float:
    version = newest_version(figure)
    return pictures(version, parts_of(version), Palette.of(colourway_of(version)))["side"].tall


def said(page: str, what: str) -> float:
    return float(re.search(rf"([\d.]+) ?{what}", title(page)).group(1))


def test_every_body_is_offered_and_so_are_figures_of_ones_own(client, owner):
    figure = make.figure(owner, "Pebble")
    page = get(client, "figures/new/")
    for key, plan in PLANS.items():
        assert f"figures/new/{key}/" in page
        assert plan.name in page
    assert f"figures/{figure.pk}/like/" in page
    empty = client.post(client.base + "figures/new/", {"name": "Crab", "story": ""})
    assert empty.status_code == 302
    assert not newest_version(Figure.objects.get(name="Crab")).parts.exists()


@pytest.mark.sampled("bodies", 4)
@pytest.mark.parametrize("key", sorted(PLANS))
def test_every_body_stands_there_whole_after_one_press(client, shelf, key):
    address = f"figures/new/{key}/"
    page = get(client, address)
    answer = begin(client, address, name="Mine")
    assert answer.status_code == 302
    figure = Figure.objects.get(name="Mine")
    assert answer.url.endswith(f"figures/{figure.pk}/")
    assert newest_version(figure).parts.count() == len(PLANS[key].parts)
    assert grams_of(figure) == pytest.approx(said(page, "g\\b"), rel=0.01)
    whole = get(client, f"figures/{figure.pk}/")
    assert said(whole, "g\\b") == said(page, "g\\b"), "the same grams on both pages"
    assert "Lay out" in get(client, f"figures/{figure.pk}/order/") or "order" in words(whole)


def test_it_is_as_large_as_was_asked(client, shelf):
    begin(client, "figures/new/sitting/", name="Cat", size="200")
    assert high(Figure.objects.get(name="Cat")) == pytest.approx(200, abs=0.5)
    begin(client, "figures/new/sitting/", name="Kitten", size="", grams="12")
    assert grams_of(Figure.objects.get(name="Kitten")) == pytest.approx(12, abs=0.05)
    page = get(client, "figures/new/standing/?size=210")
    assert said(page, "mm long") == 210


def test_a_slider_moves_the_drawing_and_what_it_takes(client, shelf):
    plain, big = (get(client, f"figures/new/standing/?body={steps}") for steps in (0, 3))
    assert plain != big
    assert said(big, "g\\b") != said(plain, "g\\b")
    address = client.base + "figures/new/standing/?body=3"
    drawn, worked = (
        text(client.get(address, headers={"HX-Request": "true", "HX-Target": target})) for target in ("drawn", "worked")
    )
    assert "<html" not in drawn + worked
    svg = re.compile(r"<svg viewBox.*?</svg>", re.S)
    assert svg.findall(drawn) == svg.findall(big)[: len(svg.findall(drawn))]
    assert words(worked[worked.index("<small") :]).strip() in title(big), "what it takes follows into the heading"
    assert "takes-of" in worked
    assert "takes-of" not in drawn
    begin(client, "figures/new/standing/", name="Fox", head="3", legs="-2")
    parts = {part.key: part for part in parts_of(newest_version(Figure.objects.get(name="Fox")))}
    assert parts["head"].shape["length_mm"] / parts["body"].shape["stations"][-1][0] > 0.45


def test_without_script_see_it_draws_and_makes_nothing(client, shelf):
    answer = begin(client, "figures/new/standing/", tail="4", look="1")
    assert answer.status_code == 200
    assert 'value="4"' in text(answer)
    assert not Figure.objects.exists()
    assert not Deed.objects.filter(words__contains="begun").exists()


def test_slots_get_the_wool_that_comes_near_and_the_core_the_coarse_one(client, owner, shelf):
    make.lot(owner, "core", "900", form="batt", srgb="#c0c0c0")
    make.lot(owner, "curls", "900", form="locks", srgb=FOX)
    begin(client, "figures/new/standing/", name="Fox")
    way = colourway_of(newest_version(Figure.objects.get(name="Fox")))
    chosen = {choice.slot.name: choice.item.name for choice in way.choices.all()}
    assert chosen == {"core": "core", "coat": "rust", "belly": "cream", "dark": "pitch", "nose": "pitch"}


def test_in_an_empty_studio_it_is_drawn_in_the_colours_that_it_is_thought_of_in(client, owner):
    page = get(client, "figures/new/standing/")
    assert FOX in page
    assert "no wool like it yet" in words(page)
    begin(client, "figures/new/standing/", name="Fox")
    fox = Figure.objects.get(name="Fox")
    assert FOX in get(client, f"figures/{fox.pk}/")
    assert FOX in get(client, "figures/")
    copied = copy_figure(owner, fox.pk, "Vixen")
    assert FOX in get(client, f"figures/{copied.pk}/")
    kept = figure_as_json(fox)
    assert kept["colourways"][0]["thought"]["coat"] == FOX
    file = make_file({**kept, "name": "Cub"})
    assert client.post(client.base + "figures/take-in/", {"file": file}).status_code == 302
    assert FOX in get(client, f"figures/{Figure.objects.get(name='Cub').pk}/")
    lot = make.lot(owner, "grey", "50", srgb="#808890")
    post(client, f"figures/{fox.pk}/fibre/", item=str(lot.item_id), slot="coat")
    assert FOX not in get(client, f"figures/{fox.pk}/"), "its wool shows as it is"


def make_file(content):
    from django.core.files.uploadedfile import SimpleUploadedFile

    return SimpleUploadedFile("cub.json", json.dumps(content).encode())


def test_another_like_one_there_is_keeps_its_wools_and_changes_its_proportions(client, owner, shelf):
    begin(client, "figures/new/standing/", name="Fox", size="150")
    fox = Figure.objects.get(name="Fox")
    page = get(client, f"figures/{fox.pk}/like/?legs=4")
    assert "Fox 2" in page
    begin(client, f"figures/{fox.pk}/like/", legs="4")
    other = Figure.objects.get(name="Fox 2")
    legs = [
        next(part for part in parts_of(newest_version(figure)) if part.key == "foreleg").shape["length_mm"]
        / high(figure)
        for figure in (fox, other)
    ]
    assert legs[1] > legs[0] * 1.1
    fibres = [
        {choice.slot.name: choice.item_id for choice in colourway_of(newest_version(figure)).choices.all()}
        for figure in (fox, other)
    ]
    assert fibres[0] == fibres[1]


def test_another_like_one_there_is_keeps_all_its_colourways(client, owner, shelf):
    begin(client, "figures/new/standing/", name="Fox")
    fox = Figure.objects.get(name="Fox")
    add_colourway(owner, fox.pk, "winter")
    coat = newest_version(fox).slots.exclude(name="core").first().name
    choose_fibre(owner, fox.pk, coat, shelf["sea"].item_id, way="winter")
    begin(client, f"figures/{fox.pk}/like/", name="Vixen")

    def ways(figure):
        return {
            way.name: ({choice.slot.name: choice.item_id for choice in way.choices.all()}, len(way.thought))
            for way in newest_version(figure).colourways.all()
        }

    assert ways(Figure.objects.get(name="Vixen")) == ways(fox)
    assert ways(fox)["winter"][0][coat] == shelf["sea"].item_id


def test_another_like_it_keeps_what_is_told_of_it_and_says_before_what_it_will_be(client, owner, shelf):
    """Bells, thread, story, whose design it is, the ways of working; sizes that follow others; an odd wire."""
    begin(client, "figures/new/spider/", name="Spider", size="100")
    spider = Figure.objects.get(name="Spider")
    version = newest_version(spider)
    version.notions = [
        {"id": "a", "notion": "thread", "words": "for the web", "amount": 100.0, "part": "", "size_mm": None}
    ]
    version.order = {"off": ["x"]}
    version.save()
    spider.story, spider.origin = "It sits in the reed.", {"kind": "own", "sale": "yes"}
    spider.save()
    abdomen, legs = (version.parts.get(key=key) for key in ("abdomen", "leg"))
    abdomen.relations = [
        {"size": "length_mm", "of": "body", "of_size": "length_mm", "share": 2.0, "gap_mm": 5.0, "whole": False}
    ]
    legs.shape = {**legs.shape, "wire_mm": 0.9}
    for part in (abdomen, legs):
        part.save()
    address = f"figures/{spider.pk}/like/"
    page = get(client, f"{address}?body=2")
    begin(client, address, body="2", name="Other")
    other = Figure.objects.get(name="Other")
    assert (other.story, other.origin) == (spider.story, spider.origin)
    new = newest_version(other)
    assert new.order == {"off": ["x"]}
    times = new.notions[0]["amount"] / 100
    assert 0.5 < times < 1.5
    parts = {part.key: part for part in parts_of(new)}
    assert parts["abdomen"].shape["length_mm"] == pytest.approx(2 * parts["body"].shape["length_mm"] + 5)
    assert parts["leg"].shape["wire_mm"] == 0.9, "about as large, it keeps its own"
    assert said(get(client, f"figures/{other.pk}/"), "g\\b") == said(page, "g\\b")


def test_slots_of_one_wool_are_told_apart(client, owner):
    make.lot(owner, "pitch", "90", srgb="#2a2420")
    row = words(get(client, "figures/new/standing/"))
    assert re.search(r"dark [\d.]+ g of pitch", row)
    assert re.search(r"nose [\d.]+ g of pitch", row)


@pytest.mark.parametrize(
    ("given", "told_in", "said"),
    [({"name": ""}, "name", "Give the figure a name"), ({"name": "Pebble"}, "name", "There is a Pebble already"),
     ({"size": "big"}, "size", "length"), ({"size": "9999"}, "size", "more than 2000 mm"),
     ({"grams": "much"}, "grams", "weight"),
     ({"grams": "0.1"}, "grams", "too little: at 5 mm it takes 0."),
     ({"head": "9"}, "head", "From −4 to 4"), ({"legs": "x"}, "legs", "From −4 to 4")],
)  # fmt: skip
def test_what_does_not_fit_is_told_and_what_was_entered_is_kept(client, owner, given, told_in, said):
    make.figure(owner, "Pebble")
    answer = begin(client, "figures/new/standing/", **{"name": "Fox", "ears": "2", **given})
    assert said in told(answer), told(answer)
    form = next(form for form in forms_of(text(answer)) if "size" in form.fields)
    assert form.fields["ears"] == "2"
    for field, value in given.items():
        if field in ("name", "size", "grams"):
            assert form.fields[field] == value
    assert Figure.objects.count() == 1


def test_two_presses_of_one_key_begin_one_figure(client, owner):
    key = str(uuid.uuid4())
    urls = [post(client, "figures/new/ball/", name="Ball", key=key).url for _ in range(2)]
    assert urls[0] == urls[1]
    assert Figure.objects.count() == 1


def test_z_takes_it_back_and_shift_z_begins_it_again(client, owner):
    begin(client, "figures/new/spider/", name="Spider")
    before = grams_of(Figure.objects.get(name="Spider"))
    assert "Taken back: Spider, begun" in words(text(post(client, "undo/", follow=True)))
    assert not Figure.objects.exists()
    post(client, "again/")
    assert grams_of(Figure.objects.get(name="Spider")) == pytest.approx(before)


def test_a_viewer_looks_and_begins_nothing_and_nobody_sees_anothers(client, studio, owner):
    figure = make.figure(owner, "Pebble")
    viewer = signed_in(make.member(studio, "viewer", "vera"))
    assert "Begin it" not in get(viewer, "figures/new/fish/")
    assert post(viewer, "figures/new/fish/", name="Fish").status_code == 403
    other = signed_in(make.studio_owner("Dune", "ana"))
    assert other.get(f"{other.base}figures/{figure.pk}/like/").status_code == 404
    assert other.post(f"{other.base}figures/{figure.pk}/like/", {"name": "Mine"}).status_code == 404
    assert client.get(client.base + "figures/new/dragon/").status_code == 404
    empty = Figure.objects.create(studio=studio, name="Nothing")
    empty.versions.create(studio=studio)
    assert client.get(f"{client.base}figures/{empty.pk}/like/").status_code == 404


def test_both_views_stand_on_one_ground_and_are_drawn_to_one_scale(client, owner):
    begin(client, "figures/new/standing/", name="Fox")
    for address in ("figures/new/standing/", f"figures/{Figure.objects.get().pk}/?see=whole"):
        boxes = re.findall(r'<svg viewBox="([^"]+)" role="(?:img|group)"', get(client, address))
        assert len(boxes) == 2
        assert boxes[0] == boxes[1], address


@pytest.mark.sampled("orders of bodies", 4)
@pytest.mark.parametrize("key", sorted(PLANS))
def test_the_order_of_work_of_every_body_is_read(client, shelf, key):
    begin(client, f"figures/new/{key}/", name="Mine")
    page = words(get(client, f"figures/{Figure.objects.get().pk}/order/"))
    for part in PLANS[key].parts:
        if part.layers:
            assert part.name.removeprefix("second ") in page, part.name  # two of a letter are worked as one


def test_a_word_is_written_in_letters_and_stands_on_its_strip(client, owner, shelf):
    page = get(client, "figures/new/letters/", data={"letters": "Ada 7", "size": "70"})
    assert title(page).startswith("Ada 7")
    named = get(client, "figures/new/letters/", data={"letters": "wren & Co"}).split('name="name"')[1]
    assert named.split("value=", 1)[1].startswith('"Wren &amp; Co"'), "as it was written, but for its first letter"
    answer = begin(client, "figures/new/letters/", letters="Ada 7", size="70", name="Name sign")
    figure = Figure.objects.get(name="Name sign")
    assert answer["Location"].endswith(f"figures/{figure.pk}/")
    parts = parts_of(newest_version(figure))
    assert [part.name for part in parts] == ["strip", "A", "D", "second A", "7"]
    assert high(figure) == pytest.approx(70, abs=0.5)


def test_letters_that_cannot_be_made_are_named_and_kept(client, owner, shelf):
    looked = client.get(client.base + "figures/new/letters/", {"letters": "Æbbe"})
    assert looked.status_code == 422
    assert "leave out “Æ”" in told(looked)
    answer = begin(client, "figures/new/letters/", letters="Æbbe", name="Sign")
    assert answer.status_code == 422
    assert "leave out “Æ”" in told(answer)
    assert 'value="Æbbe"' in answer.content.decode()
    assert not Figure.objects.filter(name="Sign").exists()
    assert "from one to 12 letters" in told(begin(client, "figures/new/letters/", letters="M" * 13, name="Sign"))
