"""The colours of blends that came out teach what is expected of the next, in every room, and are taken back with them."""

from decimal import Decimal as D

import numpy as np
import pytest

from tests.web import factories as make
from tests.web.helpers import get, words
from tests.web.shared import shared
from wembit.core.colour.mixture import M
from wembit.core.colour.mixture import blend as mixture
from wembit.web.colour.queries import wools
from wembit.web.stash.actions.blend import Share, blend
from wembit.web.stash.actions.tell_colour import tell_colour
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.mixing import mixing_of, told_blends
from wembit.web.stash.swatch import curve_of, swatch_of_curve
from wembit.web.studio.models import Studio

WOOLS = {"chalk": "#f2ece0", "peat": "#3a2c25", "rust": "#8a3b2a", "gorse": "#d9a441", "slate": "#35546b"}
PAIRS = [(0, 1), (0, 2), (0, 4), (1, 3), (0, 1), (3, 4)]


@shared
def bags(owner):
    return [make.lot(owner, name, "90", srgb=srgb) for name, srgb in WOOLS.items()]


def carded(owner, bags, pair, parts=(1, 1), m=None, name="blend"):
    """A blend of two bags; told as it comes out in a studio that mixes with `m`."""
    lots = [bags[place] for place in pair]
    shares = [Share(lot.pk, part) for lot, part in zip(lots, parts, strict=True)]
    made = blend(owner, shares, D(4), name=name, form="batt", press=make.press())
    if m:
        curves = np.array([curve_of(bytes(lot.curve)) for lot in lots])
        tell_colour(owner, made.lot.pk, swatch_of_curve(mixture(curves, np.array(parts, dtype=float), m)))
        owner.studio.pressed()
    return made


def fresh(owner):
    return Studio.objects.get(pk=owner.studio_id)


def test_five_told_blends_teach_the_next_and_every_room_follows(owner, bags):
    for n, pair in enumerate(PAIRS[:4]):
        carded(owner, bags, pair, m=0.3, name=f"blend {n}")
    assert mixing_of(fresh(owner)).m == M
    carded(owner, bags, PAIRS[4], parts=(3, 1), m=0.3, name="blend 4")
    own = mixing_of(fresh(owner))
    assert own.m == pytest.approx(0.3, rel=0.15)
    assert wools(fresh(owner)).palette().m == own.m, "the map and the answers blend by it"
    owner.studio.refresh_from_db()
    made = carded(owner, bags, (0, 4), name="the next")
    curves = np.array([curve_of(bytes(bags[place].curve)) for place in (0, 4)])
    assert made.lot.predicted == swatch_of_curve(mixture(curves, np.array([1.0, 1.0]), own.m))["srgb"]


def test_a_blend_left_as_it_was_expected_teaches_nothing(owner, bags):
    for n, pair in enumerate(PAIRS):
        carded(owner, bags, pair, name=f"blend {n}")
    assert told_blends(fresh(owner)) == []
    assert mixing_of(fresh(owner)).n == 0


def test_a_blend_that_was_taken_back_is_forgotten(owner, bags):
    made = [carded(owner, bags, pair, m=0.3, name=f"blend {n}") for n, pair in enumerate(PAIRS[:5])]
    assert mixing_of(fresh(owner)).own
    undo(owner, entry_id=made[0].entry.pk, press=make.press())
    owner.studio.pressed()
    assert mixing_of(fresh(owner)).n == 4
    assert mixing_of(fresh(owner)).m == M


def test_the_page_shows_the_blends_as_they_came_out(client, owner, bags):
    assert "as it came out" not in words(get(client, "bench/learnt/"))
    carded(owner, bags, PAIRS[0], m=0.3, name="mist")
    assert "Tell the colour of 4 more blends" in words(get(client, "bench/learnt/"))
    for n, pair in enumerate(PAIRS[1:]):
        last = carded(owner, bags, pair, m=0.3, name=f"blend {n}")
    page = get(client, "bench/learnt/")
    last.lot.refresh_from_db()
    assert f'fill="{last.lot.srgb}"' in page
    assert "Yours come out lighter than by the book" in words(page)
    assert "from 6" in words(page)


def test_darker_blends_are_called_darker(client, owner, bags):
    for n, pair in enumerate(PAIRS):
        carded(owner, bags, pair, m=0.07, name=f"blend {n}")
    assert "Yours come out darker than by the book" in words(get(client, "bench/learnt/"))
