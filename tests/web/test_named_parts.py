"""The parts of a figure named on its drawing, with what each takes."""

import re
from itertools import pairwise

import pytest

from tests.web.helpers import figure_with, get, words
from tests.web.shared import shared
from wembit.web.figures.drawing.labels import LETTER, labelled
from wembit.web.figures.drawing.layout import Picture, Shape


@shared
def hare(maker, owner):
    return figure_with(
        maker, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"), ("leg", "30"), ("tail", "20"), ("eye", "4")
    )


def test_every_part_has_a_label_with_its_grams_that_picks_it(client, hare):
    page = get(client, f"figures/{hare.pk}/", data={"see": "named"})
    labels = re.findall(r'<a class="label" href="\?part=([^"]+)"', page)
    assert set(labels) == {"body", "head", "ear", "leg", "tail", "eye"}
    said = words(page)
    for name in ("body", "head", "2 × ear", "tail"):
        assert re.search(rf"{name} [\d.]+ g", said), name
    tray = words(get(client, f"figures/{hare.pk}/", data={"see": "named", "part": "ear"}).split('id="part-grams"')[1])
    assert re.search(r"2 × ear ([\d.]+ g)", said)[1] in tray, "the number that the part itself shows"
    assert '<a class="label in-hand" href="?part=ear"' in get(
        client, f"figures/{hare.pk}/", data={"see": "named", "part": "ear"}
    )


def picture(count: int) -> Picture:
    shapes = [
        Shape(f"p{n}", "", "#888", "M0 0Z", [], [], None, middle=(n * 7 % 50 - 25.0, -float(n * 11 % 40)))
        for n in range(count)
    ]
    return Picture("side", shapes, -40, -50, 80, 52, "", long=80, tall=50)


@pytest.mark.parametrize("count", [1, 2, 9, 24])
def test_labels_lie_in_their_frame_and_none_on_another(count):
    found = labelled(picture(count), {f"p{n}": f"part number {n} 1.23 g" for n in range(count)})
    assert len(found.labels) == count
    frame = found.picture
    for side in (True, False):
        heights = [label.y for label in found.labels if label.from_right == side]
        assert all(b - a > found.size for a, b in pairwise(heights))
    for label in found.labels:
        wide = len(label.words) * LETTER * found.size
        begin, end = (label.x - wide, label.x) if label.from_right else (label.x, label.x + wide)
        assert frame.left - 1e-6 <= begin
        assert end <= frame.left + frame.width + 1e-6
        assert end < -40 or begin > 40, "beside the figure, not on it"
        assert frame.top <= label.y <= frame.top + frame.height
        assert label.left <= begin
        assert end <= label.left + label.width, "its words are all of its row, to be pressed"
        assert label.top < label.y - found.size * 0.8
        assert label.y < label.top + label.height


def test_nothing_to_name_is_no_label():
    assert labelled(picture(0), {}).labels == []


def test_the_page_of_a_figure_begins_with_its_names_and_a_picked_part_with_its_handles(client, hare):
    assert 'class="named"' in get(client, f"figures/{hare.pk}/")
    picked = get(client, f"figures/{hare.pk}/", data={"part": "ear"})
    assert 'class="named"' not in picked
    assert "data-nudge" in picked
    get(client, f"figures/{hare.pk}/", data={"see": "cut"})
    assert "see-cut" in get(client, f"figures/{hare.pk}/"), "what was chosen is kept"
