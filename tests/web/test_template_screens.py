"""Templates at true size and the wire to cut."""

import re
import xml.etree.ElementTree as ET

import pytest

from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.figures.models import Figure, Part
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure

POINT_MM = 25.4 / 72  # of PDF (ISO 32000-1): 72 points an inch


@shared
def heron(maker, owner) -> Figure:
    figure = figure_with(maker, "Heron & chick", ("body", "84"), ("wing", "60"), ("leg", "88"))
    post(maker, f"figures/{figure.pk}/part/leg/", shape="wrap")
    return figure


def wire(client, figure, key="leg", **given):
    return post(client, f"figures/{figure.pk}/part/{key}/wire/", **given)


def cuts(page: str) -> str:
    return words(re.search(r"Wire to cut.*?</table>", page)[0])


def plan(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette({}, {}))


def lines_of(pdf: bytes) -> list[tuple[float, float]]:
    """Lengths across and up of every straight stroke of two points, in mm, as the pages' own scale has them."""
    number = rb"(-?[\d.]+)"
    found = re.findall(rb"n " + number + b" " + number + rb" m " + number + b" " + number + rb" l S", pdf)
    return [(abs(float(c) - float(a)) * POINT_MM, abs(float(d) - float(b)) * POINT_MM) for a, b, c, d in found]


def test_the_line_in_the_pdf_is_100_mm(client, heron):
    answer = client.get(f"{client.base}figures/{heron.pk}/templates/pdf/")
    assert answer["Content-Type"] == "application/pdf"
    assert "heron-chick.pdf" in answer["Content-Disposition"]
    pdf = answer.content
    assert any(across == pytest.approx(100, abs=0.01) and up < 0.01 for across, up in lines_of(pdf))
    width, height = map(float, re.search(rb"/MediaBox \[ 0 0 ([\d.]+) ([\d.]+) \]", pdf).groups())
    assert (width * POINT_MM, height * POINT_MM) == pytest.approx((210, 297), abs=0.01)
    assert pdf.count(b"/Type /Page\n") == len(re.findall("<svg", get(client, f"figures/{heron.pk}/templates/")))


def test_a_sheet_is_an_svg_of_its_true_size(client, heron):
    answer = client.get(f"{client.base}figures/{heron.pk}/templates/1.svg?part=wing")
    assert answer["Content-Type"] == "image/svg+xml"
    sheet = ET.fromstring(answer.content)
    assert sheet.get("width") == "210.0mm"
    assert sheet.get("viewBox") == "0 0 210.0 297.0"
    paths = [path.get("d") for path in sheet.iter("{http://www.w3.org/2000/svg}path")]
    xs = [float(x) for x, _ in re.findall(r"[ML](-?[\d.]+) (-?[\d.]+)", paths[0])]
    assert max(xs) - min(xs) == pytest.approx(60, abs=0.02)
    check = next(path for path in sheet.iter("{http://www.w3.org/2000/svg}path") if path.get("id") == "check")
    assert check.get("d") == "M10.00 283.00L110.00 283.00"
    assert client.get(f"{client.base}figures/{heron.pk}/templates/9.svg").status_code == 404


def test_the_scale_of_the_figure_is_that_of_its_templates(client, heron):
    post(client, f"figures/{heron.pk}/size/", scale="2")
    svg = client.get(f"{client.base}figures/{heron.pk}/templates/1.svg?part=wing").content.decode()
    xs = [float(x) for x, _ in re.findall(r"[ML](-?[\d.]+) (-?[\d.]+)", re.search(r'path d="([^"]+)Z"', svg)[1])]
    assert max(xs) - min(xs) == pytest.approx(120, abs=0.05)


def test_what_is_larger_than_the_paper_is_split(client, heron):
    post(client, f"figures/{heron.pk}/size/", scale="6")
    page = words(get(client, f"figures/{heron.pk}/templates/", data={"part": "wing", "paper": "letter"}))
    assert "row 1 of" in page
    assert "lay over by 10 mm" in page


def test_wire_is_cut_with_its_bare_end_doubled_or_through(client, heron):
    assert "2 101 mm" in cuts(get(client, f"figures/{heron.pk}/")), "88 mm and 13 mm bare"
    wire(client, heron, gauge_mm="1.5", bare_mm="3 cm")
    assert "1.5 mm wire 2 118 mm" in cuts(get(client, f"figures/{heron.pk}/"))
    wire(client, heron, gauge_mm="1", bare_mm="14", doubled="on")
    assert "1 mm wire 2 190 mm" in cuts(get(client, f"figures/{heron.pk}/"))
    wire(client, heron, gauge_mm="1", bare_mm="0", loop_mm="6", through_mm="34", wire_kind="pipe_cleaner")
    assert "1 mm pipe cleaner 1 222 mm" in cuts(get(client, f"figures/{heron.pk}/"))
    assert "needles break" in words(get(client, f"figures/{heron.pk}/?part=leg"))


def test_a_wire_in_a_body_takes_its_room_off_the_core_unless_it_comes_out_again(client, heron):
    bare = plan(heron).parts[0].layers[0].grams.rule_g
    wire(client, heron, "body", gauge_mm="3", bare_mm="0", doubled="on")
    stays = plan(heron).parts[0].layers[0].grams.rule_g
    assert stays < bare
    wire(client, heron, "body", gauge_mm="3", bare_mm="0", doubled="on", former="on")
    assert plan(heron).parts[0].layers[0].grams.rule_g == pytest.approx(bare)
    assert "comes out again" in cuts(get(client, f"figures/{heron.pk}/"))
    wire(client, heron, "body", no_wire="1")
    assert Part.objects.get(version__figure=heron, key="body").armature == {}


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"gauge_mm": "thin"}, "cannot be read"),
        ({"gauge_mm": "12"}, "more than 10 mm"),
        ({"bare_mm": "-3"}, "below nothing"),
    ],
)
def test_wire_that_cannot_be_is_told(client, heron, given, said):
    assert said in told(wire(client, heron, **given))


def test_a_wire_thicker_than_its_sleeve_is_told(client, heron):
    post(client, f"figures/{heron.pk}/part/leg/", diameter_mm="4")
    assert "thinner than its sleeve" in told(wire(client, heron, gauge_mm="5"))
    assert Part.objects.get(version__figure=heron, key="leg").shape["wire_mm"] < 4


def test_a_figure_without_shapes_has_no_sheet(client, owner):
    post(client, "figures/new/", name="Cloud")
    cloud = Figure.objects.get(name="Cloud")
    assert "No part with a shape" in get(client, f"figures/{cloud.pk}/templates/")
    assert client.get(f"{client.base}figures/{cloud.pk}/templates/pdf/").content.startswith(b"%PDF")
