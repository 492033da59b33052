"""A page that loses its database is asked for once more; what changes something is not."""

import pytest
from django.db import InterfaceError, OperationalError
from django.test import Client

from tests.web.helpers import get, post


def failing(monkeypatch, name, faults):
    """The thing of that name fails as often as there are faults, then does what it did."""
    module, _, attribute = name.rpartition(".")
    whole = getattr(__import__(module, fromlist=[attribute]), attribute)
    left = list(faults)

    def first_fails(*given, **named):
        if left:
            raise left.pop(0)
        return whole(*given, **named)

    monkeypatch.setattr(name, first_fails)
    return left


@pytest.mark.parametrize("fault", [OperationalError("server closed the connection"), InterfaceError("closed")])
def test_a_page_waits_for_its_database(client, monkeypatch, fault):
    client.raise_request_exception = False
    monkeypatch.setattr("wembit.web.patience.connection.close", lambda: None)  # the test's own transaction
    left = failing(monkeypatch, "wembit.web.today.views.things_now", [fault, fault])
    assert "Put the first bag on the shelf" in get(client)
    assert not left


def test_it_does_not_wait_for_ever_nor_for_other_faults(client, monkeypatch):
    client.raise_request_exception = False
    monkeypatch.setattr("wembit.web.patience.connection.close", lambda: None)
    left = failing(monkeypatch, "wembit.web.today.views.things_now", [OperationalError("gone")] * 9)
    assert client.get(client.base).status_code == 500
    assert len(left) == 6
    left = failing(monkeypatch, "wembit.web.today.views.things_now", [ValueError("ours")] * 2)
    assert client.get(client.base).status_code == 500
    assert len(left) == 1


def test_a_press_is_not_repeated(owner, monkeypatch):
    client = Client(raise_request_exception=False)
    client.force_login(owner.user)
    client.base = f"/s/{owner.studio.slug}/"
    left = failing(monkeypatch, "wembit.web.stash.walk.views.keep_reminder", [OperationalError("gone")] * 2)
    assert post(client, "stash/walk/reminder/", words="moths", due="2099-01-01").status_code == 500
    assert len(left) == 1
