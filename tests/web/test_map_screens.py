"""The colour map: what the shelf can do for a colour, and a blend that is carded."""

import datetime as dt
import re
import uuid
from decimal import Decimal as D
from urllib.parse import parse_qs, urlsplit

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, told, words
from tests.web.shared import shared
from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.models import Entry, Lot, Promise
from wembit.web.stash.swatch import curve_of
from wembit.web.studio.models import VIEWER

MOSS, SAMPHIRE, OLIVE, PINE = "#6f7d43", "#8c9b4a", "#7a7a3c", "#34503d"


@shared
def greens(owner):
    """Four greens; the moss is nearly gone."""
    colours = {"moss": (MOSS, "0.5"), "samphire": (SAMPHIRE, "27"), "olive": (OLIVE, "34"), "pine": (PINE, "21")}
    return {name: make.lot(owner, name, grams, srgb=srgb) for name, (srgb, grams) in colours.items()}


def recipe(page, nth=0):
    return re.findall(r'name="recipe" value="([^"]+)"', page)[nth]


def test_a_bag_is_asked_for_and_the_nearest_and_a_blend_answer(client, greens):
    page = get(client, f"colour/?lot={greens['moss'].pk}&grams=6")
    said = words(page)
    assert "olive related (4.7), 34 g free" in said
    assert "Carded together, for 6 g" in said
    assert "same to the eye" in said
    assert "pine, 1 g" in said or "pine" in said
    assert said.count("moss")
    assert page.count('class="pick"') == 4


def test_a_colour_in_numbers_is_found_and_one_that_cannot_be_read_is_told(client, greens):
    assert "samphire same to the eye" in words(get(client, "colour/?colour=8c9b4b"))
    assert "L a b 60.5 -15.2 37" in words(get(client, "colour/?colour=60,5; -15,2; 37"))
    for text, said in (("green", "Write a colour"), ("50 300 0", "Lightness runs"), ("1 2", "Write a colour")):
        answer = client.get(client.base + "colour/", {"colour": text})
        assert said in told(answer)
        assert f'value="{text}"' in answer.content.decode()


@pytest.mark.parametrize(
    "query", ["view=lightness", "form=tops", "form=locks", "breed=merino&drawer=A1", "lot=none", "view=x"]
)
def test_the_map_is_sieved_and_laid_out_in_two_ways(client, greens, query):
    page = get(client, f"colour/?{query}")
    assert page.count('class="pick"') == (0 if "locks" in query else 4)


def test_what_has_hardly_a_hue_stands_on_the_ladder_and_what_is_all_promised_is_a_dotted_ring(client, owner, greens):
    make.lot(owner, "fog", "12", srgb="#c9cbca")
    soot = make.lot(owner, "soot", "8", srgb="#262626")
    make.lot(owner, "ash", None, srgb="#7b7c7b")
    Promise.objects.create(
        studio=owner.studio, lot=soot, need=uuid.uuid4(), amount=D(8), due=dt.date(2030, 1, 1), whose="market"
    )
    page = get(client, "colour/")
    ladder, disc = page.split('id="map"')
    assert ladder.count('class="pick') == 3
    assert disc.count('class="pick') == 4
    assert ladder.count("none-free") == 1, "of what nobody weighed there may be some"
    assert "none-free" not in disc
    assert 'class="ladder"' not in get(client, "colour/?view=lightness")
    for word in ("red", "green", "blue", "yellow"):
        assert f">{word}</text>" in disc, "the rim is named"


def test_an_empty_shelf_has_a_map(client, owner):
    assert "No bag has a colour yet" in get(client, "colour/?colour=6f7d43")


def test_a_form_that_does_not_blend_is_left_out_of_blends_not_of_the_nearest(client, owner, greens):
    make.lot(owner, "green curl", "50", form="locks", srgb=MOSS)
    page = get(client, f"colour/?lot={greens['moss'].pk}&grams=6")
    assert "green curl same to the eye" in words(page)
    assert "green curl" not in words(page.split("Carded together")[1].split("</form>")[0])


def test_one_press_makes_a_bag_with_its_recipe_and_takes_the_wool(client, studio, greens):
    page = get(client, f"colour/?lot={greens['moss'].pk}&grams=6")
    before = {lot.pk: lot.on_hand for lot in Lot.objects.of(studio)}
    answer = post(
        client, "colour/card/", recipe=recipe(page, 1), card_grams="6", name="moss blend", into="batt", drawer_name="C9"
    )
    made = Lot.objects.of(studio).select_related("item", "drawer").get(item__name="moss blend")
    assert answer.status_code == 302
    assert str(made.pk) in answer.url
    assert (made.on_hand, made.item.breed, made.item.form, made.drawer.name) == (6, "mixed", "batt", "C9")
    gone = sum(before[lot.pk] - lot.on_hand for lot in Lot.objects.of(studio) if lot.pk in before)
    assert gone == D("6.19"), "three in a hundred stay in the carders"
    assert made.srgb == made.predicted
    assert delta_e_2000(lab(made.srgb), lab(MOSS)) < 1
    assert {row["name"] for row in made.item.recipe} <= set(greens)
    assert len(made.item.recipe) >= 2
    assert sorted(made.movements.get().entry.movements.values_list("kind", flat=True))[0] == "blended in"
    history = words(get(client, f"stash/lot/{made.pk}/"))
    assert "0.19 g lost in carding" in history


