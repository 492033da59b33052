"""A letter a week: only to who said yes, once on its day, with what Today says, and never another studio's."""

import datetime as dt
import re
import smtplib
import threading

import pytest
from django.core import mail
from django.core.management import call_command
from django.db import connection
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at
from tests.web.helpers import get, post, text, told, words
from wembit.web import clock
from wembit.web.letters.actions import send_letters as send_action
from wembit.web.letters.actions.send_letters import send_letters
from wembit.web.letters.models import Letter
from wembit.web.studio.models import VIEWER


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


MONDAY = dt.datetime(2026, 11, 30, 9, 0, tzinfo=dt.UTC)


def wish(client, address="mira@saltgrass.example", weekday="0"):
    return form_at(get(client, "letters/"), "letters/keep/").send(client, address=address, weekday=weekday)


def the_link(sent) -> str:
    return re.search(r"http://testserver(/letter/\S+)", sent.body)[1]


def agreed(client, **more):
    """A letter that somebody said yes to."""
    wish(client, **more)
    assert Client().post(the_link(mail.outbox[-1])).status_code == 200
    mail.outbox.clear()


@pytest.fixture
def monday():
    with clock.as_of(MONDAY):
        yield


def sends(moment) -> int:
    with clock.as_of(moment):
        return send_letters()


def test_nothing_comes_before_somebody_there_says_yes(client, owner, monday):
    assert wish(client).status_code == 302
    asking = mail.outbox[0]
    assert asking.to == ["mira@saltgrass.example"]
    assert asking.subject == "A letter a week from Saltgrass, on Mondays?"
    assert "Mira of Saltgrass wishes for a letter" in asking.body
    assert sends(MONDAY + dt.timedelta(14)) == 0
    assert "Nothing comes before that." in words(get(client, "letters/"))
    stranger = Client()  # whoever reads mail there, not signed in
    address = the_link(asking)
    page = text(stranger.get(address))
    assert not Letter.objects.get().agreed, "a look is no yes"
    assert "on Mondays" in words(page)
    assert "It says how to stop it." in words(text(stranger.post(address)))
    assert "It comes on Mondays" in words(get(client, "letters/"))


def test_it_goes_once_on_its_weekday_in_the_morning(client, owner, monday):
    agreed(client, weekday="2")
    tuesday, wednesday = MONDAY + dt.timedelta(1), MONDAY + dt.timedelta(2)
    assert sends(tuesday) == 0
    assert sends(wednesday.replace(hour=5)) == 0, "not by night"
    assert sends(wednesday) == 1
    assert sends(wednesday + dt.timedelta(hours=3)) == 0
    assert sends(wednesday + dt.timedelta(6)) == 0
    assert sends(wednesday + dt.timedelta(8)) == 1, "a day late where the house was closed"
    assert sends(wednesday + dt.timedelta(14)) == 1, "and by its weekday again"
    assert [sent.to for sent in mail.outbox] == [["mira@saltgrass.example"]] * 3


def test_the_morning_is_the_studio_s_own(client, owner, studio, monday):
    agreed(client, weekday="1")
    studio.timezone = "Pacific/Auckland"
    studio.save()
    assert sends(MONDAY.replace(hour=17)) == 0, "six on Tuesday there"
    assert sends(MONDAY.replace(hour=18, minute=30)) == 1


def test_it_says_what_today_says(client, owner, monday):
    moss = make.lot(owner, "moss", "1")
    make.offer(owner, moss.item, "50", lead=3)
    make.project(owner, make.figure(owner, fibre=moss, length=60), days=6, name="Fair, <north> & pier")
    make.project(owner, make.figure(owner, "Late one", fibre=make.lot(owner, "oat")), days=0, name="Stall")
    agreed(client)
    assert sends(MONDAY + dt.timedelta(7)) == 1
    letter = mail.outbox[0]
    assert letter.subject == "Saltgrass: 1 to order, 2 due"
    assert "- Order moss, Mon 7 Dec:" in letter.body
    assert "- Fair, <north> & pier, Sun 6 Dec: 1 × Pebble" in letter.body
    assert f"http://testserver{client.base}\n" in letter.body
    assert letter.body.index("To order") < letter.body.index("Due")
    page = get(client, "letters/")
    assert "Fair, &lt;north&gt; &amp; pier" in page


def test_an_empty_studio_has_an_empty_letter(client, owner, monday):
    agreed(client)
    sends(MONDAY + dt.timedelta(7))
    assert mail.outbox[0].subject == "Saltgrass: nothing asks for anything"
    assert "Nothing asks for anything." in mail.outbox[0].body


def test_another_address_says_yes_anew_another_weekday_does_not(client, owner, monday):
    agreed(client)
    wish(client, weekday="4")
    assert not mail.outbox
    assert (Letter.objects.get().weekday, Letter.objects.get().agreed) == (4, True)
    with clock.as_of(MONDAY + dt.timedelta(hours=1)):
        wish(client, address="tove@saltgrass.example")
    assert len(mail.outbox) == 1
    old = the_link(mail.outbox[0])
    assert not Letter.objects.get().agreed
    with clock.as_of(MONDAY + dt.timedelta(hours=2)):
        wish(client, address="ilse@saltgrass.example")
    assert Client().post(old).status_code == 404, "the link was for the other address"


