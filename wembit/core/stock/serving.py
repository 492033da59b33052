"""Which notions serve a need, by their colour and make, and what a need is called where nobody has one."""

from __future__ import annotations

from collections.abc import Iterable

from wembit.core.colour.colour_words import colour_word
from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000
from wembit.core.craft.notions import Needed, OnShelf, of_make

OTHER_COLOUR = 15.0  # ΔE00 from which an eye is of another colour; common practice


def alike(needed: Needed, offers: Iterable[OnShelf]) -> list[OnShelf]:
    """The offers whose colour and make are what is needed, else those of which nobody knows it; any where none is told."""
    offers = of_make(needed, offers)
    if not needed.srgb:
        return offers
    wanted = lab(needed.srgb)
    of_it = [offer for offer in offers if offer.srgb and delta_e_2000(wanted, lab(offer.srgb)) <= OTHER_COLOUR]
    return of_it or [offer for offer in offers if not offer.srgb]


def called(needed: Needed) -> str:
    """What a need is called where nobody has it: amber eyes are yellow eyes."""
    if not needed.srgb:
        return needed.words
    return f"{colour_word(*lab(needed.srgb))} {needed.words}"
