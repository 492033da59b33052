"""A figure that was made larger has one size: fields, grams, drawing, bench, templates, order of work and file agree."""

import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.web.helpers import figure_with, get, post, words
from tests.web.test_every_field_of_the_demo import demo_figure
from wembit.core.grams import estimate as core
from wembit.demo.figures import FIGURES
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import LOOSE_END, Palette, plan_figure, request_of
from wembit.web.figures.to_core.scaling import scaled_parts
from wembit.web.figures.to_core.wiring import wires


def rows_of(figure):
    version = newest_version(figure)
    return version, parts_of(version), Palette.of(colourway_of(version))


@pytest.mark.sampled("demo figures stored larger", 3)
@pytest.mark.parametrize("times", [0.6, 1.8])
@pytest.mark.parametrize("name", [figure.name for figure in FIGURES])
def test_what_is_stored_larger_takes_what_the_estimate_says_of_that_scale(owner, name, times):
    version, parts, palette = rows_of(demo_figure(owner, name))
    wanted = core.estimate({**request_of(version, parts, palette), "scale": times})
    scaled = scaled_parts(parts, times, owner.studio.habits.get(LOOSE_END, 0.0))
    got = core.estimate(request_of(version, scaled, palette))
    for one, two in zip(wanted.parts, got.parts, strict=True):
        assert two.volume_mm3 == pytest.approx(one.volume_mm3, rel=1e-9), one.name
        for mine, yours in zip(one.layers, two.layers, strict=True):
            assert yours.rule_g == pytest.approx(mine.rule_g, rel=2e-4), (one.name, mine.role)


def test_every_room_says_the_sizes_that_it_has_now(client, owner):
    heron = figure_with(client, "Heron", ("body", "60"), ("leg", "50"), ("eye", "4"))
    post(client, f"figures/{heron.pk}/part/leg/wire/", gauge="1", bare="13")
    post(client, f"figures/{heron.pk}/list/fit/", notion="loop", amount="50", part="", words="", size="")
    before = newest_version(heron).parts.get(key="body").shape
    wire_before = wires(parts_of(newest_version(heron)))[0]
    post(client, f"figures/{heron.pk}/size/", scale="1.5")
    version = newest_version(heron)
    body = version.parts.get(key="body").shape
    long = "length_mm" if "length_mm" in body else "diameter_mm"
    assert body[long] == pytest.approx(before[long] * 1.5)
    field = get(client, f"figures/{heron.pk}/?part=body")
    assert f'value="{body[long]:g}"' in field
    assert f"{body[long]:g}" in words(get(client, f"figures/{heron.pk}/order/?step=make:body"))
    assert f"{body[long]:g}" in words(get(client, f"figures/{heron.pk}/templates/"))
    assert "6 mm" in words(get(client, f"figures/{heron.pk}/list/")), "the eyes have grown"
    assert "75 mm" in words(get(client, f"figures/{heron.pk}/list/")), "the loop, too"
    wire = wires(parts_of(version))[0]
    assert (wire.gauge_mm, wire.bare_mm) == (1, 13)
    assert wire.length_mm == pytest.approx(wire_before.length_mm * 1.5)
    file = json.loads(client.get(f"{client.base}figures/{heron.pk}/json/").content)
    assert "scale" not in file
    assert next(part for part in file["parts"] if part["key"] == "body")["shape"] == body
    post(client, "undo/")
    assert newest_version(heron).parts.get(key="body").shape == before


def test_an_older_file_with_a_scale_is_taken_in_at_that_size(client, owner):
    ball = figure_with(client, "Pebble", ("ball", "30"))
    file = json.loads(client.get(f"{client.base}figures/{ball.pk}/json/").content)
    file |= {"scale": 2.0, "name": "Boulder"}
    answer = post(client, "figures/take-in/", file=SimpleUploadedFile("b.json", json.dumps(file).encode()))
    assert answer.status_code == 302
    boulder = Figure.objects.get(name="Boulder")
    assert newest_version(boulder).parts.get().shape["diameter_mm"] == 60
    small, large = (plan_figure(*rows_of(figure)).all.p50 for figure in (ball, boulder))
    assert large == pytest.approx(8 * small, rel=1e-6)