def test_nobody_is_flooded_with_questions(client, owner, monday):
    wish(client)
    assert told(wish(client, address="other@saltgrass.example")).startswith("A mail was sent just now.")
    post(client, "letters/stop/")
    assert told(wish(client, address="third@saltgrass.example")).startswith("A mail was sent just now.")
    assert len(mail.outbox) == 1


def test_it_stops(client, owner, monday):
    agreed(client)
    page = get(client, "letters/")
    form_at(page, "letters/stop/").send(client)
    assert sends(MONDAY + dt.timedelta(7)) == 0
    assert "letters/stop/" not in get(client, "letters/")


@pytest.mark.parametrize("address", ["", "mira", "mira@", "a b@c.example", "x" * 300 + "@c.example"])
def test_an_address_that_is_none_is_told_and_stays(client, owner, address):
    answer = wish(client, address=address)
    assert told(answer) == "Write an address like mira@saltgrass.example."
    assert f'value="{address}"' in text(answer)
    assert not Letter.objects.exists()


def test_a_name_with_a_line_in_it_makes_no_header(client, owner, studio, monday):
    studio.name = "Salt\nBcc: all@everywhere.example"
    studio.save()
    wish(client)
    assert mail.outbox[0].subject.startswith("A letter a week from Salt Bcc:")
    assert mail.outbox[0].recipients() == ["mira@saltgrass.example"]


def broken(*given, **more):
    raise smtplib.SMTPServerDisconnected("gone")


def test_a_server_that_is_away_loses_no_letter(client, owner, studio, monday, monkeypatch):
    agreed(client)
    second = signed_in(make.member(studio))
    agreed(second, address="tove@saltgrass.example")
    real = mail.EmailMessage.send
    monkeypatch.setattr(
        mail.EmailMessage, "send", lambda self: broken() if self.to == ["mira@saltgrass.example"] else real(self)
    )
    week = MONDAY + dt.timedelta(7)
    assert sends(week) == 1, "hers waits, the other goes"
    monkeypatch.setattr(mail.EmailMessage, "send", real)
    assert sends(week + dt.timedelta(hours=1)) == 1
    assert [sent.to[0][:4] for sent in mail.outbox] == ["tove", "mira"]


def test_a_letter_that_cannot_be_written_holds_up_no_other(client, owner, monday, monkeypatch):
    agreed(client)
    other = make.studio_owner("Dune", "ana")
    agreed(signed_in(other), address="ana@dune.example")
    real = send_action.written

    def written(studio, house):
        if studio.name == "Saltgrass":
            raise OverflowError("beyond the calendar")
        return real(studio, house)

    monkeypatch.setattr(send_action, "written", written)
    assert sends(MONDAY + dt.timedelta(7)) == 1
    assert [sent.to for sent in mail.outbox] == [["ana@dune.example"]]
    monkeypatch.setattr(send_action, "written", real)
    assert sends(MONDAY + dt.timedelta(7)) == 1, "and comes when it can be"


def test_a_mail_that_does_not_go_out_is_told_and_asks_again(client, owner, monday, monkeypatch):
    monkeypatch.setattr(mail.EmailMessage, "send", broken)
    assert told(wish(client)).startswith("The mail did not go out.")
    assert not Letter.objects.exists()


def test_a_link_that_is_made_up_leads_nowhere(client, owner, monday):
    wish(client)
    good = the_link(mail.outbox[0])
    for bad in (good[:-3] + "xyz/", "/letter/x/", good.replace(":", ";", 1)):
        assert Client().get(bad).status_code == 404
        assert Client().post(bad).status_code == 404
    with clock.as_of(MONDAY):
        assert Client().get(good).status_code == 200


def test_each_studio_s_letter_is_its_own_and_a_viewer_may_have_one(client, owner, studio, monday):
    make.project(owner, name="Secret of Saltgrass", days=6)
    other = make.studio_owner("Dune", "ana")
    agreed(signed_in(other), address="ana@dune.example")
    agreed(signed_in(make.member(studio, VIEWER)), address="tove@saltgrass.example")
    assert sends(MONDAY + dt.timedelta(7)) == 2
    bodies = {sent.to[0]: sent.body for sent in mail.outbox}
    assert "Secret" not in bodies["ana@dune.example"]
    assert "Secret of Saltgrass" in bodies["tove@saltgrass.example"]
    assert signed_in(other).get(client.base + "letters/").status_code == 404


@pytest.mark.django_db(transaction=True)
def test_two_that_send_at_once_send_one():
    owner = make.studio_owner()
    Letter.objects.create(
        studio=owner.studio, member=owner, address="mira@saltgrass.example", house="http://x", agreed=True,
        asked_at=MONDAY, last_on=MONDAY.date() - dt.timedelta(30),
    )  # fmt: skip
    counts = []

    def run():
        with clock.as_of(MONDAY):
            counts.append(send_letters())
        connection.close()

    both = [threading.Thread(target=run) for _ in range(4)]
    for each in both:
        each.start()
    for each in both:
        each.join()
    assert sum(counts) == 1


def test_the_command_sends_and_says_so(client, owner, monday, capsys):
    agreed(client)
    with clock.as_of(MONDAY + dt.timedelta(7)):
        call_command("send_letters")
        call_command("send_letters")
    assert capsys.readouterr().out == "1 letter sent.\n"
