"""Made-up pictures of pieces with a card or a coin beside them, drawn from their outlines in mm."""

import io
import math

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

from wembit.core.work.by_photo import CARD_MM, mapped

WIDE, HIGH, FINE = 1200, 900, 3  # pixels of a picture, drawn so many times as fine
PX_MM = 4.4


def disc(x, y, long, wide=None, turned=0.0, points=180):
    """An ellipse's outline in mm."""
    around = np.linspace(0, 2 * math.pi, points, endpoint=False)
    ring = np.column_stack([np.cos(around) * long / 2, np.sin(around) * (wide or long) / 2])
    turn = np.array([[math.cos(turned), -math.sin(turned)], [math.sin(turned), math.cos(turned)]])
    return ring @ turn.T + [x, y]


def block(x, y, long, wide, turned=0.0):
    ring = np.array([[-long, -wide], [long, -wide], [long, wide], [-long, wide]]) / 2
    turn = np.array([[math.cos(turned), -math.sin(turned)], [math.sin(turned), math.cos(turned)]])
    return ring @ turn.T + [x, y]


def picture(things, *, ground="#e9e4d8", tilt=0.0, seed=0, noise=3.0, fuzz=0, wide=WIDE, high=HIGH):
    """A picture of outlines in mm with their colours, seen tilted, with grain, and stray fibres around the last one."""
    chance = np.random.default_rng(seed)
    image = Image.new("RGB", (wide * FINE, high * FINE), ground)
    draw = ImageDraw.Draw(image)
    lens = np.array([[PX_MM, 0, 0], [0, PX_MM * (1 - tilt / 3), 0], [0, tilt / 1000, 1]])
    for ring, colour in things:
        draw.polygon([tuple(each) for each in (mapped(lens, ring) * FINE).tolist()], fill=colour)
    for _ in range(fuzz):
        at = mapped(lens, things[-1][0][chance.integers(len(things[-1][0]))][None])[0]
        away = chance.normal(0, 3.0 * PX_MM, 2)
        draw.line([tuple(at * FINE), tuple((at + away) * FINE)], fill=things[-1][1], width=2)
    small = image.resize((wide, high), Image.Resampling.BOX).filter(ImageFilter.GaussianBlur(0.7))
    grain = chance.normal(0, noise, (high, wide, 3))
    return np.clip(np.asarray(small, dtype=float) + grain, 0, 255).astype(np.uint8)


CARD = (block(60, 60, *CARD_MM, 0.2), "#4f6f8f")
COIN = (disc(40, 50, 25.75), "#b08d57")


def as_file(pixels):
    """A picture as a PNG."""
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG")
    return out.getvalue()
