"""The colour of wool in a picture with a white or grey card in it.

The camera's values are made linear (IEC 61966-2-1), each channel is scaled so that the card comes out as the grey that it is
(white balance by the grey card, von Kries 1902 in the camera's primaries), and the wool's colour is the median of its patch.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.cluster.vq import kmeans2

from .conversions import MATRIX, xyz_rows_to_lab, xyz_to_srgb
from .difference import differences

CARDS = {"white": 0.90, "grey": 0.18}  # reflectances of the usual cards; common practice
CLIPPED, TOO_MANY = 250, 0.02  # a channel from there on is burnt out; the share of a patch that may be
DARK = 0.02  # linear: a card darker than that tells nothing
COLOURED, UNEVEN = 0.5, 0.25  # how far a card's channels may lie apart, and its brightness scatter: then it is no card
GLARE, SHADOW = 2.2, 0.35  # times the median luminance of the wool
MOST_FIBRES, SPREAD = 80, 12.0  # per cent of the pixels within that ΔE00, else a patch is of more than one colour
_TO_RATIOS = np.array([[value / sum(row) for value in row] for row in MATRIX])


class NoCard(ValueError):
    """What was picked as the card cannot be one; the message says why and what to do."""


@dataclass(frozen=True)
class Reading:
    """The wool's colour as X/Xn, Y/Yn, Z/Zn, CIELAB and for the screen; how far eight in ten of its
    pixels lie from that at most, in ΔE00; and what is to be looked at.
    """

    ratios: tuple[float, float, float]
    lab: tuple[float, float, float]
    srgb: str
    spread: float
    warnings: tuple[str, ...]


def linear(pixels: np.ndarray) -> np.ndarray:
    """sRGB values 0–255 (n, 3) as linear light 0–1."""
    values = pixels.astype(float) / 255
    return np.where(values <= 0.04045, values / 12.92, ((values + 0.055) / 1.055) ** 2.4)


def patch(picture: np.ndarray, x: float, y: float, radius: float) -> np.ndarray:
    """The pixels (n, 3) of a picture (h, w, 3) within a circle. Raises ValueError where it lies outside."""
    high, wide = picture.shape[:2]
    if not (0 <= x < wide and 0 <= y < high):
        raise ValueError("the place lies outside the picture")
    left, right = max(0, int(x - radius)), min(wide, int(x + radius) + 1)
    top, bottom = max(0, int(y - radius)), min(high, int(y + radius) + 1)
    ys, xs = np.mgrid[top:bottom, left:right]
    inside = (xs - x) ** 2 + (ys - y) ** 2 <= max(radius, 0.5) ** 2
    return picture[top:bottom, left:right][inside].reshape(-1, 3)


def read(wool: np.ndarray, card: np.ndarray, kind: str = "white") -> Reading:
    """The colour of a patch of wool (n, 3) beside a patch of a card (m, 3), both sRGB 0–255. Raises `NoCard`."""
    gains = CARDS[kind] / _light_of(card, kind)
    seen = linear(wool) * gains
    middle = np.median(seen, axis=0)
    ratios = np.clip(_TO_RATIOS @ middle, 1e-5, None)
    labs = xyz_rows_to_lab(np.clip(seen @ _TO_RATIOS.T, 1e-6, None))
    lab = xyz_rows_to_lab(ratios)
    spread = float(np.percentile(differences(labs, lab), MOST_FIBRES))
    return Reading(
        tuple(ratios.tolist()),
        tuple(lab.tolist()),
        xyz_to_srgb(tuple(ratios)),
        spread,
        _warnings(wool, seen, spread),
    )


def _light_of(card: np.ndarray, kind: str) -> np.ndarray:
    """What the card sends back in each channel, linear."""
    if (card >= CLIPPED).any(axis=1).mean() > TOO_MANY:
        raise NoCard("The card is burnt out: its white has no grain left. Take the picture darker, or out of the sun.")
    light = linear(card)
    middle = np.median(light, axis=0)
    if middle.min() < DARK:
        raise NoCard("The card is too dark to tell the light by. Pick the card itself, or take the picture brighter.")
    if middle.max() > middle.min() / COLOURED * 1.6:
        raise NoCard(f"What you picked as the card is coloured. Pick the {kind} card.")
    if light.mean(axis=1).std() > UNEVEN * light.mean():
        raise NoCard("What you picked as the card is uneven: its edge, a shadow or no card. Pick its middle.")
    return middle


def _warnings(wool: np.ndarray, seen: np.ndarray, spread: float) -> tuple[str, ...]:
    luminance = seen @ _TO_RATIOS[1]
    middle = np.median(luminance)
    found = []
    if (wool >= CLIPPED).any(axis=1).mean() > TOO_MANY:
        found.append("Some of the wool is burnt out; take the picture darker.")
    if (luminance > GLARE * middle).mean() > 0.05:
        found.append("Some of the wool shines; turn it out of the light.")
    if (luminance < SHADOW * middle).mean() > 0.10:
        found.append("Some of the wool lies in shadow; open the tuft, or pick elsewhere.")
    if np.median(seen, axis=0).max() > 1.05:
        found.append("The wool is brighter than the card: the card lies in shadow.")
    if spread > SPREAD:
        found.append("The patch holds more than one colour; what is kept is the middle.")
    return tuple(found)


def main_colours(picture: np.ndarray, count: int = 6, seed: int = 1) -> list[tuple[tuple[float, float, float], float]]:
    """The main colours of a picture (h, w, 3), sRGB 0–255, as CIELAB with their shares of it, the largest first; those that
    are related count as one. By k-means (S. P. Lloyd, IEEE Transactions on Information Theory 28 (1982) 129–137).
    """
    step = max(1, int((picture.shape[0] * picture.shape[1] / 20_000) ** 0.5))
    labs = xyz_rows_to_lab(np.clip(linear(picture[::step, ::step].reshape(-1, 3)) @ _TO_RATIOS.T, 1e-6, None))
    kinds = min(count + 2, len(np.unique(labs.round(1), axis=0)))
    centres, which = kmeans2(labs, kinds, minit="++", rng=seed, iter=25)
    shares = np.bincount(which, minlength=kinds) / len(which)
    found: list[tuple[np.ndarray, float]] = []
    for place in np.argsort(-shares, kind="stable"):
        if not shares[place]:
            continue
        near = [n for n, (other, _) in enumerate(found) if differences(other, centres[place]) < 5]
        if near:
            found[near[0]] = (found[near[0]][0], found[near[0]][1] + shares[place])
        else:
            found.append((centres[place], float(shares[place])))
    found.sort(key=lambda each: -each[1])
    return [((float(lab[0]), float(lab[1]), float(lab[2])), float(share)) for lab, share in found[:count]]
