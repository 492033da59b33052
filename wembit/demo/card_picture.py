"""A made-up picture of a heap of wool with a white card beside it, under a warm lamp: for telling a colour on the demo."""

from __future__ import annotations

import io

import numpy as np
from PIL import Image, ImageFilter

from wembit.core.colour.photo import linear

WIDE, HIGH = 900, 600
LAMP, EXPOSURE = np.array([1.0, 0.88, 0.72]), 0.82
TABLE, CARD = np.array([0.30, 0.25, 0.20]), 0.90


def card_picture(srgb: str) -> bytes:
    """A JPEG. The wool has that colour by daylight; the lamp makes it warmer."""
    chance = np.random.default_rng(4)
    y, x = np.mgrid[:HIGH, :WIDE]
    light = np.broadcast_to(TABLE, (HIGH, WIDE, 3)).copy()
    light[(abs(x - 230) < 130) & (abs(y - 300) < 140)] = CARD
    angle = np.arctan2(y - 300, x - 620)
    heap = np.hypot((x - 620) / 1.2, y - 300) < 150 + 14 * np.sin(7 * angle) + 8 * np.sin(13 * angle)
    wool = linear(np.array([[int(srgb[i : i + 2], 16) for i in (1, 3, 5)]]))[0]
    grain = Image.fromarray((128 + 40 * chance.normal(size=(HIGH, WIDE))).clip(0, 255).astype(np.uint8))
    fibres = np.asarray(grain.filter(ImageFilter.BoxBlur(2)), dtype=float) / 128
    light[heap] = wool * fibres[heap][:, None]
    seen = np.clip(light * LAMP * EXPOSURE, 1e-9, 1)
    values = np.where(seen <= 0.0031308, seen * 12.92, 1.055 * seen ** (1 / 2.4) - 0.055)
    out = io.BytesIO()
    Image.fromarray((values * 255).astype(np.uint8)).save(out, "JPEG", quality=88)
    return out.getvalue()
