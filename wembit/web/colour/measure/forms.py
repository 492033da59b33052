"""Which way a bag's colour is told, and by what."""

from __future__ import annotations

from wembit.core.colour.photo import CARDS
from wembit.web.fields import ChosenField, NumberField, TextField
from wembit.web.forms import StudioForm

TOUCH = "Touch the card in the picture, then the wool."
FARTHEST_PX = 20_000


class TellForm(StudioForm):
    """`do` says which way: words, eye, instrument, photo, or read."""

    do = TextField(20)
    colour = TextField(60)


class SpotsForm(StudioForm):
    """Where card and wool were touched in the picture, in its pixels, and which card it is."""

    card_x = NumberField(0, FARTHEST_PX, words=TOUCH)
    card_y = NumberField(0, FARTHEST_PX, words=TOUCH)
    wool_x = NumberField(0, FARTHEST_PX, words=TOUCH)
    wool_y = NumberField(0, FARTHEST_PX, words=TOUCH)
    kind = ChosenField(CARDS, "Choose which card it is.")

    @property
    def faults(self) -> dict[str, str]:
        """Those of the spots stand together, under the card."""
        return {("kind" if name == "kind" else "card"): words for name, words in super().faults.items()}
