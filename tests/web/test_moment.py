"""A page is of one moment, whatever others press while it is read."""

import threading

import pytest
from django.db import OperationalError, connection, connections

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, words
from wembit.web import navigation
from wembit.web.figures.queries import figure_count
from wembit.web.moment import one_moment
from wembit.web.studio.models import Member, Studio


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


pytestmark = pytest.mark.django_db(transaction=True)


def elsewhere(do):
    """What another hand does meanwhile, done."""

    def run():
        try:
            do()
        finally:
            connections.close_all()

    other = threading.Thread(target=run)
    other.start()
    other.join()


def test_what_is_made_while_a_page_is_read_is_on_the_next_one(monkeypatch):
    owner = make.studio_owner()
    client = signed_in(owner)
    make.figure(owner, "Pebble")

    def counted_late(studio):
        elsewhere(lambda: make.figure(Member.objects.get(pk=owner.pk), "Boulder", length=50.0))
        return figure_count(studio)

    monkeypatch.setattr(navigation, "figure_count", counted_late)
    assert "1 design" in words(get(client, "figures/"))
    monkeypatch.undo()
    Studio.objects.get().pressed()
    assert "2 designs" in words(get(client, "figures/"))


def test_what_others_have_changed_is_not_changed_once_more():
    studio = make.studio_owner().studio
    with pytest.raises(OperationalError, match="concurrent update"), one_moment():
        assert Studio.objects.get().name == "Saltgrass"
        elsewhere(lambda: Studio.objects.filter(pk=studio.pk).update(name="Saltgrass by the sea"))
        assert Studio.objects.get().name == "Saltgrass", "as it was at the first question"
        Studio.objects.filter(pk=studio.pk).update(name="Saltgrass on the sea")
    assert Studio.objects.get().name == "Saltgrass by the sea"
    with connection.cursor() as cursor:
        cursor.execute("SHOW transaction_isolation")
        assert cursor.fetchone() == ("read committed",), "what is pressed sees what others have pressed"
