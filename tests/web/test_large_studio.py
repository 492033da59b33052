"""A studio with much of everything: a page shows the first of it and leads on to the rest, with and without script."""

import re

from tests.web import factories as make
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web.stash.intake.views import RECEIVE_ROWS

HTMX = {"HX-Request": "true"}


@shared
def much(owner):
    """Ten figures of ten wools, each planned once; for none of them is there enough."""
    makings = []
    for n in range(10):
        wool = make.lot(owner, f"wool {n}", "0.50")
        figure = make.figure(owner, f"Whelk {n}", 30 + n, wool)
        makings.append(make.project(owner, figure, count=1, days=10 + n, start=1 + n, name=f"Order {n}"))
    return makings


def rest_of(client, page):
    """What comes when the page is scrolled to its end, as a piece and as a page of its own."""
    address = re.search(r'<(?:p|li) class="beyond".*?href="([^"]+)"', page)[1].replace("&amp;", "&")
    piece, whole = (client.get(address, headers=headers).content.decode() for headers in (HTMX, {}))
    assert "<html" not in piece
    assert "<html" in whole
    return piece, whole


def test_tide_lines_come_in_pieces_what_runs_out_first_before(client, much, monkeypatch):
    monkeypatch.setattr("wembit.web.restock.views.SHOWN", 4)
    page = get(client, "restock/")
    assert re.findall(r"<b>(wool \d)</b>", page) == [f"wool {n}" for n in range(4)]
    assert "6 more" in words(page)
    for more in rest_of(client, page):
        assert re.findall(r"<b>(wool \d)</b>", more) == [f"wool {n}" for n in range(4, 8)]
    item = much[2].needs.first().item_id
    assert re.search(rf'class="tide pick in-hand"[^>]*restock/item/{item}/', get(client, f"restock/item/{item}/"))


def test_the_bench_shows_the_longest_begun_first(client, owner, much, monkeypatch):
    monkeypatch.setattr("wembit.web.bench.views.SHOWN", 3)
    for project in much[:5]:
        client.post(f"{client.base}bench/begin/{project.pk}/")
    page = get(client, "bench/")
    assert re.findall(r'quiet">(Order \d),', page) == ["Order 0", "Order 1", "Order 2"]
    assert "2 more in hand" in page
    for more in rest_of(client, page):
        assert re.findall(r'quiet">(Order \d),', more) == ["Order 3", "Order 4"]
        assert "more in hand" not in more


def test_today_names_the_first_few_and_counts_the_others(client, much):
    page = get(client)
    assert len(re.findall(r'<li class="thing ', page)) == 14
    assert "6 more in these weeks" in words(page), "ten run out, four are due, six have to be begun"
    for project in much[:6]:
        client.post(f"{client.base}bench/begin/{project.pk}/")
    assert "3 more in hand" in words(get(client))


def test_the_bench_offers_the_first_few_to_begin(client, much):
    page = words(get(client, "bench/"))
    assert page.count("Begin one") == 8
    assert "2 more in the plan" in page


def test_the_fibres_to_choose_from_are_in_a_page_once(client, much):
    figure = much[0].colourway.version.figure
    for address in (f"figures/{figure.pk}/", f"figures/{figure.pk}/colours/"):
        page = get(client, address)
        assert page.count("wool 7,") == 1
        assert re.search(r'<template id="fibres">.*wool 7.*</template>', page)
        assert "data-list" in page
        whole = get(client, f"{address}?lists=1")
        assert "data-list" not in whole
        assert whole.count("wool 7,") > 1, "without script each list holds them"


def test_what_came_is_chosen_from_one_list_and_stays_chosen_when_something_is_wrong(client, much):
    item = much[3].needs.first().item
    page = get(client, "stash/delivery/")
    assert page.count("wool 3,") == 1
    assert get(client, "stash/delivery/?lists=1").count("wool 3,") == RECEIVE_ROWS
    answer = text(post(client, "stash/delivery/", item_0=str(item.pk), amount_0="no"))
    assert re.search(rf'<select id="f-item_0"[^>]*>.*?<option value="{item.pk}" selected>wool 3, ', answer)