def test_a_blend_is_taken_back_whole(client, owner, studio, greens):
    page = get(client, f"colour/?lot={greens['moss'].pk}")
    post(client, "colour/card/", recipe=recipe(page), card_grams="5", name="x", into="batt")
    undo(owner, press=make.press())
    held = {lot.item.name: lot.on_hand for lot in Lot.objects.of(studio).filter(waste=False).select_related("item")}
    assert held == {"moss": D("0.5"), "samphire": 27, "olive": 34, "pine": 21, "x": 0}


def test_the_same_press_twice_cards_once(client, studio, greens):
    page = get(client, f"colour/?lot={greens['moss'].pk}")
    given = {"key": "once", "recipe": recipe(page), "card_grams": "5", "name": "x", "into": "batt"}
    first, second = post(client, "colour/card/", **given), post(client, "colour/card/", **given)
    assert first.url == second.url
    assert Entry.objects.of(studio).filter(verb="blend").count() == 1


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"card_grams": "a lot"}, "cannot be read"),
        ({"card_grams": "-2"}, "below nothing"),
        ({"card_grams": "900"}, "The book says"),
        ({"recipe": "nonsense"}, "cannot be read"),
        ({"recipe": "{olive}*1"}, "two bags or more"),
        ({"recipe": "{olive}*1 {olive}*2"}, "two bags or more"),
        ({"recipe": "{olive}*0 {pine}*2"}, "up to 99 parts"),
        ({"into": "locks"}, "Choose what it becomes"),
        ({"name": " "}, "Give it a name"),
    ],
)
def test_what_is_wrong_with_a_blend_is_said_and_what_was_entered_stays(client, studio, greens, change, said):
    given = {"recipe": "{olive}*2 {pine}*1", "card_grams": "6", "name": "sedge", "into": "batt", **change}
    given["recipe"] = given["recipe"].format(**{name: lot.pk for name, lot in greens.items()})
    answer = post(client, f"colour/card/?lot={greens['moss'].pk}", **given)
    assert said in told(answer)
    if "name" not in change:
        assert 'value="sedge"' in answer.content.decode()
    assert not Entry.objects.of(studio).filter(verb="blend").exists()


def test_promised_wool_is_only_carded_when_one_means_it(client, owner, greens):
    figure = make.figure(owner, fibre=greens["pine"], length=80)
    make.project(owner, figure, count=1)
    given = {"recipe": f"{greens['pine'].pk}*1 {greens['olive'].pk}*1", "card_grams": "30", "name": "x", "into": "batt"}
    answer = post(client, f"colour/card/?lot={greens['moss'].pk}", **given)
    assert "promised" in told(answer)
    assert 'name="anyway"' in answer.content.decode()
    assert post(client, f"colour/card/?lot={greens['moss'].pk}", **given, anyway="1").status_code == 302


def test_a_tuft_is_drawn_from_its_wools_and_not_from_those_of_others(client, greens):
    text = f"{greens['olive'].pk}*2 {greens['pine'].pk}*1"
    page = client.get(client.base + f"colour/tuft/{text}/", {"passes": "1"})
    assert page.status_code == 200
    assert page["Content-Type"] == "image/svg+xml"
    assert {OLIVE, PINE} <= set(re.findall(r'stroke="(#\w+)"', page.content.decode()))
    theirs = make.lot(make.studio_owner("Dune", "ana"), "theirs")
    for recipe_, passes in ((text, "2"), ("x", "1"), (f"{theirs.pk}*1", "1")):
        assert client.get(client.base + f"colour/tuft/{recipe_}/", {"passes": passes}).status_code == 404


def test_another_studios_bag_is_no_part_of_a_blend(client, greens):
    theirs = make.lot(make.studio_owner("Dune", "ana"), "theirs")
    given = {"recipe": f"{theirs.pk}*1 {greens['pine'].pk}*1", "card_grams": "3", "name": "x", "into": "batt"}
    assert post(client, "colour/card/", **given).status_code == 404


def test_a_viewer_sees_the_blend_and_has_no_button(owner, studio, greens):
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    page = get(viewer, f"colour/?lot={greens['moss'].pk}")
    assert "Carded together" in page
    assert "Card it" not in page
    assert post(viewer, "colour/card/", recipe=recipe(page), card_grams="3", name="x", into="batt").status_code == 403


def test_the_curve_is_kept_with_the_colour_and_split_with_the_bag(client, greens):
    kept = greens["moss"]
    assert curve_of(kept.curve).shape == (36,)
    post(client, f"stash/lot/{greens['olive'].pk}/split/", amount="4")
    new = Lot.objects.filter(item=greens["olive"].item).exclude(pk=greens["olive"].pk).get()
    assert bytes(new.curve) == bytes(greens["olive"].curve)


