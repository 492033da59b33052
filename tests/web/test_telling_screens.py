"""A bag's colour: by a picture with a card, by eye, in numbers, by an instrument; and the colours of a picture."""

import io
import re

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.core.colour.basis import NM
from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000
from wembit.web.stash.swatch import curve_of
from wembit.web.studio.models import VIEWER

MOSS, LAMP = "#6f7d43", np.array([1.0, 0.86, 0.68])


def shot(card=0.9, wool=MOSS, exposure=0.8) -> SimpleUploadedFile:
    """A picture under a warm lamp: a card at the left, wool at the right."""
    light = np.zeros((300, 600, 3))
    light[:, :300] = card
    light[:, 300:] = ((np.array([int(wool[i : i + 2], 16) for i in (1, 3, 5)]) / 255 + 0.055) / 1.055) ** 2.4
    light = np.clip(light * LAMP * exposure, 1e-9, 1)
    seen = np.where(light <= 0.0031308, light * 12.92, 1.055 * light ** (1 / 2.4) - 0.055)
    out = io.BytesIO()
    Image.fromarray((seen * 255).astype(np.uint8)).save(out, "PNG")
    return SimpleUploadedFile("shot.png", out.getvalue(), "image/png")


SPOTS = {"do": "read", "card_x": "150", "card_y": "150", "wool_x": "450", "wool_y": "150", "kind": "white"}


@shared
def bag(owner):
    return make.lot(owner, "kelp", "40", srgb="")


def told_at(client, bag, **given):
    return post(client, f"colour/tell/{bag.pk}/", **given)


def test_from_a_picture_with_a_card_to_the_bags_colour(client, bag):
    assert told_at(client, bag, do="photo", photo=shot()).status_code == 302
    page = told_at(client, bag, **SPOTS)
    assert page.status_code == 200
    assert "The picture says this" in text(page)
    kept = text(page).split('name="colour" value="')[1].split('"')[0]
    assert told_at(client, bag, do="words", colour=kept).status_code == 302
    bag.refresh_from_db()
    assert delta_e_2000((bag.lab_l, bag.lab_a, bag.lab_b), lab(MOSS)) < 2
    assert bag.hue == "green"


@pytest.mark.parametrize(
    ("picture", "spots", "said"),
    [
        ({"card": 1.6}, {}, "burnt out"),
        ({"card": 0.01}, {}, "too dark"),
        ({}, {"card_x": "450", "card_y": "60", "wool_y": "250"}, "coloured"),
        ({}, {"wool_x": "150"}, "on the same spot"),
        ({}, {"wool_x": "5000"}, "within the picture"),
        ({}, {"wool_x": ""}, "Touch the card"),
        ({}, {"kind": "pink"}, "Choose which card"),
    ],
)
def test_a_picture_that_tells_nothing_is_told_and_the_spots_stay(client, bag, picture, spots, said):
    told_at(client, bag, do="photo", photo=shot(**picture))
    answer = told_at(client, bag, **(SPOTS | spots))
    assert said in told(answer)
    assert f'value="{(SPOTS | spots)["card_x"]}"' in text(answer)
    bag.refresh_from_db()
    assert not bag.srgb


def test_without_a_picture_or_with_a_broken_one_it_is_told(client, bag):
    assert "Choose a picture" in told(told_at(client, bag, do="photo"))
    assert "Take a picture" in told(told_at(client, bag, **SPOTS))
    out = io.BytesIO()
    frames = [Image.new("RGB", (40, 40), colour) for colour in ("red", "blue")]
    frames[0].save(out, "WEBP", save_all=True, append_images=frames[1:])
    moving = SimpleUploadedFile("x.webp", out.getvalue(), "image/webp")
    assert "That picture moves" in told(told_at(client, bag, do="photo", photo=moving))
    broken = SimpleUploadedFile("x.png", b"\x89PNG nothing", "image/png")
    assert "no picture that can be read" in told(told_at(client, bag, do="photo", photo=broken))


