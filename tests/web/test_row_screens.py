"""Several of a part in a row, by the form of a part: drawn, weighed, begun and written to a file."""

import json
import re

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.web import factories as make
from tests.web.forms import form_at
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import PieceLayer
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Figure, Part
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.figures.to_core.seating import placed


@shared
def axolotl(maker, owner):
    figure = figure_with(maker, "Axolotl", ("body", "80"), ("tail", "40"))
    post(maker, f"figures/{figure.pk}/part/tail/", count="6", name="gill")
    return figure


def tail(figure) -> Part:
    return next(part for part in parts_of(newest_version(figure)) if part.key == "tail")


def grams(figure) -> float:
    version = newest_version(figure)
    plan = plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))
    return next(sum(layer.grams.rule_g for layer in part.layers) for part in plan.parts if part.part.key == "tail")


def in_a_row(client, figure, **given):
    return post(client, f"figures/{figure.pk}/part/tail/", **{"row_how": "round", **given})


def test_six_stand_evenly_round_it_and_one_by_one_again(client, axolotl):
    assert "Several in a row" in get(client, f"figures/{axolotl.pk}/", data={"part": "tail"})
    before = grams(axolotl)
    assert in_a_row(client, axolotl).status_code in (200, 302)
    assert tail(axolotl).seat["row"]["how"] == "round"
    pieces = [piece for piece in placed(parts_of(newest_version(axolotl))) if piece.name == "tail"]
    assert len(pieces) == 6
    assert len({round(piece.seat.angle or 0) % 360 for piece in pieces}) == 6
    assert grams(axolotl) == pytest.approx(before), "as many of the same size weigh the same"
    in_a_row(client, axolotl, row_how="")
    assert "row" not in tail(axolotl).seat


def test_a_row_that_grows_smaller_weighs_less_and_says_so_everywhere(client, owner, axolotl):
    for slot in newest_version(axolotl).slots.all():
        choose_fibre(owner, axolotl.pk, slot.name, make.lot(owner, f"wool {slot.name}", "200").item_id)
    before = grams(axolotl)
    in_a_row(client, axolotl, row_how="along", row_to="90", row_size="50", row_spread="360", row_turn="10")
    row = tail(axolotl).seat["row"]
    assert (row["how"], row["to"], row["size"], row["turn"]) == ("along", 0.9, 0.5, 10)
    cubes = [(1 - n / 5 * 0.5) ** 3 for n in range(6)]
    assert grams(axolotl) == pytest.approx(before * sum(cubes) / 6, rel=1e-3)
    assert "the last of the row 50 % of it" in words(
        get(client, f"figures/{axolotl.pk}/order/", data={"step": "make:tail"})
    )
    assert "the last of the row 50 %" in words(get(client, f"figures/{axolotl.pk}/templates/"))
    begin_making(owner, make.project(owner, axolotl, count=1).pk)
    each = [layer.rule_g for layer in PieceLayer.objects.filter(piece__part_key="tail").order_by("piece__position")]
    assert len(each) == 6
    assert sum(each) == pytest.approx(grams(axolotl))
    assert [g / each[0] for g in each] == pytest.approx(cubes, rel=1e-6)


def test_the_form_as_it_stands_changes_nothing(client, axolotl):
    in_a_row(client, axolotl, row_how="over", row_to="80", row_spread="200", row_size="70", row_turn="15")
    post(client, f"figures/{axolotl.pk}/part/tail/", row_shown="1", row_both="on")
    before = tail(axolotl).seat
    page = get(client, f"figures/{axolotl.pk}/", data={"part": "tail"})
    form = form_at(page, "part/tail/")
    assert form.fields["row_to"] == "80"
    form.send(client)
    assert tail(axolotl).seat == before
    assert before["row"]["both"] is True


@pytest.mark.parametrize(
    ("name", "wrong"),
    [("row_how", "knitted"), ("row_to", "120"), ("row_spread", "400"), ("row_size", "1"), ("row_turn", "999")],
)
def test_what_cannot_be_is_told_and_kept(client, axolotl, name, wrong):
    in_a_row(client, axolotl)
    before = tail(axolotl).seat
    answer = post(client, f"figures/{axolotl.pk}/part/tail/", **{name: wrong})
    assert told(answer)
    if name != "row_how":
        assert f'value="{wrong}"' in answer.content.decode()
    assert tail(axolotl).seat == before


def test_a_row_goes_into_the_file_and_comes_back(client, axolotl):
    in_a_row(client, axolotl, row_how="along", row_to="90", row_size="60")
    sent = client.get(client.base + f"figures/{axolotl.pk}/json/").content
    told_row = next(part for part in json.loads(sent)["parts"] if part["key"] == "tail")["seat"]["row"]
    assert told_row == tail(axolotl).seat["row"]
    client.post(client.base + "figures/take-in/", {"file": SimpleUploadedFile("axolotl.json", sent)})
    copies = Figure.objects.exclude(pk=axolotl.pk)
    assert copies.exists()
    assert tail(copies.first()).seat["row"] == told_row


def test_z_takes_the_row_back(client, axolotl):
    in_a_row(client, axolotl)
    post(client, "undo/")
    assert "row" not in tail(axolotl).seat
    assert re.search("gill", words(get(client, f"figures/{axolotl.pk}/")))


def test_the_wires_of_a_row_are_cut_by_the_size_of_each(client, axolotl):
    post(client, f"figures/{axolotl.pk}/part/tail/wire/", gauge_mm="1", bare_mm="10")
    in_a_row(client, axolotl, row_how="along", row_to="90", row_size="50")
    page = words(get(client, f"figures/{axolotl.pk}/", data={"part": "tail"}))
    cuts = re.findall(r"1 × (\d+) mm", re.search(r"Wire in it (.*?) of 1 mm", page)[1])
    assert len(cuts) == 6
    assert int(cuts[-1]) - 10 == pytest.approx((int(cuts[0]) - 10) / 2, abs=1)
    step = words(get(client, f"figures/{axolotl.pk}/order/", data={"step": "wire:tail"}))
    assert f"1 × {cuts[0]} mm, 1 × {cuts[1]} mm" in step
