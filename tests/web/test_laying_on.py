"""Colours by touch: a wool is taken up, then it is laid on the animal, where it is seen."""

import re

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told
from tests.web.shared import shared
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.colourways.touched import place_touched, wools_to_lay_on
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette
from wembit.web.studio.models import VIEWER


@shared
def hare(maker, owner):
    """A hare in a core of its own under a cover of moss."""
    moss = make.lot(owner, "moss", "50", srgb="#6f7d43").item
    figure = figure_with(maker, "Hare", ("body", "80"), ("head", "40"))
    post(maker, f"figures/{figure.pk}/part/body/layer/", role="cover", new_slot="back", share="100", coats="2")
    choose_fibre(owner, figure.pk, "back", moss.pk)
    return figure


def seen(figure):
    version = newest_version(figure)
    return parts_of(version), Palette.of(colourway_of(version))


def lay_on(client, figure, item, part="body", srgb="#6f7d43", way=None):
    way = colourway_of(newest_version(figure)).name if way is None else way
    given = {"do": "touched", "way": way, "part": part, "srgb": srgb, "item": item}
    return post(client, f"figures/{figure.pk}/colours/way/", **given)


def item_in(figure, slot):
    return seen(figure)[1].items.get(newest_version(figure).slots.get(name=slot).pk)


def test_the_place_seen_in_that_colour_is_meant_else_what_covers_the_part(hare):
    parts, palette = seen(hare)
    assert place_touched(parts, palette, "body", "#6F7D43") == "back"
    covers = [
        layer.slot.name for layer in next(p for p in parts if p.key == "body").layers.all() if layer.role == "cover"
    ]
    assert covers == ["main", "back"]
    assert place_touched(parts, palette, "body", "#123456") == "main", "what it is covered with"
    assert place_touched(parts, palette, "nobody", "#6f7d43") == ""


def test_the_wool_in_hand_is_laid_on_and_stays_in_hand(client, owner, hare):
    peat = make.lot(owner, "peat", "20", srgb="#3a2a22").item
    page = lay_on(client, hare, peat.pk)
    assert page.status_code == 200
    assert item_in(hare, "back") == peat
    assert re.search(rf'value="{peat.pk}"[^>]*checked', page.content.decode())
    assert post(client, "undo/").status_code == 302
    assert item_in(hare, "back").name == "moss"


def test_what_cannot_be_laid_on_is_told(client, owner, hare):
    moss = item_in(hare, "back")
    assert "Touch a wool first" in told(lay_on(client, hare, ""))
    assert "No wool lies there" in told(lay_on(client, hare, moss.pk, part="nobody"))
    assert "colourway is gone" in told(lay_on(client, hare, moss.pk, way="nowhere"))
    assert item_in(hare, "back") == moss


def test_another_studios_wool_is_not_there_and_a_viewer_lays_nothing_on(client, owner, hare):
    foreign = make.lot(make.studio_owner("Elsewhere", "wren"), "thrift", "5").item
    assert lay_on(client, hare, foreign.pk).status_code == 404
    owner.role = VIEWER
    owner.save()
    assert lay_on(client, hare, item_in(hare, "back").pk).status_code == 403
    assert 'id="lay-on"' not in get(client, f"figures/{hare.pk}/colours/")


def test_wools_lie_greys_first_from_light_to_dark_then_round_the_hues(owner):
    for name, srgb in (("soot", "#222222"), ("blue", "#2f5f7a"), ("chalk", "#efe9dc"), ("brick", "#a33a2a")):
        make.lot(owner, name, "5", srgb=srgb)
    make.lot(owner, "unknown", "5", srgb="")
    assert [each.name for each in wools_to_lay_on(owner.studio)] == ["chalk", "soot", "brick", "blue"]
