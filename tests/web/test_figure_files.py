"""Figures out as files and in again without loss."""

import json
import xml.etree.ElementTree as ET

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from jsonschema import Draft202012Validator

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, text, told
from tests.web.shared import shared
from wembit.core.craft.armature import COATINGS, METALS
from wembit.demo.figures import FIGURES
from wembit.demo.loader import load_figure
from wembit.web.figures.actions.take_in_figure import take_in_figure
from wembit.web.figures.files.figure_file import figure_as_json, read_file, schema
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure


@shared
def wools(owner):
    names = sorted({fibre for figure in FIGURES for fibre in figure.slots.values()} | {
        fibre for figure in FIGURES for way in figure.ways.values() for fibre in way.values()})  # fmt: skip
    return {name: make.lot(owner, name).item for name in names}


def plan_of(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))


def take_in(client, content, name="figure.json"):
    if isinstance(content, dict):
        content = json.dumps(content).encode()
    return client.post(client.base + "figures/take-in/", {"file": SimpleUploadedFile(name, content)})


@pytest.mark.sampled("demo figures out and in", 3)
@pytest.mark.parametrize("demo", FIGURES, ids=lambda each: each.name)
def test_every_demo_figure_goes_out_and_comes_in_without_loss(owner, wools, demo):
    figure = load_figure(owner.studio, demo, wools).version.figure
    out = figure_as_json(figure)
    Draft202012Validator(schema()).validate(json.loads(json.dumps(out)))
    copy = take_in_figure(owner, read_file(json.dumps(out).encode()))
    assert copy.name == f"{demo.name} (2)"
    assert figure_as_json(copy) == {**out, "name": copy.name}
    assert plan_of(copy).all.p50 == pytest.approx(plan_of(figure).all.p50)


def test_the_schema_is_a_sound_one_and_is_served(client, owner):
    Draft202012Validator.check_schema(schema())
    assert json.loads(get(client, "figures/schema/")) == schema()


def test_the_schema_names_the_metals_and_coverings_of_the_trade():
    wire = schema()["$defs"]["part"]["properties"]["armature"]["properties"]
    assert wire["metal"]["enum"] == list(METALS)
    assert wire["coating"]["enum"] == list(COATINGS)


def test_wools_of_another_studio_are_found_by_name(client, owner, wools):
    figure = load_figure(owner.studio, FIGURES[0], wools).version.figure
    content = client.get(f"{client.base}figures/{figure.pk}/json/").content
    ana = make.studio_owner("Dune", "ana")
    fawn = make.lot(ana, "Fawn").item
    other = signed_in(ana)
    other.base = "/s/dune/"
    assert take_in(other, content).status_code == 302
    theirs = Figure.objects.get(studio=ana.studio)
    chosen = {choice.slot.name: choice.item for choice in colourway_of(newest_version(theirs)).choices.all()}
    assert chosen == {"back": fawn}


def small(**more) -> dict:
    layers = [{"role": "core", "slot": "core", "rule": {"share": 1}}]
    seat = {"on": None, "centre_mm": 15}
    shape = {"kind": "sphere", "diameter_mm": 30}
    part = {"key": "ball", "name": "ball", "shape": shape, "firmness": "firm", "seat": seat, "layers": layers}
    return {"wembit_figure": 1, "name": "Pebble", "slots": ["core"], "parts": [part], **more}


def test_the_least_file_is_a_figure(client, owner):
    assert take_in(client, small()).status_code == 302
    assert plan_of(Figure.objects.get()).all.p50 > 0


def test_a_taken_in_figure_without_any_colour_left_gets_a_part(client, owner):
    take_in(
        client, small(slots=["skin"], parts=[part(layers=[{"role": "core", "slot": "skin", "rule": {"share": 1}}])])
    )
    figure = Figure.objects.get()
    key = parts_of(newest_version(figure))[0].key
    post(client, f"figures/{figure.pk}/part/{key}/layer/0/drop/")
    assert not newest_version(figure).slots.exists()
    assert post(client, f"figures/{figure.pk}/part/", kind="ball", length="20").status_code == 302
    assert [slot.name for slot in newest_version(figure).slots.all()] == ["main"]


