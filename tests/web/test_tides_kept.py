"""A tide line is drawn anew when something of it is another, and only then; what it says is never old."""

from decimal import Decimal

import pytest

from tests.web import factories as make
from tests.web.helpers import get, post, words
from tests.web.shared import shared
from wembit.web.restock import views
from wembit.web.stash.actions.describe_item import describe_item


@pytest.fixture
def drawn(monkeypatch):
    """The names of the wools whose lines were drawn, as they are."""
    names, draw = [], views.tide
    monkeypatch.setattr(views, "tide", lambda line, *rest: names.append(line.item.name) or draw(line, *rest))
    return names


@shared
def short(maker, owner):
    """Two wools of which more is planned than there is."""
    lots = [make.lot(owner, name, "4", srgb=srgb) for name, srgb in (("moss", "#6f7d43"), ("peat", "#4a382b"))]
    for lot in lots:
        make.project(owner, make.figure(owner, f"{lot.item.name} ball", 40.0, fibre=lot), count=4, name=lot.item.name)
    return lots


def test_a_press_draws_the_lines_that_it_changes(client, short, drawn):
    get(client, "restock/")
    assert sorted(drawn) == ["moss", "peat"]
    drawn.clear()
    post(client, f"stash/lot/{short[0].pk}/take/", amount="0.5", anyway="1")
    page = words(get(client, "restock/"))
    assert "moss" in drawn
    assert "3.5 g" in page
    drawn.clear()
    get(client, "restock/")
    assert drawn == []


def test_what_is_drawn_of_a_wool_is_drawn_anew(client, owner, short, drawn):
    item, offer = short[1].item, make.offer(owner, short[1].item)
    get(client, "restock/")

    def told() -> str:
        """The page after a press, of which the line of moss stays as it is."""
        owner.studio.pressed()
        drawn.clear()
        page = get(client, "restock/")
        assert drawn == ["peat"], drawn
        return page

    describe_item(owner, item.pk, linear_g_m=Decimal(14))  # of which nothing is seen here
    owner.studio.pressed()
    drawn.clear()
    get(client, "restock/")
    assert drawn == []
    item.refresh_from_db()
    item.name = "bog"
    item.save(update_fields=["name"])
    owner.studio.pressed()
    drawn.clear()
    assert "bog" in get(client, "restock/") and drawn == ["bog"]
    item.name = "peat"
    item.save(update_fields=["name"])
    assert "bog" not in told()
    post(client, f"stash/lot/{short[1].pk}/tell/", colour="#b22222")
    offer.delete()
    assert "Nobody sells it yet" in words(told())


def test_another_unit_of_weight_is_said_at_once(client, owner, short, drawn):
    get(client, "restock/")
    drawn.clear()
    owner.studio.weight_unit = "oz"
    owner.studio.save()
    owner.studio.pressed()
    page = words(get(client, "restock/"))
    assert sorted(drawn) == ["moss", "peat"]
    assert " oz" in page
