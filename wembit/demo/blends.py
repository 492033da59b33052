"""Blends of the past whose colour was told when they were carded, and used up since: the studio mixes a little darker than by
the book.
"""

from __future__ import annotations

import datetime as dt
import random
from collections.abc import Mapping
from decimal import Decimal
from typing import TYPE_CHECKING

import numpy as np

from wembit.core.colour.conversions import lab
from wembit.core.colour.mixture import blend as mixture
from wembit.web import clock
from wembit.web.stash.actions.blend import Share, blend
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.tell_colour import tell_colour
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Lot
from wembit.web.stash.swatch import curve_of, swatch_of_curve, swatch_of_lab

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Member

OWN_M = 0.125
TOLD_SD = 0.5  # of a told colour, in CIELAB
GRAMS = Decimal(4)
BLENDS = [  # days ago, name, wools with their parts
    (88, "wet sand", {"chalk": 3, "umber": 1}),
    (71, "driftwood", {"oat": 2, "soot": 1}),
    (63, "brackish", {"slate": 3, "olive": 1}),
    (49, "low cloud", {"fog": 2, "plum": 1}),
    (36, "tideline", {"gull": 3, "harbour": 1}),
    (27, "old rope", {"straw": 2, "umber": 1}),
]


def card_blends(member: Member, items: Mapping[str, Item]) -> None:
    """Card each, tell its colour as it came out, and use it up."""
    chance = random.Random(5)
    for ago, name, parts in BLENDS:
        with clock.as_of(clock.at(member.studio, clock.today(member.studio) - dt.timedelta(ago), 15)):
            lots = [Lot.objects.filter(item=items[wool]).order_by("-on_hand")[0] for wool in parts]
            shares = [Share(lot.pk, count) for lot, count in zip(lots, parts.values(), strict=True)]
            made = blend(member, shares, GRAMS, name=name, form="batt", press=Press(f"demo-blend-{ago}")).lot
            curves = np.array([curve_of(bytes(lot.curve or b"")) for lot in lots])
            came = swatch_of_curve(mixture(curves, np.array(list(parts.values()), dtype=float), OWN_M))
            told = [each + chance.gauss(0, TOLD_SD) for each in lab(came["srgb"])]
            tell_colour(member, made.pk, swatch_of_lab(told))
            member.studio.pressed()
            pull(member, made.pk, GRAMS, press=Press(f"demo-blend-used-{ago}"))