@pytest.mark.parametrize(("colour", "hue"), [(MOSS, "green"), ("50 -25 20", "green"), ("62,5; 20,1; -4", "pink")])
def test_a_colour_is_told_in_numbers(client, bag, colour, hue):
    assert told_at(client, bag, do="words", colour=colour).status_code == 302
    bag.refresh_from_db()
    assert bag.hue == hue
    assert bag.curve is not None


@pytest.mark.parametrize("colour", ["", "mossy", "120 0 0", "50 150 -150", "1 2"])
def test_a_colour_that_cannot_be_is_told_and_stays(client, bag, colour):
    answer = told_at(client, bag, do="words", colour=colour)
    assert told(answer)
    assert f'value="{colour}"' in text(answer)


def table(text_, encoding="utf-8") -> SimpleUploadedFile:
    return SimpleUploadedFile("x.csv", text_.encode(encoding), "text/csv")


def test_an_instrument_tells_the_curve_itself(client, bag):
    rows = "Probe;" + ";".join(str(nm) for nm in range(400, 701, 10)) + "\nMöwe;" + ";".join(["41,5"] * 31)
    assert told_at(client, bag, do="instrument", table=table(rows, "latin-1")).status_code == 302
    bag.refresh_from_db()
    assert curve_of(bag.curve) == pytest.approx(np.full(len(NM), 0.415), abs=1e-6)
    assert bag.hue == "grey"
    assert "No wavelengths" in told(told_at(client, bag, do="instrument", table=table("a,b\n1,2")))
    assert "Choose the file" in told(told_at(client, bag, do="instrument"))


def test_by_eye_beside_its_neighbours(client, owner, bag):
    make.lot(owner, "moss", "5")
    page = get(client, f"colour/tell/{bag.pk}/?colour=6f7d43")
    assert "moss 0.0" in words(page)
    assert "Keep this one" in page
    assert "warmer" in page
    lighter = page.split('">lighter')[0].split('href="?colour=')[-1].replace("%20", " ")
    assert float(lighter.split()[0]) == pytest.approx(lab(MOSS)[0] + 3, abs=0.1)
    assert "Keep this one" not in get(client, f"colour/tell/{bag.pk}/?colour=nonsense")


def test_a_blend_shows_what_was_predicted_beside_what_came_out(client, owner, bag):
    one, two = make.lot(owner, "olive", "30", srgb="#7a7a3c"), make.lot(owner, "pine", "30", srgb="#34503d")
    made = post(client, "colour/card/", recipe=f"{one.pk}*2 {two.pk}*1", card_grams="6", name="sedge", into="batt")
    blend = made.url.rstrip("/").rsplit("/", 1)[1]
    assert "Tell how it came out" in get(client, f"stash/lot/{blend}/")
    post(client, f"colour/tell/{blend}/", do="words", colour="#5a6a40")
    page = get(client, f"colour/tell/{blend}/")
    assert "left as it was predicted" in words(page)
    assert 'fill="#5a6a40"' in page


def test_the_main_colours_of_a_picture_come_with_what_the_shelf_has(client, owner):
    make.lot(owner, "moss", "5")
    answer = client.post(client.base + "colour/picture/", {"photo": shot(exposure=1.0)})
    assert answer.status_code == 200
    assert "Nearest: moss" in words(text(answer))
    assert 'src="data:image/jpeg;base64,' in text(answer) and "blended" not in words(text(answer)), (
        "one bag blends with none"
    )
    make.lot(owner, "chalk", "60", srgb="#f2efe6")
    make.lot(owner, "pitch", "60", srgb="#24211f")
    page = words(text(client.post(client.base + "colour/picture/", {"photo": shot(wool="#808a90")})))
    assert re.search(r"blended: \d parts? \w+, \d parts? \w+", page)
    assert "Choose a picture" in told(client.post(client.base + "colour/picture/"))


def test_a_viewer_tells_no_colour(studio, bag, client):
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    assert "Use this picture" not in get(viewer, f"colour/tell/{bag.pk}/")
    assert post(viewer, f"colour/tell/{bag.pk}/", do="words", colour=MOSS).status_code == 403
