"""Figures as a maker works them: parts, sizes, layers, fibres, copies, and the version that a begun making freezes."""

import re

import numpy as np
import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, text, told
from tests.web.shared import shared
from tests.web.test_stash_screens import photo
from wembit.core.craft.part_kinds import KINDS
from wembit.core.grams.estimate import estimate
from wembit.core.pose.placing import standing_angles
from wembit.core.shape.sizes import sizes
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.figures.models import Figure, Part, Version
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure, request_of
from wembit.web.figures.to_core.seating import placed

HTMX = {"HX-Request": "true"}


def plan_of(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))


def grams_shown(page: str) -> float:
    return float(re.search(r'<small data-told><span class="num">([\d.]+)</span>', page)[1])


@shared
def snail(maker, owner):
    post(maker, "figures/new/", name="Marsh snail", story="Slow.")
    figure = Figure.objects.get(name="Marsh snail")
    post(maker, f"figures/{figure.pk}/part/", kind="body", length="60")
    post(maker, f"figures/{figure.pk}/part/", kind="head", length="3/4 in")
    return figure


def test_a_figure_begins_with_its_name_and_its_body(client, snail):
    page = get(client, f"figures/{snail.pk}/")
    assert "body" in page
    assert "head" in page
    assert page.count("<svg viewBox") >= 2
    head = Part.objects.get(version__figure=snail, key="head")
    assert head.shape["length_mm"] == pytest.approx(19.05)
    assert head.firmness == "firm"
    assert head.seat["on"] == "body"


def test_the_grams_on_the_page_are_those_of_the_core(client, snail):
    version = newest_version(snail)
    found = estimate(request_of(version, parts_of(version), Palette.of(colourway_of(version))))
    assert grams_shown(get(client, f"figures/{snail.pk}/")) == pytest.approx(found.all.p50, abs=0.006)


@pytest.mark.sampled("kinds of parts", 5)
@pytest.mark.parametrize("kind", [*KINDS, "eye"])
def test_every_kind_of_part_can_be_added_seated_and_drawn(client, snail, kind):
    answer = post(client, f"figures/{snail.pk}/part/", kind=kind, length="12 mm", follow=True)
    assert answer.status_code == 200
    assert plan_of(snail).fault is None
    part = Part.objects.filter(version__figure=snail).latest("position")
    assert part.kind == kind
    assert part.seat["on"]
    assert f'aria-label="{part.name}"' in text(answer)


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"kind": "body", "length": ""}, "Write a length"),
        ({"kind": "body", "length": "-4"}, "below nothing"),
        ({"kind": "body", "length": "3 in / 9 cm"}, "3 in"),
        ({"kind": "body", "length": "1.200,5"}, "Write"),
        ({"kind": "body", "length": "400 m"}, "between 0.1 mm and 10 m"),
        ({"kind": "cloud", "length": "40"}, "Choose what the part is"),
    ],
)
def test_a_part_that_cannot_be_read_is_told_and_kept(client, snail, given, said):
    answer = post(client, f"figures/{snail.pk}/part/", **given)
    assert said in told(answer)
    assert f'value="{given["length"]}"' in text(answer)
    assert snail.versions.get().parts.count() == 2


def test_a_size_changes_the_grams_and_the_drawing_at_once(client, snail):
    before = get(client, f"figures/{snail.pk}/")
    answer = client.post(f"{client.base}figures/{snail.pk}/part/body/", {"length_mm": "8 cm"}, headers=HTMX)
    after = text(answer)
    assert answer.status_code == 200
    assert "<html" not in after
    assert 'id="part-grams"' in after
    assert grams_shown(after) > grams_shown(before)
    drawn = [re.findall(r'<path d="([^"]+)" fill="#', page)[0] for page in (before, after)]
    assert drawn[0] != drawn[1]


def test_another_shape_and_a_fault_bring_the_whole_tray_anew(client, snail):
    address = f"{client.base}figures/{snail.pk}/part/body/"
    plain = client.post(address, {"length_mm": "61"}, headers=HTMX)
    other = client.post(address, {"shape": "capsule"}, headers=HTMX)
    wrong = client.post(address, {"length_mm": "none"}, headers=HTMX)
    assert "HX-Retarget" not in plain.headers
    assert other.headers["HX-Retarget"] == wrong.headers["HX-Retarget"] == "#stage"
    assert wrong.status_code == 422
    assert 'name="mended"' in text(wrong)
    assert Part.objects.get(version__figure=snail, key="body").shape["kind"] == "capsule"


