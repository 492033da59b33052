"""Colourways, swaps, faces and comparisons."""

import re

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, text, told, words
from tests.web.shared import shared
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Choice, Figure, Part
from wembit.web.figures.queries import colourway_of, newest_version


@shared
def hare(maker, owner) -> Figure:
    figure = figure_with(maker, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"), ("eye", "4"))
    figure.fawn, figure.gull = (
        make.lot(owner, "fawn", srgb="#b08a5e").item,
        make.lot(owner, "gull", srgb="#dcdcd6").item,
    )
    for slot in ("core", "main"):
        choose_fibre(owner, figure.pk, slot, figure.fawn.pk)
    return figure


def fibres(figure, way) -> dict:
    return dict(
        Choice.objects.filter(colourway__version=newest_version(figure), colourway__name=way).values_list(
            "slot__name", "item__name"
        )
    )


def test_another_colourway_begins_like_the_first_and_goes_its_own_way(client, hare):
    address = f"figures/{hare.pk}/colours/way/"
    post(client, address, do="add", way_name="winter white")
    post(client, address, way="winter white", slot="main", item=str(hare.gull.pk))
    assert fibres(hare, "winter white") == {"core": "fawn", "main": "gull"}
    assert fibres(hare, "first")["main"] == "fawn"
    page = get(client, f"figures/{hare.pk}/colours/")
    assert page.count("<thead>") == 1
    assert "#dcdcd6" in page
    assert "#b08a5e" in page
    assert "winter white" in get(client, "plan/new/")


def test_a_colourway_is_drawn_first_and_taken_away(client, hare):
    address = f"figures/{hare.pk}/colours/way/"
    post(client, address, do="add", way_name="grey")
    post(client, address, way="grey", slot="main", item=str(hare.gull.pk))
    post(client, address, do="first", way="grey")
    assert colourway_of(newest_version(hare)).name == "grey"
    assert "#dcdcd6" in get(client, f"figures/{hare.pk}/")
    post(client, address, do="drop", way="first")
    assert fibres(hare, "first") == {}
    assert "one colourway at least" in told(post(client, address, do="drop", way="grey"))


def test_a_fibre_is_swapped_everywhere_and_the_press_taken_back(client, hare):
    address = f"figures/{hare.pk}/colours/swap/"
    answer = post(client, address, old=f"first/{hare.fawn.pk}", new=str(hare.gull.pk))
    assert fibres(hare, "first") == {"core": "gull", "main": "gull"}
    assert "Take it back" in text(answer)
    slots = re.findall(r'name="slot" value="([^"]+)">', re.search(r'class="note".*?</form>', text(answer))[0])
    post(client, address, old=f"first/{hare.gull.pk}", new=str(hare.fawn.pk), slot=slots)
    assert fibres(hare, "first") == {"core": "fawn", "main": "fawn"}


def test_taking_back_leaves_what_had_the_new_wool_before(client, owner, hare):
    choose_fibre(owner, hare.pk, "core", hare.gull.pk)
    address = f"figures/{hare.pk}/colours/swap/"
    answer = post(client, address, old=f"first/{hare.fawn.pk}", new=str(hare.gull.pk))
    slots = re.findall(r'name="slot" value="([^"]+)">', re.search(r'class="note".*?</form>', text(answer))[0])
    assert slots == ["main"]
    post(client, address, old=f"first/{hare.gull.pk}", new=str(hare.fawn.pk), slot=slots)
    assert fibres(hare, "first") == {"core": "gull", "main": "fawn"}


@pytest.mark.parametrize(
    ("where", "given", "said"),
    [
        ("colours/way/", {"do": "add", "way_name": " "}, "Give the colourway a name"),
        ("colours/way/", {"do": "add", "way_name": "FIRST"}, "already"),
        ("colours/way/", {"way": "first", "slot": "main", "item": "none"}, "Choose a fibre"),
        ("colours/swap/", {"old": "first/none", "new": ""}, "Choose the fibre"),
        ("face/", {"face_name": ""}, "Give the face a name"),
    ],
)
def test_what_cannot_be_is_told(client, hare, where, given, said):
    assert said in told(post(client, f"figures/{hare.pk}/{where}", **given))


def test_a_planned_colourway_stays(client, owner, hare):
    post(client, f"figures/{hare.pk}/colours/way/", do="add", way_name="grey")
    make.project(owner, hare)
    answer = post(client, f"figures/{hare.pk}/colours/way/", do="drop", way="first")
    assert "is planned" in told(answer)


def test_a_wool_that_is_nowhere_cannot_go(client, hare):
    answer = post(client, f"figures/{hare.pk}/colours/swap/", old=f"first/{hare.gull.pk}", new=str(hare.fawn.pk))
    assert "nowhere" in told(answer)


def test_faces_are_kept_side_by_side_and_worn(client, hare):
    def seat(key):
        return Part.objects.get(version=newest_version(hare), key=key).seat

    assert post(client, f"figures/{hare.pk}/face/", face_name="listening").status_code == 302
    before = seat("ear")
    post(client, f"figures/{hare.pk}/part/ear/nudge/", pitch="-40")
    post(client, f"figures/{hare.pk}/part/eye/", lid="60", gaze="20")
    post(client, f"figures/{hare.pk}/face/", face_name="sleepy")
    page = get(client, f"figures/{hare.pk}/colours/")
    assert "listening, from the front" in page
    assert "sleepy, from the front" in page
    assert "#ffffff" in page
    assert post(client, f"figures/{hare.pk}/face/", do="wear", face="listening").status_code == 302
    assert seat("ear") == before
    post(client, f"figures/{hare.pk}/face/", do="drop", face="sleepy")
    assert [face["name"] for face in newest_version(hare).faces] == ["listening"]
    assert post(client, f"figures/{hare.pk}/face/", do="wear", face="sleepy").status_code == 404


def test_two_figures_and_two_versions_are_laid_side_by_side(client, owner, hare):
    other = make.figure(owner, "Pebble", 30.0, make.lot(owner, "slate"))
    make.offer(owner, hare.fawn)
    page = words(get(client, f"figures/{hare.pk}/compare/", data={"two": str(newest_version(other).pk)}))
    assert "Both to one scale" in page
    assert "slate" in page
    assert "hands" in page
    assert "wool costs" in page
    assert "nobody offers" in page
    assert "Pebble, version 1" in words(get(client, f"figures/{hare.pk}/compare/")), "the newest like it, unasked"


def test_a_figure_is_laid_beside_the_one_most_like_it(client, owner, hare):
    assert "one version so far" in words(get(client, f"figures/{hare.pk}/compare/"))
    make.figure(owner, "Pebble", 30.0)
    kinds = {part.kind for part in newest_version(hare).parts.all()}
    twin = make.figure(owner, "Leveret", 60.0)
    for kind in kinds - {"body"}:
        post(client, f"figures/{twin.pk}/part/", kind=kind, length="20")
    assert "Leveret, version 1" in words(get(client, f"figures/{hare.pk}/compare/"))


def test_a_version_of_another_studio_cannot_be_laid_beside(client, hare):
    ana = make.studio_owner("Dune", "ana")
    theirs = newest_version(make.figure(ana, "Cactus"))
    answer = client.get(f"{client.base}figures/{hare.pk}/compare/", {"two": str(theirs.pk)})
    assert answer.status_code == 404
    assert signed_in(ana)
