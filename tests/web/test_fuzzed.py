"""No address answers with a fault of the house, whatever is sent: thousands of odd requests, drawn from the printed seed."""

import os
import random

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from tests.conftest import ALL, SEED
from tests.web.test_walls import ROUTES, filled, one_of_everything

ODD = [
    "", " ", "0", "-1", "1e9", "1e400", "nan", "inf", "1/0", "½", "12,5", "9" * 40, "a" * 5000, "\u202e", "\x00",
    "<b>", "{{7*7}}", "%s%n", "../../etc/passwd", "' OR 1=1 --", "true", "null", "[]", "{}", "2026-02-30", "0001-01-01",
    "9999-12-31", "#12345g", "#abcdef", "a pinch", "half", "three pairs", "=1+1", "//host/evil", "javascript:1",
]  # fmt: skip
FIELDS = [
    "amount", "lot", "into", "name", "count", "due", "start", "colourway", "srgb", "length", "item", "role", "slot",
    "key", "happened_at", "hand", "mark", "words", "page", "part", "layer", "way", "times", "height", "grams", "step", "state",
    "unweighed", "figure_g", "shown", "short", "recipe", "new", "size", "share", "of", "gap", "notion", "kind", "breed",
    "form", "over", "drawn_at",
    "metal", "coating", "gauge_mm", "wire_kind", "lists", "from",
    "x_0", "y_0", "mark_mm", "old", "sure", "link", "target", "one", "two", "measure", "unit", "x", "lab_l", "text", "drawer",
]  # fmt: skip
FILES = [
    b"",
    b"\x89PNG\r\n\x1a\n",
    b"GIF89a",
    b"{" * 3000,
    b"a,b\n" * 50,
    b"\xff\xfe\x00",
    b"GIMP Palette\n",
    b"0" * 70_000,
]
HEADERS = {
    "HX-Request": ["true", "x"], "Accept": ["*/*", "nonsense/;"], "Referer": ["//host//evil", "x" * 900, "http://testserver/"],
    "X-Hand": ["x"], "Sec-Fetch-Mode": ["navigate"], "Accept-Encoding": ["gzip", "q=;"], "User-Agent": ["\xff", ""],
}  # fmt: skip
FEW, ALL_OF_THEM = 200, 10_000
PLACES = [(name, route) for name, route in ROUTES if name != "studio:backup"]  # which is a real one each time


def fields(chance: random.Random, ids: dict) -> dict:
    """Up to eight odd fields, some with an id that is there."""
    values = [*ODD, *map(str, ids.values())]
    return {chance.choice(FIELDS): chance.choice(values) for _ in range(chance.randrange(9))}


def sent(client: Client, chance: random.Random, address: str, ids: dict):
    """One odd request: a page asked for, a body of any kind, or a form with a file."""
    headers = {key: chance.choice(values) for key, values in HEADERS.items() if chance.random() < 0.2}
    kind = chance.choice(["page", "form", "form", "file", "body"])
    given = fields(chance, ids)
    if kind == "page":
        return client.get(address, given, headers=headers)
    if kind == "body":
        content_type = chance.choice(["text/plain", "application/json", "multipart/form-data; boundary=x"])
        return client.post(address, chance.choice(FILES), content_type=content_type, headers=headers)
    if kind == "file":
        name = chance.choice(["a.csv", "b.json", "c.png", "../d"])
        field = chance.choice(["table", "file", "photo", "palette", "instrument"])
        given[field] = SimpleUploadedFile(name, chance.choice(FILES))
    return client.post(address, given, headers=headers)


@pytest.mark.django_db
def test_whatever_is_sent_no_address_answers_with_a_fault_of_its_own(owner):
    seed = os.environ[SEED]
    chance = random.Random(f"{seed}/fuzzed")
    client = Client(raise_request_exception=False)
    client.force_login(owner.user)
    ids = {key: value for key, value in one_of_everything(owner).items() if key != "lot"}
    for number in range(ALL_OF_THEM if os.environ.get(ALL) == "all" else FEW):
        name, route = chance.choice(PLACES)
        address = filled(route, ids)
        if chance.random() < 0.1:
            address += chance.choice(["x", "%00", "%ff/", "../", "?" + "a=" * 500])
        answer = sent(client, chance, address, ids)
        assert answer.status_code < 500, (number, name, address, seed)
        if "_auth_user_id" not in client.session:
            client.force_login(owner.user)
