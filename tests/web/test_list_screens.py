"""Everything a figure takes, and where its design is from."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import newest_version


@shared
def hare(maker, owner) -> Figure:
    return figure_with(maker, "Hare", ("body", "80"), ("head", "40"), ("eye", "4"))


def row(client, figure, thing) -> str:
    page = get(client, f"figures/{figure.pk}/list/")
    return words(next(each for each in re.findall(r"<tr>.*?</tr>", page) if thing in each))


def test_the_list_holds_eyes_against_the_shelf(client, owner, hare):
    assert "none" in row(client, hare, "eyes, ")
    make.notion_lot(owner, "black eyes", "20")
    assert "black eyes" in row(client, hare, "eyes, ")
    assert "too few" not in row(client, hare, "eyes, ")
    post(client, f"figures/{hare.pk}/size/", scale="1.2")
    assert "nearest size" in row(client, hare, "eyes, ")
    post(client, f"figures/{hare.pk}/part/eye/", count="40")
    assert "too few" in row(client, hare, "eyes, ")


def test_wool_that_is_short_is_said(client, owner, hare):
    lot = make.lot(owner, "fawn", "0.5")
    post(client, f"figures/{hare.pk}/fibre/", slot="core", item=str(lot.item_id))
    assert "short: what is like it?" in row(client, hare, ">fawn<")
    asked = re.search(r'href="([^"]+)">what is like it', get(client, f"figures/{hare.pk}/list/"))[1]
    assert f"item={lot.item_id}&amp;grams=" in asked
    assert client.get(asked.replace("&amp;", "&")).status_code == 200


def test_a_fitting_is_put_on_and_taken_off(client, hare):
    answer = post(client, f"figures/{hare.pk}/list/fit/", notion="brooch_back", amount="1", size="3 cm")
    assert answer.status_code == 200
    page = words(get(client, f"figures/{hare.pk}/list/"))
    assert "brooch back, 30 mm" in page
    assert "a wisp each" in page
    assert "300 mm" in page
    fitting = newest_version(hare).notions[0]["id"]
    post(client, f"figures/{hare.pk}/list/unfit/", fitting=fitting)
    assert "brooch back, 30 mm" not in words(get(client, f"figures/{hare.pk}/list/"))


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"notion": "sword", "amount": "1"}, "Choose what is fitted"),
        ({"notion": "bell", "amount": "2.5"}, "whole number"),
        ({"notion": "loop", "amount": "long"}, "cannot be read"),
        ({"notion": "bell", "amount": "1", "size": "big"}, "cannot be read"),
    ],
)
def test_a_fitting_that_cannot_be_is_told_and_kept(client, hare, given, said):
    assert said in told(post(client, f"figures/{hare.pk}/list/fit/", **given))
    assert newest_version(hare).notions == []


def test_a_fitting_for_a_part_of_another_figure_is_not_there(client, hare):
    answer = post(client, f"figures/{hare.pk}/list/fit/", notion="bell", amount="1", part="nobody")
    assert answer.status_code == 404


@pytest.mark.parametrize("whom", ["child", "animal", "prop"])
def test_small_parts_are_flagged_for_whom_they_are_dangerous(client, hare, whom):
    assert "small part" not in words(get(client, f"figures/{hare.pk}/list/"))
    post(client, f"figures/{hare.pk}/origin/", origin_kind="own", sale="yes", whom=whom)
    page = words(get(client, f"figures/{hare.pk}/list/"))
    assert "small part" in page
    assert "not for children under three" in page
    assert ("never left with the child" in page) == (whom == "prop")


def test_origin_credit_and_the_note_of_the_piece(client, hare):
    address = f"figures/{hare.pk}/origin/"
    answer = post(client, address, origin_kind="class", sale="credit", credit="")
    assert "Write the credit" in told(answer)
    given = {
        "origin_kind": "class",
        "sale": "credit",
        "credit": "after a class at the marsh school",
        "safety": "Cheeks rub off.",
    }
    assert post(client, address, **given).status_code == 302
    page = words(get(client, f"figures/{hare.pk}/"))
    assert "The design is from a class; it may be sold with its credit." in page
    assert "Cheeks rub off." in page
    assert "Choose one" in told(post(client, address, origin_kind="stolen"))
