"""A member's own password and sessions, the links that owners made, and a backup for the owner of the only studio."""

import io
import re
import tarfile

import pytest
from django.contrib.sessions.models import Session
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from wembit.web import clock
from wembit.web.studio.actions.make_link import make_join_link
from wembit.web.studio.models import Link, Studio


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


NEW = "nine grey herons"


def by_form(client_base, username="mira", password=make.PASSWORD, agent="Firefox/140 (Android)") -> Client:
    """Signed in by the form, as a device does."""
    device = Client(headers={"User-Agent": agent})
    device.post("/sign-in/", {"username": username, "password": password})
    device.base = client_base
    return device


@pytest.fixture
def tablet(client, owner):
    return by_form(client.base)


def is_in(device) -> bool:
    return device.get(device.base).status_code == 200


def test_a_new_password_holds_and_ends_every_other_session(client, tablet, owner):
    phone = by_form(client.base, agent="Mozilla (iPhone) Safari")
    given = {"old": "wrong", "new": NEW}
    assert "not your password" in told(post(tablet, "house/password/", **given))
    assert "at least 8" in told(post(tablet, "house/password/", old=make.PASSWORD, new="1234"))
    assert is_in(phone)
    assert post(tablet, "house/password/", old=make.PASSWORD, new=NEW).status_code == 302
    assert is_in(tablet), "who changes it stays"
    assert not is_in(phone)
    assert not is_in(by_form(client.base))
    assert is_in(by_form(client.base, password=NEW))


def test_too_many_wrong_old_passwords_shut_the_door(client, tablet, owner, settings):
    settings.AXES_ENABLED = True
    given = {"new": NEW}
    for guess in range(settings.AXES_FAILURE_LIMIT):
        answer = post(tablet, "house/password/", old=f"wrong {guess}", **given)
    assert answer.status_code == 429
    assert post(tablet, "house/password/", old=make.PASSWORD, **given).status_code == 429, "even the right one waits"
    owner.user.refresh_from_db()
    assert owner.user.check_password(make.PASSWORD)


def test_where_one_is_signed_in_is_shown_and_ended(client, tablet, owner):
    phone = by_form(client.base, agent="Mozilla (iPhone) Safari")
    page = get(tablet, "house/signed-in/")
    assert "Firefox on Android" in page
    assert "Safari on iPhone" in page
    mark = re.search(r'name="mark" value="(\w+)"', page)[1]
    assert phone.session.session_key not in page, "a mark lets nobody in"
    post(tablet, "house/signed-in/end/", mark=mark)
    assert not is_in(phone)
    assert is_in(tablet)
    assert "Safari on iPhone" not in get(tablet, "house/signed-in/")
    assert "signed out already" in text(post(tablet, "house/signed-in/end/", mark=mark, follow=True))
    others = [by_form(client.base) for _ in range(2)]
    post(tablet, "house/signed-in/end/")
    assert is_in(tablet)
    assert not any(map(is_in, others))
    assert is_in(by_form(client.base)), "the password is the same"


def test_her_devices_are_found_without_reading_those_of_others(client, tablet, owner, monkeypatch):
    make.member(owner.studio)
    for _ in range(3):
        by_form(client.base, "tove")
    read = []
    whole = Session.get_decoded
    monkeypatch.setattr(Session, "get_decoded", lambda session: read.append(session.pk) or whole(session))
    assert "Firefox on Android" in get(tablet, "house/signed-in/")
    assert read == [tablet.session.session_key]
    tablet.post("/sign-out/")
    by_form(client.base)
    assert owner.user.held_in.count() == 1, "what holds her hand no more is forgotten"


def test_a_second_hand_is_found_where_the_first_one_signs_in_anew(client, tablet, owner):
    make.member(owner.studio)
    post(tablet, "second-hand/", username="tove", password=make.PASSWORD)
    tablet.post("/sign-in/", {"username": "mira", "password": make.PASSWORD})
    phone = by_form(client.base, "tove", agent="Mozilla (iPhone) Safari")
    assert "Firefox on Android" in get(phone, "house/signed-in/")


def test_nobody_ends_the_session_of_another(client, tablet, owner):
    make.member(owner.studio)
    tove = by_form(client.base, "tove")
    mark = re.search(r'name="mark" value="(\w+)"', get(by_form(client.base, "tove"), "house/signed-in/"))[1]
    post(tablet, "house/signed-in/end/", mark=mark)
    assert is_in(tove)


def test_links_are_listed_and_withdrawn(client, owner):
    token = make_join_link(owner, "maker")
    page = words(get(client, "house/"))
    assert "a new maker, until" in page
    assert token not in page
    assert Client().get(f"/link/{token}/").status_code == 200
    link = Link.objects.get()
    tove = signed_in(make.member(owner.studio))
    assert "let somebody in" not in get(tove, "house/")
    assert post(tove, f"house/links/{link.pk}/withdraw/").status_code == 403
    post(client, f"house/links/{link.pk}/withdraw/")
    assert Client().get(f"/link/{token}/").status_code == 404
    assert "a new maker" not in words(get(client, "house/"))


@pytest.mark.django_db(transaction=True)
def test_the_owner_of_the_only_studio_saves_the_house(client, owner, settings, monkeypatch):
    monkeypatch.setenv("DATABASE_URL", database_url())
    monkeypatch.setenv("WEMBIT_MEDIA", str(settings.MEDIA_ROOT))
    make.lot(owner, "moss", "5")
    answer = post(client, "house/backup/")
    assert "attachment" in answer.headers["Content-Disposition"]
    with tarfile.open(fileobj=io.BytesIO(b"".join(answer.streaming_content))) as archive:
        assert "wembit.dump" in archive.getnames()
    assert Studio.objects.get().backed_up_at
    assert post(signed_in(make.member(owner.studio)), "house/backup/").status_code == 403
    make.studio_owner("Reedmoor", "una")
    assert "Other studios are in this house" in text(post(client, "house/backup/", follow=True))
    assert "Save the house" not in get(client, "house/")


def database_url() -> str:
    """The address of the database that the tests run on."""
    from django.db import connection

    told_ = connection.settings_dict
    return f"postgresql://{told_['USER']}:{told_['PASSWORD']}@{told_['HOST']}:{told_['PORT']}/{told_['NAME']}"


def test_a_week_without_a_backup_is_said_to_owners(client, owner, monkeypatch):
    make.lot(owner, "moss", "5")
    assert "No backup" not in get(client)
    later = clock.now() + clock.dt.timedelta(days=8)
    monkeypatch.setattr("wembit.web.today.things.clock.now", lambda: later)
    owner.studio.pressed()
    assert "No backup for 8 days" in get(client)
    Studio.objects.update(backed_up_at=later)
    owner.studio.refresh_from_db()
    owner.studio.pressed()
    assert "No backup" not in get(client)
