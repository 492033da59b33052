"""Whatever is asked or entered, no address answers with a failure of the server."""

import uuid

import pytest
from django.test import Client

from tests.conftest import some
from tests.web.test_walls import ROUTES, both, filled, ours  # noqa: F401  two fixtures

ODD = ["a\0b", "%s' OR 1=1 --", "9" * 400, "1e999", "NaN", "१२", '3 1/0"', "\n"]
FIELDS = (
    "words by form breed hue drawer free from part lot name measure unit amount happened_at why into length kind slot"
    " item count due start colourway srgb has_colour dye_lot minimum linear_g_m size notion state role ten timezone"
    " currency decimal_mark weight_unit length_unit lead_days postage pack price copy_name story scale shape firmness"
    " t angle sink pitch yaw on face visible loose_end_mm centre_mm length_mm diameter_mm share thickness_mm coats over"
    " pulled_mm finished_mm row_spacing_mm row_g measured spots across_mm line_mm width_mm border_mm area_mm2 grams new_slot"
    " item_0 amount_0 dye_lot_0 drawer_0 supplier expected username password layer anyway"
    " colour lot view bag fibres parts loss blends recipe card_grams drawer_name do card_x card_y wool_x wool_y new seen"
    " cm20 palm pinches note own_breed breed_name micron_um staple_mm crimp felting touch uses gauge section mark outline"
    " every_days words passes metal coating drawn_at lists"
).split()
FRAMEWORK = [
    "Ensure this", "Ensure that", "Select a valid", "Enter a valid", "Enter a whole", "Enter a number", "Enter a list",
    "This field", "is not one of the available", "Null characters", "This password", "must be unique", "already exists",
]  # fmt: skip
SOUND = {
    "kind": "body",
    "form": "tops",
    "due": "2099-01-01",
    "lead_days": "3",
    "postage": "1",
    "price": "1",
}


@pytest.mark.sampled("addresses asked oddly", 10)
@pytest.mark.parametrize(("name", "route"), ROUTES, ids=[name for name, _ in ROUTES])
def test_no_odd_input_breaks_an_address(ours, name, route):  # noqa: F811  a fixture
    client = Client(raise_request_exception=False)
    client.force_login(ours["lot"].studio.memberships.get(role="owner").user)
    address = filled(route, {**ours, "name": "x.jpg"})
    methods = [method for method in (client.get, client.post) if method(address).status_code != 405]
    for place, odd in enumerate(some(ODD, 3, name)):
        all_odd = dict.fromkeys(FIELDS, odd)
        sound = {**all_odd, **SOUND, "key": str(uuid.uuid4())}
        for given in (sound, {**all_odd, "key": odd}) if place < 2 else (sound,):
            for method in methods:
                answer = method(address, given)
                assert answer.status_code < 500, (method.__name__, odd, given is sound)
                assert not framework_words(answer), (method.__name__, odd, given is sound)


def test_every_address_answers_a_page_that_asks_for_a_piece_of_it(ours):  # noqa: F811  a fixture
    client = Client(headers={"HX-Request": "true"})
    client.force_login(ours["lot"].studio.memberships.get(role="owner").user)
    for name, route in some(ROUTES, 70, "pieces of pages"):
        assert client.get(filled(route, {**ours, "name": "x.jpg"})).status_code < 500, name


def framework_words(answer):
    """What of the answer is said in the framework's voice instead of our own."""
    if answer.streaming or "text/html" not in answer.get("Content-Type", ""):
        return []
    page = answer.content.decode()
    return [words for words in FRAMEWORK if words in page]


@pytest.mark.parametrize("odd", ODD)
def test_no_odd_input_breaks_the_door(db, odd):
    client = Client(raise_request_exception=False)
    given = dict.fromkeys(("username", "password", "studio_name", "name", "timezone", "currency", "next"), odd)
    for address in ("/sign-in/", "/first/", f"/link/{odd.strip() or 'x'}/".replace("\0", "%00").replace("%s", "")):
        assert client.post(address, given).status_code < 500
        assert client.get(address, given).status_code < 500
