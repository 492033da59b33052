"""What a studio has kept never reaches another: two of equal shapes, every page of both read for the other's words."""

import pytest
from django.apps import apps
from django.db.models import CharField, F, TextField, Value
from django.db.models.functions import Concat

from tests.conftest import some
from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.test_walls import OURS, ROUTES, filled, one_of_everything, posted
from wembit.web.stash.models import Entry

WORDS = {"name", "first_name", "words", "note", "story", "whose", "dye_lot", "slot_name"}  # what makers write by hand
OURS_ALONE, THEIRS_ALONE = "qumbel", "vrosk"


def marked(studio, mark):
    """Each word that a maker has written in the studio, with a mark that stands nowhere else; how many there are."""
    count = 0
    for model in (model for app in OURS for model in apps.get_app_config(app).get_models()):
        texts = [
            field for field in model._meta.fields if isinstance(field, CharField | TextField) and field.name in WORDS
        ]
        if not texts or model is Entry:  # which is never changed
            continue
        rows = model._default_manager.filter(**{_owner_of(model): studio.pk})
        for field in texts:
            count += rows.exclude(**{field.name: ""}).update(**{field.name: Concat(F(field.name), Value(f" {mark}"))})
    return count


def _owner_of(model):
    names = {field.name for field in model._meta.fields}
    return "studio" if "studio" in names else "pk" if model._meta.model_name == "studio" else "memberships__studio"


@pytest.fixture
def two(owner):
    """Two studios of the same shapes; each with its own mark on its words."""
    them = make.studio_owner("Dune", "ana")
    ids = one_of_everything(owner), one_of_everything(them)
    assert marked(owner.studio, OURS_ALONE) > 15
    assert marked(them.studio, THEIRS_ALONE) > 15
    slugs = owner.studio.slug, them.studio.slug
    return [
        (signed_in(who), {**mine, "studio": slug}, own, other)
        for who, mine, slug, own, other in zip(
            (owner, them), ids, slugs, (OURS_ALONE, THEIRS_ALONE), (THEIRS_ALONE, OURS_ALONE), strict=True
        )
    ]


def body(answer):
    content = b"".join(answer.streaming_content) if answer.streaming else answer.content
    return content.decode(errors="replace") + str(answer.headers)


def test_no_page_of_one_studio_holds_a_word_of_the_other(two):
    told = {OURS_ALONE: 0, THEIRS_ALONE: 0}
    for name, route in some(ROUTES, 30, "words apart"):
        for headers in ({}, {"HX-Request": "true"}):
            for client, ids, own, other in two:
                page = body(client.get(filled(route, {**ids, "name": "x.jpg"}), headers=headers))
                assert other not in page, name
                told[own] += own in page
    assert all(count > 10 for count in told.values()), told


def test_no_press_of_one_studio_answers_with_a_word_of_the_other(two):
    for name, route in some(ROUTES, 30, "words apart, pressed"):
        for client, ids, _, other in two:
            answer = posted(client, route, {**ids, "name": "x.jpg"})
            assert other not in body(answer), name
            if answer.status_code == 302 and answer.url.startswith("/s/"):
                assert other not in body(client.get(answer.url)), name
