"""A figure turned: the drawing from any side, the faces for the browser, four views on a sheet, and the same at the bench."""

import json
import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, text, words
from tests.web.shared import shared
from wembit.core.drawing.scale_objects import COIN_MM
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.figures.actions.add_colourway import add_colourway
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.queries import newest_version


@shared
def hare(maker, owner):
    return figure_with(maker, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"), ("leg", "40"), ("eye", "4"))


def numbers(words_: str) -> list[float]:
    return [float(each) for each in re.findall(r"-?[\d.]+", words_)]


def mesh(client, figure, **asked) -> dict:
    return json.loads(client.get(client.base + f"figures/{figure.pk}/turned/mesh/", asked).content)


def test_the_page_of_a_figure_shows_it_turned_with_links_that_work_without_script(client, hare):
    page = get(client, f"figures/{hare.pk}/", data={"see": "turn", "turn": "40", "tilt": "-20"})
    assert 'data-turn="40" data-tilt="-20"' in page
    for name in ("front", "side", "back", "above", "below"):
        assert f"{name} <kbd>" in page
    assert "see=turn&amp;turn=55&amp;tilt=-20" in page, "a step to the right"
    assert "see=turn&amp;turn=90&amp;tilt=0" in page, "the front"
    assert 'class="shadow"' not in page, "from below there is no ground to be seen"
    assert 'class="shadow"' in get(client, f"figures/{hare.pk}/", data={"see": "turn", "turn": "40", "tilt": "20"})


@pytest.mark.parametrize("asked", [{}, {"turn": "x", "tilt": "y"}, {"turn": "1e9", "tilt": "1e9"}, {"turn": "nan"}])
def test_nonsense_is_looked_at_from_somewhere(client, hare, asked):
    answer = client.get(client.base + f"figures/{hare.pk}/turned/drawn/", asked)
    assert answer.status_code == 200
    assert "<svg" in text(answer)


def test_it_keeps_its_size_while_it_turns_and_the_coin_is_to_scale(client, hare):
    boxes, coins = [], []
    for turn, tilt in (("0", "0"), ("70", "30"), ("200", "90"), ("330", "-40")):
        page = get(client, f"figures/{hare.pk}/turned/drawn/", data={"turn": turn, "tilt": tilt})
        boxes.append(numbers(re.search(r'viewBox="([^"]+)"', page)[1])[2:])
        coins.append(re.search(r'<path d="([^"]+)" class="coin"', page))
    assert all(box == boxes[0] for box in boxes)
    across = numbers(coins[2][1])[::2]
    assert max(across) - min(across) == pytest.approx(COIN_MM, abs=0.6), "from above a coin is round"
    assert coins[3] is None


def test_the_browser_turns_what_the_core_has_placed(client, hare):
    found = mesh(client, hare)
    assert len(found["pieces"]) == len(found["lifts"])
    assert sum(found["pieces"]) == len(found["faces"])
    assert all(0 <= face[0] < len(found["paints"]) for face in found["faces"])
    most = len(found["points"]) // 3
    assert all(0 <= corner < most for face in found["faces"] for corner in face[1:])
    heights = found["points"][2::3]
    assert min(heights) == pytest.approx(0, abs=1)
    assert max(heights) / 10 == pytest.approx(found["high"], abs=0.2)


def test_another_colourway_is_seen_in_its_colours_and_another_studios_is_not_there(client, owner, hare):
    add_colourway(owner, hare.pk, "winter")
    choose_fibre(owner, hare.pk, "main", make.lot(owner, "fawn", srgb="#b08a5e").item_id)
    choose_fibre(owner, hare.pk, "main", make.lot(owner, "gull", srgb="#e0e4e8").item_id, way="winter")
    winter = newest_version(hare).colourways.get(name="winter")
    assert "#b08a5e" in mesh(client, hare)["paints"]
    assert "#e0e4e8" in mesh(client, hare, way=str(winter.pk))["paints"]
    other = make.figure(make.studio_owner("Elsewhere", "other"), "Theirs")
    theirs = newest_version(other).colourways.first()
    for address in ("turned/", "turned/drawn/", "turned/mesh/", "four-views/"):
        assert client.get(client.base + f"figures/{hare.pk}/{address}", {"way": str(theirs.pk)}).status_code == 404
        assert client.get(client.base + f"figures/{other.pk}/{address}").status_code == 404


def test_four_views_stand_on_one_sheet_to_one_scale(client, hare):
    page = get(client, f"figures/{hare.pk}/four-views/")
    boxes = [numbers(box) for box in re.findall(r'<svg viewBox="([^"]+)" role="img"', page)]
    assert len(boxes) == 4
    assert len({box[2] for box in boxes}) == 1, "one width, one scale"
    assert boxes[0][1:] == boxes[1][1:] == boxes[2][1:], "from level they stand on one ground"
    said = words(page)
    assert all(name in said for name in ("front:", "side:", "back:", "above:"))
    front, back = (re.search(rf"{name}: ([\d.]+) mm × ([\d.]+) mm", said).groups() for name in ("front", "back"))
    assert front == back


def test_a_pale_wool_has_an_edge_that_is_seen_on_the_grey(client, owner, hare):
    choose_fibre(owner, hare.pk, "main", make.lot(owner, "fog", srgb="#cfd2d4").item_id)
    page = get(client, f"figures/{hare.pk}/")
    assert re.search(r'fill="#cfd2d4"[^>]*stroke-opacity="0.75"', page)
    choose_fibre(owner, hare.pk, "main", make.lot(owner, "peat", srgb="#4a382b").item_id)
    assert re.search(r'fill="#4a382b"[^>]*stroke-opacity="0.28"', get(client, f"figures/{hare.pk}/"))


def test_the_bench_shows_the_making_in_its_colours_when_it_is_asked(client, owner):
    figure = make.figure(owner)
    making = begin_making(owner, make.project(owner, figure).pk)
    page = get(client, f"bench/{making.pk}/")
    address = re.search(r'hx-get="([^"]+/turned/\?way=[^"]+)"', page)[1]
    answer = text(client.get(address))
    assert "data-turntable" in answer
    assert f"way={making.colourway_id}" in answer


def test_a_figure_that_cannot_be_placed_says_so(client, owner):
    empty = figure_with(client, "Nothing yet")
    assert client.get(client.base + f"figures/{empty.pk}/turned/drawn/").status_code == 200
    assert mesh(client, empty)["faces"] == []
