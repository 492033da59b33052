"""Markings drawn on the figure's drawing: a press, a line, a loop; on one flank or both; weighed, changed, taken back."""

import pytest

from tests.web.forms import form_at
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure

LINE = " ".join(f"{x},40" for x in range(-20, 21, 4))
LEAST = 0.02  # g of a piece
WIDE = "0,20 20,24 30,32 30,44 20,52 0,56 -20,52 -30,44 -30,32 -20,24 0,20"
LOOP = "0,30 8,34 12,42 8,50 0,52 -8,48 -10,38 -6,31 0,30"


@shared
def badger(maker, owner):
    return figure_with(maker, "Badger", ("body", "90"), ("ear", "24"), ("eye", "4"))


def marks(figure, key="body") -> list[dict]:
    part = next(part for part in parts_of(newest_version(figure)) if part.key == key)
    return [layer.rule for layer in part.layers.all() if layer.role == "detail"]


def drawn(client, figure, way, key="body", view="side", slot="stripe", **more):
    return post(client, f"figures/{figure.pk}/part/{key}/mark/", way=way, view=view, mark_slot=slot, **more)


def test_the_drawer_stands_by_the_part_and_says_how(client, badger):
    page = get(client, f"figures/{badger.pk}/", data={"part": "body"})
    assert "data-marking" in page
    assert "Press for a spot, draw a line, or loop a patch" in page
    form = form_at(page, "/mark/")
    assert form.fields["both"] == "on", "stripes of a body lie on both flanks"


def drawn_alone(client, badger) -> dict:
    drawn(client, badger, "5,40", slot="spot")
    return marks(badger)[-1]


def test_a_line_a_loop_and_a_press_are_told_apart(client, badger):
    assert drawn(client, badger, LINE, both="on").status_code in (200, 302)
    drawn(client, badger, LOOP, slot="patch")
    drawn(client, badger, "5,40", slot="spot", both="on")
    line, loop, spot = marks(badger)
    assert line["both"] is True
    assert line["width_mm"] > 1
    assert {round(angle) for _, angle in line["drawn"]} <= set(range(-180, 0)), "the flank that is seen from the side"
    assert loop["both"] is False
    assert "width_mm" not in loop
    assert len(loop["drawn"]) >= 6
    assert spot["pieces"] == 2
    alone = drawn_alone(client, badger)
    assert spot["area_mm2"] == pytest.approx(2 * alone["area_mm2"], abs=0.2), "as large on either flank as on one"


def test_what_is_drawn_on_both_flanks_weighs_twice_and_is_seen_from_either_side(client, badger):
    def grams():
        version = newest_version(badger)
        plan = plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))
        return next(part for part in plan.parts if part.part.key == "body").layers[2].grams.rule_g

    drawn(client, badger, WIDE, both="on")
    page = get(client, f"figures/{badger.pk}/", data={"part": "body", "layer": "2"})
    assert "as it was drawn" in page
    both = grams()
    form = form_at(page, "/layer/2/")
    form.fields.pop("both")
    form.send(client)
    assert marks(badger)[0]["both"] is False
    assert both > 2 * LEAST, "large enough that the least of a piece does not hide it"
    assert grams() == pytest.approx(both / 2, rel=1e-6)
    steps = words(get(client, f"figures/{badger.pk}/order/", data={"step": "detail:body"}))
    assert "a patch about" in steps


def test_a_drawn_line_has_a_width_to_change_and_becomes_spots(client, badger):
    drawn(client, badger, LINE)
    page = get(client, f"figures/{badger.pk}/", data={"part": "body", "layer": "2"})
    form_at(page, "/layer/2/").send(client, width_mm="7")
    assert marks(badger)[0]["width_mm"] == 7
    assert len(marks(badger)[0]["drawn"]) > 1, "its way stays"
    post(client, f"figures/{badger.pk}/part/body/layer/2/", measured="spots")
    assert set(marks(badger)[0]) == {"spots", "across_mm"}


def test_on_a_flat_ear_a_marking_lies_where_it_was_drawn_on_the_face_that_is_seen(client, badger):
    drawn(client, badger, LINE, key="ear", slot="inside")
    line = marks(badger, "ear")[0]
    assert len(line["drawn"]) >= 2
    assert line["width_mm"] >= 1
    assert "as it was drawn" in get(client, f"figures/{badger.pk}/", data={"part": "ear", "layer": "1"})
    drawn(client, badger, "5,60", key="ear", slot="spot")
    assert "width_mm" not in marks(badger, "ear")[1], "a press is a spot"


def test_a_marking_follows_the_part_when_it_grows(client, badger):
    drawn(client, badger, LOOP)
    before = marks(badger)[0]["drawn"]
    post(client, f"figures/{badger.pk}/part/body/", length_mm="120")
    assert marks(badger)[0]["drawn"] == before, "shares of the part, not millimetres"


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"way": ""}, "Press, draw a line or a loop"),
        ({"way": "x,y 1e999,3 nan,2"}, "Press, draw a line or a loop"),
        ({"way": "0,0", "view": "inside"}, "Draw on one of the drawings"),
        ({"way": "0,0", "slot": ""}, "colour"),
    ],
)
def test_what_cannot_be_drawn_is_told(client, badger, given, said):
    answer = drawn(client, badger, **given)
    assert said in told(answer)
    assert marks(badger) == []


def test_an_eye_takes_no_marking_and_z_takes_one_back(client, badger):
    assert "no skin" in told(drawn(client, badger, LINE, key="eye"))
    drawn(client, badger, LINE)
    post(client, "undo/")
    assert marks(badger) == []


def test_a_way_of_thousands_of_points_is_kept_short(client, badger):
    wild = " ".join(f"{(n * 7) % 60 - 30},{30 + (n * 13) % 30}" for n in range(1500))
    answer = drawn(client, badger, wild)
    assert answer.status_code in (200, 302), told(answer)
    assert len(marks(badger)[0]["drawn"]) <= 61


def test_a_new_part_sits_where_the_drawing_was_touched(client, badger):
    def seat(key):
        return next(part for part in parts_of(newest_version(badger)) if part.key == key).seat

    page = get(client, f"figures/{badger.pk}/")
    assert "Touch where it sits" in page
    form = form_at(page, f"figures/{badger.pk}/part/")
    form.send(client, kind="horn", length="20", view="side", way="-25,45")
    first = seat("horn")
    assert first["on"] == "body"
    form.send(client, kind="fin", length="20", view="side", way="30,40")
    second = seat("fin")
    assert second["t"] > first["t"], "further forward"
    form.send(client, kind="tail", length="20", view="side", way="900,900")
    assert seat("tail")["t"] == pytest.approx(0.04), "beside the figure: where its kind sits"
    form.send(client, kind="gill", length="12", view="nowhere", way="x")
    assert seat("gill")["on"] in ("body", "ear", "head")


def test_petals_of_their_kind_stand_round_what_they_sit_on(client, owner):
    flower = figure_with(client, "Sea pink", ("ball", "20"), ("petal", "18"))
    petal = next(part for part in parts_of(newest_version(flower)) if part.key == "petal")
    assert (petal.count, petal.seat["row"]) == (6, {"how": "round"})
