"""The ways in which a bag's colour is told, each as the fields of a swatch, and the neighbours to hold it against."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np
from PIL import Image

from wembit.core.colour.conversions import chroma_hue
from wembit.core.colour.instrument import Unreadable, read_spectra
from wembit.core.colour.photo import NoCard, Reading, patch, read
from wembit.web.colour.map.target import HEX, numbers_of
from wembit.web.errors import Refusal
from wembit.web.limits import INSTRUMENT_BYTES
from wembit.web.stash.models import Lot
from wembit.web.stash.swatch import swatch, swatch_of_curve, swatch_of_lab

PATCH = 0.03  # radius of a patch as a share of the picture's longer side
STEPS = {
    "lighter": (3, 0, 0), "darker": (-3, 0, 0), "more colour": (0, 4, 0), "greyer": (0, -4, 0),
    "warmer": (0, 0, -1), "cooler": (0, 0, 1),
}  # fmt: skip
WARM, TURN = 60.0, 8.0  # degrees: the warmest hue, and how far one step turns


@dataclass(frozen=True)
class Nudge:
    """A small change of a colour by eye: its name, and the colour it leads to."""

    name: str
    lab: tuple[float, float, float]

    @property
    def text(self) -> str:
        return " ".join(f"{value:.1f}" for value in self.lab)


def told_in_words(text: str) -> dict:
    """`#6f7d43`, or lightness, a and b. Raises `Refusal`."""
    text = text.strip()
    if match := HEX.fullmatch(text):
        return swatch(f"#{match[1].lower()}")
    numbers = numbers_of(text)
    if numbers is None or not (0 <= numbers[0] <= 100 and abs(numbers[1]) <= 200 and abs(numbers[2]) <= 200):
        raise Refusal("Write a colour as #6f7d43, or as lightness (0 to 100), a and b, like 50 -12 30.", "colour")
    return swatch_of_lab(numbers)


def told_by_instrument(upload: Any) -> dict:
    """The first sample of an instrument's CSV. Raises `Refusal`."""
    if upload is None:
        raise Refusal("Choose the file that the instrument wrote.", "table")
    if upload.size > INSTRUMENT_BYTES:
        raise Refusal("That file is larger than 2 MB. Send the one sample of this bag.", "table")
    raw = upload.read()
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = raw.decode("latin-1")
    try:
        return swatch_of_curve(read_spectra(text)[0][1])
    except Unreadable as fault:
        raise Refusal(str(fault), "table") from None


def told_by_picture(lot: Lot, wool: tuple[float, float], card: tuple[float, float], kind: str) -> Reading:
    """What the bag's picture says where the wool and where the card was touched, in pixels. Raises `Refusal`."""
    if not lot.photo:
        raise Refusal("Take a picture of the wool with the card beside it first.", "photo")
    with lot.photo.open("rb") as file, Image.open(file) as image:
        pixels = np.asarray(image.convert("RGB"))
    radius = max(2.0, PATCH * max(pixels.shape[:2]))
    if math.dist(wool, card) < 2 * radius:
        raise Refusal("Wool and card lie on the same spot. Touch the card, then the wool.", "card")
    try:
        return read(patch(pixels, *wool, radius), patch(pixels, *card, radius), kind)
    except NoCard as fault:
        raise Refusal(str(fault), "card") from None
    except ValueError:
        raise Refusal("Touch the card and the wool within the picture.", "card") from None


def nudges(lab: tuple[float, float, float]) -> list[Nudge]:
    """A little lighter, darker, more and less coloured, warmer, cooler."""
    light, a, b = lab
    chroma, hue = chroma_hue(a, b)
    found = []
    for name, (up, out, turn) in STEPS.items():
        towards = hue
        if turn:
            away = (hue - WARM + 180) % 360 - 180  # towards the warmest hue or away from it, the shorter way
            step = TURN * (1 if away >= 0 else -1) * turn
            towards = hue + step if turn > 0 or abs(away) > TURN else WARM
        length = max(0.0, chroma + out)
        at = math.radians(towards)
        found.append(Nudge(name, (min(100.0, max(0.0, light + up)), length * math.cos(at), length * math.sin(at))))
    return found
