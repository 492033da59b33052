"""Notions to size, what is told of them, and finding them by it."""

import re

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.web.stash.models import Item
from wembit.web.studio.models import VIEWER


@shared
def needle(owner):
    return make.notion_lot(owner, "my finest", "6", "needle").item


def test_everything_is_drawn_to_size(client, owner, needle):
    make.notion_lot(owner)
    make.notion_lot(owner, "florist wire", "940", "wire", "mm")
    make.notion_lot(owner, "pale pad", "1", "pad")
    page = get(client, "stash/notions/")
    eyes = re.search(
        r'<svg width="([\d.]+)mm"[^>]*>\s*(<circle[^>]*r="2"[^>]*></circle>|<circle[^>]*r="2.00"[^>]*/>)', page
    )
    assert eyes and page.count("<circle") == 10, "ten eyes of 4 mm are drawn of twenty"
    assert 'stroke-width="4.00"' in page
    assert "20 pieces" in words(page)


def test_a_needle_is_told_by_gauge_section_and_ones_own_mark_and_found_by_them(client, needle):
    answer = post(client, f"stash/notions/{needle.pk}/", gauge="38", section="star", mark="red dot")
    assert answer.status_code == 302
    item = Item.objects.get(pk=needle.pk)
    assert item.told == {"gauge": 38, "section": "star", "mark": "red dot"}
    assert item.what.startswith("needle 38 star red dot")
    assert "my finest" in get(client, "stash/?words=red")
    assert "my finest" not in get(client, "stash/?words=blue")
    assert 'value="38"' in get(client, f"stash/notions/{needle.pk}/")


def test_a_cutter_shows_its_outline(client, owner):
    cutter = make.notion_lot(owner, "snail house", "1", "cutter").item
    assert "below nothing" in told(post(client, f"stash/notions/{cutter.pk}/", size="-3"))
    assert "outline of the list" in told(post(client, f"stash/notions/{cutter.pk}/", outline="cat"))
    post(client, f"stash/notions/{cutter.pk}/", size="35 mm", outline="drop")
    page = get(client, f"stash/notions/{cutter.pk}/")
    assert "cutter drop 35 mm" in page
    assert "Sharp: count them" in page
    assert 'value="drop" checked' in page


@pytest.mark.parametrize(
    ("change", "said"),
    [({"gauge": "fine"}, "as on the packet"), ({"gauge": "99"}, "as on the packet"), ({"section": "oval"}, "across")],
)  # fmt: skip
def test_what_cannot_be_is_told_and_stays(client, needle, change, said):
    answer = post(client, f"stash/notions/{needle.pk}/", mark="kept", **change)
    assert said in told(answer)
    assert 'value="kept"' in text(answer)


def test_a_wool_is_no_notion_and_a_viewer_tells_nothing(client, owner, studio, needle):
    wool = make.lot(owner)
    assert client.get(client.base + f"stash/notions/{wool.item_id}/").status_code == 404
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    assert "Keep</button>" not in get(viewer, f"stash/notions/{needle.pk}/")
    assert post(viewer, f"stash/notions/{needle.pk}/", gauge="38").status_code == 403


def test_an_empty_house_says_where_to_begin(client, owner):
    assert "Put the first ones on the shelf" in get(client, "stash/notions/")