def test_a_size_shown_in_inches_and_sent_back_is_the_same_size(client, owner, snail):
    owner.studio.length_unit = "in"
    owner.studio.save()
    before = Part.objects.get(version__figure=snail, key="body").shape
    page = get(client, f"figures/{snail.pk}/?part=body")
    shown = dict(re.findall(r'name="(\w+_mm)" class="form-control num"[^>]*? value="([^"]*)"', page))
    assert shown["length_mm"] == "2.362"
    post(client, f"figures/{snail.pk}/part/body/", **shown)
    assert Part.objects.get(version__figure=snail, key="body").shape == before


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"length_mm": "0"}, "at least"),
        ({"count": "2.5"}, "whole number"),
        ({"count": "900"}, "between 1 and 200"),
        ({"t": "140"}, "between 0 and 100"),
        ({"visible": "x"}, "between 0 and 100"),
        ({"on": "nowhere"}, "not there"),
        ({"on": "head"}, "head"),
    ],
)
def test_a_change_that_cannot_be_made_is_told(client, snail, given, said):
    key = "head" if {"on", "t"} & set(given) else "body"
    before = Part.objects.get(version__figure=snail, key=key)
    answer = post(client, f"figures/{snail.pk}/part/{key}/", **given)
    assert said in told(answer)
    after = Part.objects.get(version__figure=snail, key=key)
    assert (after.shape, after.count, after.seat) == (before.shape, before.count, before.seat)


def test_a_part_that_others_sit_on_stays(client, snail):
    answer = post(client, f"figures/{snail.pk}/part/body/drop/")
    assert "head" in told(answer)
    assert post(client, f"figures/{snail.pk}/part/head/drop/").status_code == 302
    assert [part.key for part in parts_of(newest_version(snail))] == ["body"]


def test_a_fibre_is_chosen_for_a_slot(client, owner, snail):
    lot = make.lot(owner, "kelp", srgb="#47523a")
    answer = client.post(
        f"{client.base}figures/{snail.pk}/fibre/", {"slot": "main", "item": str(lot.item_id)}, headers=HTMX
    )
    assert answer.status_code == 200
    assert "#47523a" in text(answer)
    assert "Choose a fibre" in told(post(client, f"figures/{snail.pk}/fibre/", slot="main", item=""))
    assert post(client, f"figures/{snail.pk}/fibre/", slot="nothing", item=str(lot.item_id)).status_code == 404


def test_polyester_packs_at_its_own_density(client, owner, snail):
    wool = plan_of(snail).parts[0].layers[0].grams.middle
    filling = make.lot(owner, "filling", form="filling", srgb="")
    post(client, f"figures/{snail.pk}/fibre/", slot="core", item=str(filling.item_id))
    assert plan_of(snail).parts[0].layers[0].grams.middle == pytest.approx(wool * 0.04 / 0.13)


def test_name_size_picture_and_a_copy(client, owner, snail):
    before = plan_of(snail).all.p50
    given = {"name": "Big snail", "story": "Slower.", "photo": photo()}
    assert post(client, f"figures/{snail.pk}/describe/", **given).status_code == 302
    snail.refresh_from_db()
    assert snail.name == "Big snail"
    assert snail.photo
    post(client, f"figures/{snail.pk}/size/", scale="2")
    assert 4 * before < plan_of(snail).all.p50 < 8 * before, "solids grow by 8, covers by 4"
    assert "Choose another name" in told(post(client, f"figures/{snail.pk}/copy/", copy_name="Big snail"))
    assert post(client, f"figures/{snail.pk}/copy/", copy_name="Bigger snail").status_code == 302
    copy = Figure.objects.get(name="Bigger snail")
    assert plan_of(copy).all == plan_of(snail).all
    post(client, f"figures/{copy.pk}/part/body/", length_mm="30")
    assert plan_of(copy).all.p50 < plan_of(snail).all.p50


