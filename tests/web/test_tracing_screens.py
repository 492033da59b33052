"""Parts drawn over a picture of one's own."""

import io
import math
import re

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import forms_of
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from tests.web.test_stash_screens import photo
from wembit.core.shape.solids import solid
from wembit.web.figures.models import Figure, Part, Reference, Tracing
from wembit.web.figures.queries import newest_version

HTMX = {"HX-Request": "true"}


@shared
def heron(maker, owner) -> Figure:
    post(maker, "figures/new/", name="Heron")
    return Figure.objects.get(name="Heron")


def begin(client, figure, kind="silhouette", **given) -> Tracing:
    answer = post(client, f"figures/{figure.pk}/draw/", kind=kind, **given)
    assert answer.status_code == 302, told(answer)
    return Tracing.objects.latest("made_at")


def rows(points) -> dict:
    return {
        f"{axis}_{n}": f"{value:.2f}" for n, point in enumerate(points) for axis, value in zip("xy", point, strict=True)
    }


CIRCLE = [
    (60 + 20 * math.cos(math.pi + k * math.pi / 16), 60 + 20 * math.sin(math.pi + k * math.pi / 16)) for k in range(32)
]


def board(tracing) -> str:
    return f"figures/{tracing.figure_id}/draw/{tracing.pk}/"


def test_a_circle_drawn_on_the_bare_grid_becomes_a_ball_of_wool(client, heron):
    tracing = begin(client, heron)
    assert post(client, board(tracing), **rows(CIRCLE), firmness="medium").status_code == 302
    page = words(get(client, board(tracing)))
    grams = 4 / 3 * math.pi * 2**3 * 0.13 * 1.08
    assert float(re.search(r"([\d.]+) g ?[\d.]+–", page)[1]) == pytest.approx(grams, rel=0.02)
    assert "40 mm long" in page
    answer = post(client, board(tracing) + "keep/", kind="body", name="trunk")
    assert answer.status_code == 302
    assert answer["Location"].endswith("?part=trunk")
    part = Part.objects.get(version__figure=heron, key="trunk")
    assert part.shape["kind"] == "silhouette"
    assert part.firmness == "medium"
    assert solid({**part.shape}).volume == pytest.approx(4 / 3 * math.pi * 20**3, rel=0.02)


def test_a_known_distance_gives_the_scale_and_the_points_stay_on_the_picture(client, heron):
    tracing = begin(client, heron, photo=photo(), words="from the hide")
    post(client, board(tracing), **rows(CIRCLE))
    before = Tracing.objects.get(pk=tracing.pk)
    marks = {"mark_x0": "100", "mark_y0": "500", "mark_x1": "500", "mark_y1": "500", "mark_mm": "20 cm", "scaled": "on"}
    post(client, board(tracing), **rows([(x, y) for x, y in CIRCLE]), **marks)
    after = Tracing.objects.get(pk=tracing.pk)
    assert after.mm_a_unit == pytest.approx(0.5)
    assert after.points[3] == pytest.approx(before.points[3], abs=0.05)


def test_a_flat_piece_and_a_wire(client, heron):
    post(client, f"figures/{heron.pk}/part/", kind="body", length="80")
    wing = begin(client, heron, "slab")
    post(client, board(wing), **rows([(20, 50), (20, 30), (100, 30), (100, 50)]), thickness_mm="4")
    assert post(client, board(wing) + "keep/", kind="wing").status_code == 302
    part = Part.objects.get(version__figure=heron, key="wing")
    assert solid({**part.shape, "outline": part.shape["outline"]}).volume == pytest.approx(80 * 20 * 4, rel=1e-3)
    neck = begin(client, heron, "wire")
    post(client, board(neck), **rows([(50, 20), (65, 35), (60, 60)]), diameter_mm="12", wire_mm="1.5")
    assert post(client, board(neck) + "keep/", kind="neck").status_code == 302
    part = Part.objects.get(version__figure=heron, key="neck")
    assert part.shape["length_mm"] == pytest.approx(math.hypot(15, 15) + math.hypot(5, 25), abs=0.02)
    assert [round(turn) for _, turn in part.seat["bends"]] == [0, 56]
    assert "neck" in get(client, f"figures/{heron.pk}/?part=neck")


def test_a_part_is_given_the_drawn_shape(client, heron):
    post(client, f"figures/{heron.pk}/part/", kind="body", length="80")
    tracing = begin(client, heron)
    post(client, board(tracing), **rows(CIRCLE))
    post(client, board(tracing) + "keep/", part="body")
    assert Part.objects.get(version=newest_version(heron), key="body").shape["kind"] == "silhouette"


def test_what_followed_a_size_that_the_drawn_shape_has_not_is_let_go(client, heron):
    for kind, length in (("body", "80"), ("head", "30")):
        post(client, f"figures/{heron.pk}/part/", kind=kind, length=length)
    head = Part.objects.get(version=newest_version(heron), key="head")
    given = {"size": "width_mm", "share": "half", "of": "body/height_mm"}  # an outline has no height
    assert post(client, f"figures/{heron.pk}/part/head/follow/", **given).status_code == 302
    assert Part.objects.get(pk=head.pk).relations
    tracing = begin(client, heron)
    post(client, board(tracing), **rows(CIRCLE))
    assert post(client, board(tracing) + "keep/", part="body").status_code == 302
    assert not Part.objects.get(pk=head.pk).relations