def part(**more) -> dict:
    return {**small()["parts"][0], **more}


@pytest.mark.sampled("files that cannot be", 5)
@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "no JSON"),
        (b"\xff\xfe", "no JSON"),
        (b"[1, 2]", "no figure of Wembit"),
        (b'{"wembit_figure": 1, "name": NaN}', "no JSON"),
        (b" " * 2_100_000, "larger than 2 MB"),
        (b"[" * 100_000, "no JSON"),
        (small(wembit_figure=2), "of format 2; this Wembit reads format 1"),
        (small(name=""), "name:"),
        (small(wings=3), "wings"),
        (small(parts=[part(count=0)]), "parts[0].count"),
        (small(parts=[part(key="Ball!")]), "parts[0].key"),
        (small(parts=[part(shape={"kind": "cloud"})]), "parts[0].shape.kind"),
        (small(parts=[part(shape={"kind": "sphere", "diameter_mm": -3})]), "parts[0].shape.diameter_mm"),
        (small(parts=[part(), part()]), "stands twice"),
        (small(parts=[part(seat={"on": "nobody", "t": 0.5})]), "not there"),
        (small(parts=[part(layers=[{"role": "coat", "slot": "x", "rule": {}}])]), "is missing"),
        (small(parts=[part(layers=[{"role": "detail", "slot": "x", "rule": {}}])]), "lacks"),
        (
            small(
                parts=[part(relations=[{"size": "diameter_mm", "of": "ball", "of_size": "diameter_mm", "share": 1}])]
            ),
            "ring",
        ),
        (small(colourways=[{"name": "a", "fibres": {}}, {"name": "A", "fibres": {}}]), "stands twice"),
    ],
    ids=range(19),
)
def test_a_file_that_cannot_be_is_told_precisely_and_leaves_nothing(client, owner, content, said):
    assert said in told(take_in(client, content)).replace("&#x27;", "'")
    assert not Figure.objects.exists()


def test_the_drawing_is_an_svg_of_its_true_size(client, owner, wools):
    figure = load_figure(owner.studio, FIGURES[0], wools).version.figure
    answer = client.get(f"{client.base}figures/{figure.pk}/svg/")
    assert answer["Content-Type"] == "image/svg+xml"
    assert "<a " not in text(answer)
    drawing = ET.fromstring(answer.content)
    assert float(drawing.get("width").removesuffix("mm")) == pytest.approx(120 + 16, abs=12)


def test_a_name_with_marks_does_no_harm_in_a_file(client, owner):
    post(client, "figures/new/", name='<script>"&')
    figure = Figure.objects.get()
    post(client, f"figures/{figure.pk}/part/", kind="body", length="40")
    ET.fromstring(client.get(f"{client.base}figures/{figure.pk}/svg/").content)
    answer = client.get(f"{client.base}figures/{figure.pk}/json/")
    assert json.loads(answer.content)["name"] == '<script>"&'
    assert "<" not in answer["Content-Disposition"]


def test_a_nul_written_in_a_file_is_left_out(client):
    figure = figure_with(client, "Ball", ("body", "30"))
    file = json.loads(client.get(f"{client.base}figures/{figure.pk}/json/").content)
    file["name"], file["story"] = "Pebble\0", "a back\\slash \\\0 stays"
    upload = SimpleUploadedFile("pebble.json", json.dumps(file).encode())
    assert post(client, "figures/take-in/", file=upload).status_code == 302
    pebble = Figure.objects.get(name="Pebble")
    assert pebble.story == "a back\\slash \\ stays"


def test_a_table_s_name_with_a_nul_is_no_trouble(client):
    upload = SimpleUploadedFile("bags\0.csv", b"name,form,amount\nKelp,tops,3 g\n")
    assert post(client, "stash/files/", table=upload).status_code in (302, 422)
