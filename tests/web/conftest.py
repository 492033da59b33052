"""Fixtures of the web tests: a studio with its owner, and signed-in clients."""

import pytest
from django.test import Client

from tests.web import factories as make
from wembit.web import caches


@pytest.fixture(autouse=True)
def _fresh_cache(settings, tmp_path):
    settings.MEDIA_ROOT = tmp_path
    caches.until_pressed.clear()
    caches.by_content.clear()


@pytest.fixture
def owner(db):
    return make.studio_owner()


@pytest.fixture
def studio(owner):
    return owner.studio


def signed_in(member) -> Client:
    client = Client()
    client.force_login(member.user)
    client.base = f"/s/{member.studio.slug}/"
    return client


@pytest.fixture
def client(owner):
    return signed_in(owner)