@pytest.mark.parametrize(
    ("kind", "points", "said"),
    [
        ("silhouette", [(10, 10), (40, 40), (40, 10), (10, 40)], "crosses itself"),
        ("slab", [(10, 10), (40, 40)], "at least 3 points"),
        ("wire", [(10, 10)], "at least 2 points"),
        ("wire", [(10, 10), (10, 10)], "0.1 mm"),
    ],
)
def test_what_cannot_be_a_part_is_told_and_kept(client, heron, kind, points, said):
    tracing = begin(client, heron, kind)
    post(client, board(tracing), **rows(points))
    assert said in get(client, board(tracing))
    assert len(Tracing.objects.get(pk=tracing.pk).points) == len(points)
    assert said in told(post(client, board(tracing) + "keep/", kind="body"))
    assert not Part.objects.filter(version__figure=heron).exists()


def test_a_wire_thicker_than_its_sleeve_is_told(client, heron):
    tracing = begin(client, heron, "wire")
    post(client, board(tracing), **rows([(10, 10), (60, 10)]), diameter_mm="1", wire_mm="1.5")
    assert "thinner than its sleeve" in get(client, board(tracing))


def test_points_that_cannot_be_read_are_told_and_nothing_is_lost(client, heron):
    tracing = begin(client, heron)
    post(client, board(tracing), **rows(CIRCLE))
    answer = post(client, board(tracing), **{**rows(CIRCLE), "x_3": "left"})
    assert "Point 4" in text(answer) or answer.status_code == 422
    assert len(Tracing.objects.get(pk=tracing.pk).points) == len(CIRCLE)
    same = {"mark_x0": "5", "mark_y0": "5", "mark_x1": "5", "mark_y1": "5", "mark_mm": "10", "scaled": "on"}
    assert "apart" in told(post(client, board(tracing), **rows(CIRCLE), **same))


def test_a_point_is_dropped_and_one_added(client, heron):
    tracing = begin(client, heron)
    post(client, board(tracing), **rows(CIRCLE[:5]))
    post(client, board(tracing), **rows(CIRCLE[:6]), drop_2="on")
    assert len(Tracing.objects.get(pk=tracing.pk).points) == 5


def test_the_weight_follows_without_the_page(client, heron):
    tracing = begin(client, heron)
    answer = client.post(client.base + board(tracing), rows(CIRCLE), headers=HTMX)
    assert answer.status_code == 200
    assert 'id="drawn-weight"' in text(answer)
    assert "<html" not in text(answer)


def test_weighing_while_a_point_moves_keeps_nothing(client, heron):
    tracing = begin(client, heron)
    post(client, board(tracing), **rows(CIRCLE))
    smaller = [(x / 2, y / 2) for x, y in CIRCLE]
    answer = client.post(client.base + board(tracing), {**rows(smaller), "weigh": "1"}, headers=HTMX)
    assert "20 mm long" in words(text(answer))
    assert Tracing.objects.get(pk=tracing.pk).points[0] == pytest.approx([160, 400], abs=0.1)


def test_a_picture_is_made_small_and_stripped(client, heron):
    big = Image.new("RGB", (3000, 1500), "#8899aa")
    exif = big.getexif()
    exif[0x010E] = "where it was taken"
    out = io.BytesIO()
    big.save(out, "JPEG", exif=exif)
    begin(client, heron, photo=SimpleUploadedFile("toy.jpg", out.getvalue()))
    kept = Reference.objects.get()
    with Image.open(kept.image.path) as picture:
        assert picture.size == (1600, 800)
        assert not picture.getexif()
    assert (kept.width_px, kept.height_px) == (1600, 800)


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "no picture that can be read"),
        (b"\xff\xd8\xff\xe0 broken", "no picture that can be read"),
        (b"\xff\xd8\xff\xe0" + bytes(21_000_000), "larger than 20 MB"),
    ],
)
def test_a_picture_that_cannot_be_used_is_told(client, heron, content, said):
    answer = post(client, f"figures/{heron.pk}/draw/", kind="slab", photo=SimpleUploadedFile("a.jpg", content))
    assert said in told(answer)
    assert not Reference.objects.exists()
    assert not Tracing.objects.exists()


def test_pictures_are_kept_with_the_figure_and_taken_away(client, heron):
    assert "No picture yet" in get(client, f"figures/{heron.pk}/pictures/")
    post(client, f"figures/{heron.pk}/pictures/add/", photo=photo(), words="in flight")
    assert "in flight" in get(client, f"figures/{heron.pk}/pictures/")
    assert "in flight" in get(client, f"figures/{heron.pk}/draw/")
    assert "Choose a picture" in told(post(client, f"figures/{heron.pk}/pictures/add/"))
    reference = Reference.objects.get()
    assert post(client, f"figures/{heron.pk}/pictures/{reference.pk}/drop/").status_code == 302
    assert not Reference.objects.exists()


def test_the_picture_of_another_studio_is_not_there(client, heron):
    begin(client, heron, photo=photo())
    other = signed_in(make.studio_owner("Dune", "ana"))
    name = Reference.objects.get().image.name.rpartition("/")[2]
    assert other.get(f"/s/dune/picture/{name}").status_code == 404


def test_the_boards_own_form_comes_back_with_its_marks(client, heron):
    tracing = begin(client, heron, "silhouette")
    page = client.get(client.base + board(tracing)).content.decode()
    form = next(form for form in forms_of(page) if "mark_x0" in form.fields)
    form.action = client.base + board(tracing)
    moved = {**form.fields, "mark_x1": f"{float(form.fields['mark_x1']) + 40:.2f}", "scaled": "1"}
    assert client.post(form.action, moved).status_code == 302
    tracing.refresh_from_db()
    assert tracing.marks[1][0] == pytest.approx(float(form.fields["mark_x1"]) + 40)
    assert tracing.marks[0][0] == pytest.approx(float(form.fields["mark_x0"]))