def test_a_studio_cards_in_its_own_way(client, studio, greens, owner):
    make.lot(owner, "green curl", "50", form="locks", srgb=MOSS)
    given = {"blends": ["locks", "tops"], "fibres": "2", "parts": "4", "loss": "10"}
    assert post(client, "colour/habits/", **given).status_code == 302
    page = get(client, f"colour/?lot={greens['moss'].pk}&grams=6")
    assert "10% more wool" in page
    assert "green curl alone is the same to the eye" in words(page)
    parts = re.findall(r'<span class="num">(\d+)</span> parts? <b>', get(client, "colour/?colour=59703f&grams=6"))
    assert parts
    assert sum(map(int, parts)) <= 4
    post(
        client,
        "colour/card/",
        recipe=f"{greens['olive'].pk}*1 {greens['pine'].pk}*1",
        card_grams="9",
        name="x",
        into="batt",
    )
    assert Lot.objects.get(pk=greens["pine"].pk).on_hand == 16, "nine grams and a tenth of loss, from two bags"


@pytest.mark.parametrize(
    ("change", "said"),
    [({"blends": "felt"}, "one form"), ({"fibres": "9"}, "2 to 4"), ({"parts": "2", "fibres": "3"}, "as many parts"),
     ({"parts": "2.5"}, "whole numbers"), ({"loss": "80"}, "0 to 50"), ({"loss": "some"}, "in per cent")],
)  # fmt: skip
def test_a_way_of_carding_that_cannot_be_is_told(client, greens, change, said):
    given = {"blends": "tops", "fibres": "3", "parts": "8", "loss": "3"} | change
    assert said in told(post(client, "colour/habits/", **given))


def test_a_layer_of_a_figure_asks_for_its_colour(client, owner, greens):
    figure = make.figure(owner, fibre=greens["moss"])
    page = get(client, f"figures/{figure.pk}/?part=ball&layer=0")
    assert f"colour/?item={greens['moss'].item_id}&amp;grams=" in page


def test_a_name_on_the_map_is_only_a_name(client, owner):
    make.lot(owner, '"><b onload="x">&', "5")
    page = client.get(client.base + "colour/?view=hue&grams=6").content.decode()
    assert "<b onload" not in page
    assert "&quot;&gt;&lt;b onload=&quot;x&quot;&gt;&amp;" in page
    assert "&amp;view=hue&amp;grams=6" in page


@pytest.mark.parametrize(
    ("asked", "colour"),
    [
        ("x=150&y=0&rim=40", "55.0 23.8 -0.0"),
        ("x=20&y=0&rim=40", "55.0 6.0 -0.0"),
        ("x=10&y=-210&rim=40&board=ladder", "85.0 0.0 0.0"),
        ("x=300&y=0&rim=0", "55.0 40.0 -0.0"),
        ("x=0&y=-300&rim=40&lot=x&form=tops", "55.0 0.0 40.0"),
        ("x=-300&y=0&rim=40&view=lightness", "50.0 0.0 0.0"),
    ],
)
def test_a_touch_on_the_ground_asks_for_the_colour_there(client, studio, asked, colour):
    answer = client.get(f"/s/{studio.slug}/colour/touched/?{asked}")
    query = parse_qs(urlsplit(answer["Location"]).query)
    assert query["colour"] == [colour]
    assert "lot" not in query and "x" not in query, "the colour takes the place of the bag"
    assert query.get("form") == (["tops"] if "form" in asked else None), "the sieve stays"


@pytest.mark.parametrize("asked", ["", "x=nan&y=0&rim=40", "x=a&y=0&rim=40", "x=1e999&y=0&rim=1"])
def test_a_touch_that_cannot_be_read_asks_for_nothing(client, studio, asked):
    answer = client.get(f"/s/{studio.slug}/colour/touched/?{asked}")
    assert answer.status_code == 302 and "colour=" not in answer["Location"]


def test_the_best_blend_lies_in_the_corner_of_the_map_as_a_tuft(client, owner):
    for name, srgb in (("samphire", "#8e9a45"), ("soot", "#222222"), ("chalk", "#efe9dc")):
        make.lot(owner, name, "50", srgb=srgb)
    assert "<image" not in get(client, "colour/")
    page = get(client, "colour/", data={"colour": "5b632f", "grams": "6"})
    address = re.search(r'<image href="([^"]+)"', page)[1].replace("&amp;", "&")
    answer = client.get(address)
    assert (answer.status_code, answer["Content-Type"]) == (200, "image/svg+xml")
    assert b"<path" in answer.content


def test_a_picture_is_chosen_in_its_dotted_frame(client, owner):
    page = get(client, "colour/picture/")
    assert re.search(r'<label for="f-photo" class="picture-frame">', page)
    assert 'id="f-photo"' in page
