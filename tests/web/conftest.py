"""Fixtures of the web tests: a studio with its owner, and signed-in clients."""

import pytest
from django.conf import settings
from django.test import Client
from django.test.client import ClientHandler

from tests.web import factories as make
from tests.web.shared import put_in_order, pytest_fixture_setup, pytest_runtest_teardown, shared
from wembit.web import caches

__all__ = ["pytest_fixture_setup", "pytest_runtest_teardown"]


@pytest.hookimpl(tryfirst=True)
def pytest_collection_modifyitems(items):
    put_in_order(items)


@pytest.fixture(autouse=True, scope="module")
def _fresh_contents():
    caches.by_content.clear()


@pytest.fixture(autouse=True)
def _fresh_cache(settings, tmp_path):
    settings.MEDIA_ROOT = tmp_path
    caches.forget_studios()  # what a test has pressed is rolled back, and so is the stamp


@shared
def owner():
    member = make.studio_owner()
    member.session_key = signed_in(member).session.session_key
    return member


@pytest.fixture
def studio(owner):
    return owner.studio


def signed_in(member) -> Client:
    client = Client()
    if key := getattr(member, "session_key", ""):
        client.cookies[settings.SESSION_COOKIE_NAME] = key
    else:
        client.force_login(member.user)
    client.base = f"/s/{member.studio.slug}/"
    return client


@shared
def maker(owner):
    """A client for what the tests of a file share."""
    return signed_in(owner)


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