def test_a_name_that_is_there_already_is_told(client, snail):
    assert "Choose another name" in told(post(client, "figures/new/", name="Marsh snail"))
    assert "name" in told(post(client, "figures/new/", name="  ")).lower()


def test_a_begun_version_is_frozen_and_a_change_makes_the_next(client, owner):
    figure = make.figure(owner)
    project = make.project(owner, figure)
    begin_making(owner, project.pk)
    first = figure.versions.get()
    assert first.frozen_at
    assert "changes go into a new one" in get(client, f"figures/{figure.pk}/")
    post(client, f"figures/{figure.pk}/part/ball/", diameter_mm="50")
    second = newest_version(figure)
    assert (second.number, second.frozen_at) == (2, None)
    assert parts_of(first)[0].shape["diameter_mm"] == 30
    assert parts_of(second)[0].shape["diameter_mm"] == 50
    assert colourway_of(second).choices.get().item_id == colourway_of(first).choices.get().item_id
    assert Version.objects.filter(figure=figure).count() == 2


def test_a_figure_without_parts_cannot_be_planned(client, owner):
    post(client, "figures/new/", name="Cloud")
    figure = Figure.objects.get(name="Cloud")
    assert "no parts yet" in get(client, f"figures/{figure.pk}/")
    assert "Cloud" in get(client, "figures/")
    way = colourway_of(newest_version(figure))
    answer = post(client, "plan/new/", colourway=str(way.pk), count="1", due="2099-01-01", name="x")
    assert answer.status_code == 422


def test_the_herd_is_drawn_to_one_scale(client, owner):
    make.figure(owner, "Pebble", 30.0)
    make.figure(owner, "Boulder", 60.0, make.lot(owner, "slate"))
    page = get(client, "figures/")
    boxes = {name: (float(box.split()[2]) - 16) for box, name in
             re.findall(r'<svg viewBox="([^"]+)" width="[\d.]+" height="[\d.]+".*?<b>(\w+)</b>', page)}  # fmt: skip
    widths = dict(zip(boxes, (int(w) for w in re.findall(r'<svg viewBox="[^"]+" width="(\d+)"', page)), strict=False))
    assert boxes["Boulder"] == pytest.approx(60, abs=4)
    assert boxes["Pebble"] == pytest.approx(30, abs=4)
    assert widths["Boulder"] / (boxes["Boulder"] + 16) == pytest.approx(
        widths["Pebble"] / (boxes["Pebble"] + 16), rel=0.03
    )


def test_a_large_herd_comes_in_rows_and_is_searched(client, owner, monkeypatch):
    monkeypatch.setattr("wembit.web.figures.figure_page.views.SHOWN", 3)
    for name in ("Adder", "Bittern", "Crab", "Dunlin", "Eel"):
        figure_with(client, name, ("body", "30"))
    page = get(client, "figures/")
    assert [name for name in ("Adder", "Bittern", "Crab", "Dunlin", "Eel") if name in page] == [
        "Adder",
        "Bittern",
        "Crab",
    ]
    assert "2 more figures" in page
    rest = re.search(r'href="([^"]*from=3[^"]*)"', page)[1].replace("&amp;", "&")
    more = client.get(rest, headers={"HX-Request": "true"}).content.decode()
    assert "Dunlin" in more
    assert "Eel" in more
    assert "<html" not in more
    assert "more figures" not in more
    assert "<html" in client.get(rest).content.decode(), "without script, too"
    found = get(client, "figures/?words=bit")
    assert "Bittern" in found
    assert "Adder" not in found
    assert "No figure of that name" in get(client, "figures/?words=walrus")


