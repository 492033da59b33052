"""Fixtures of the web tests: a studio with its owner, and signed-in clients."""

import pytest
from django.conf import settings
from django.test import Client
from django.test.client import ClientHandler

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


_LOADED: dict[str, dict] = {}


def _told() -> str:
    """The settings that a test told otherwise, in short; where pictures go does not matter to middleware."""
    told, holder = {}, settings._wrapped
    while hasattr(holder, "default_settings"):
        told = {name: value for name, value in vars(holder).items() if name.isupper()} | told
        holder = holder.default_settings
    return repr(sorted((name, repr(value)) for name, value in told.items() if name != "MEDIA_ROOT"))


def _load_once(self, is_async=False):
    """The middleware of a test's client, loaded once for the same settings: it would look through all static files for each
    client anew.
    """
    told = _told()
    if told not in _LOADED:
        _load(self, is_async)
        _LOADED[told] = {name: value for name, value in vars(self).items() if "middleware" in name}
    vars(self).update(_LOADED[told])


_load, ClientHandler.load_middleware = ClientHandler.load_middleware, _load_once