def test_a_patch_follows_the_part_when_it_grows(client, owner):
    hare = figure_with(client, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"))
    post(client, f"figures/{hare.pk}/part/ear/layer/", role="detail", new_slot="inside")
    ear = newest_version(hare).parts.get(key="ear")
    layer = ear.layers.get(role="detail")
    layer.rule = {"area_mm2": 100.0}
    layer.save()
    post(client, f"figures/{hare.pk}/part/ear/", length_mm="60", width_mm=str(2 * sizes(ear.shape)["width_mm"]))
    layer.refresh_from_db()
    assert 300 < layer.rule["area_mm2"] < 401, "twice as long and wide, a little less for its rim"
    post(client, "undo/")
    layer.refresh_from_db()
    assert layer.rule["area_mm2"] == 100
    post(client, f"figures/{hare.pk}/part/ear/", firmness="soft")
    layer.refresh_from_db()
    assert layer.rule["area_mm2"] == 100


def test_a_patch_follows_a_part_that_follows_another_and_a_whole_figure_once(client, owner):
    hare = figure_with(client, "Hare", ("body", "80"), ("head", "40"))
    post(client, f"figures/{hare.pk}/part/head/layer/", role="detail", new_slot="blaze")
    head = newest_version(hare).parts.get(key="head")
    layer = head.layers.get(role="detail")
    layer.rule = {"area_mm2": 100.0}
    layer.save()
    half = {"size": "length_mm", "of": "body", "of_size": "length_mm", "share": 0.5, "gap_mm": 0.0, "whole": True}
    head.relations = [half]
    head.save()
    post(client, f"figures/{hare.pk}/part/body/", length_mm="160")
    layer.refresh_from_db()
    assert layer.rule["area_mm2"] == pytest.approx(400, rel=1e-3)
    post(client, f"figures/{hare.pk}/size/", scale="0.5")
    layer.refresh_from_db()
    assert layer.rule["area_mm2"] == pytest.approx(100, rel=1e-3)


def test_a_flat_piece_takes_another_outline_of_its_size(client, owner):
    hare = figure_with(client, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"))
    before = newest_version(hare).parts.get(key="ear").shape
    page = get(client, f"figures/{hare.pk}/", data={"part": "ear"})
    assert 'name="outline" value="moon"' in page
    assert 'name="outline"' not in get(client, f"figures/{hare.pk}/", data={"part": "body"})
    post(client, f"figures/{hare.pk}/part/ear/", outline="drop")
    after = newest_version(hare).parts.get(key="ear").shape
    assert len(after["outline"]) > len(before["outline"])
    assert sizes(after) == pytest.approx(sizes(before), abs=0.02)
    assert "Choose an outline" in told(post(client, f"figures/{hare.pk}/part/ear/", outline="cog"))


def test_a_part_that_sits_on_another_stays_where_it_was(client, owner):
    hare = figure_with(client, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"))

    def where():
        pieces = placed(parts_of(newest_version(hare)))
        ear = next(piece for piece in pieces if piece.name == "ear" and piece.mirror == 1)
        return ear.joints[0], standing_angles(ear)

    (spot, stood), before = where(), newest_version(hare).parts.get(key="ear").seat
    post(client, f"figures/{hare.pk}/part/ear/", on="body")
    there, stands = where()
    assert newest_version(hare).parts.get(key="ear").seat["on"] == "body"
    assert np.linalg.norm(there - spot) < 40, "at the place of the body that is nearest"
    assert stands == pytest.approx(stood, abs=1)
    post(client, "undo/")
    assert newest_version(hare).parts.get(key="ear").seat == before
    post(client, f"figures/{hare.pk}/part/ear/", on="body", t="20")
    assert newest_version(hare).parts.get(key="ear").seat["t"] == 0.2, "unless its place is told"


def test_a_figures_page_says_how_high_and_long_it_is(client, owner):
    ball = figure_with(client, "Ball", ("ball", "30"))
    assert "30 mm high, 30 mm long" in re.sub(r"<[^>]+>", "", get(client, f"figures/{ball.pk}/")).replace("\u202f", " ")


def test_no_two_parts_are_called_the_same(client, owner):
    figure = figure_with(client, "Newt", ("body", "60"), ("body", "30"), ("body", "20"))
    names = [part.name for part in parts_of(newest_version(figure))]
    assert names == ["body", "body 2", "body 3"]
    key = parts_of(newest_version(figure))[1].key
    answer = post(client, f"figures/{figure.pk}/part/{key}/", name="Body")
    assert answer.status_code == 422
    assert "Another part is called Body" in told(answer)
    post(client, f"figures/{figure.pk}/part/{key}/", name="tail base")
    assert [part.name for part in parts_of(newest_version(figure))][1] == "tail base"
