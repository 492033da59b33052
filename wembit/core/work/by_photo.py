"""How long and wide a piece is, from a picture with a card or a coin beside it.

The plain ground is a plane of colour fitted to the picture's border; what differs by more than Otsu's threshold (N. Otsu, IEEE
Trans. SMC 9 (1979) 62–66) lies on it, and its edge is where it differs half as much as in its middle. A card's four sides are
fitted by total least squares, and the homography that makes its corners those of an ID-1 card (ISO/IEC 7810: 85.60 × 53.98
mm) gives the scale everywhere; of a coin the covariance does, which for a disc is r²/4 both ways. Length and width are those
along and across the piece's longer principal axis, of what is as wide as long those of the smallest rectangle around it.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage
from scipy.spatial import ConvexHull

Array = NDArray[np.float64]
CARD_MM = (85.60, 53.98)
LEAST_SHARE = 0.0015  # of the picture: what is smaller lies about
LEAST_CONTRAST = 20.0  # of sRGB values 0–255: less is shadow
RECTANGULAR, ROUND = 0.93, 0.95  # how well a card fills its rectangle, a coin its circle
ASPECT = 0.15  # how far the ratio of a card's sides may be off
LONGER = 1.2  # of the variances along and across: what has an axis
OPENED = 0.006  # of the longer side: stray fibres thinner than that do not count
SAMPLES = 1_500  # of the piece's points


class NoScale(ValueError):
    """There is nothing to measure, or nothing to measure it by; the message says what to do."""


@dataclass(frozen=True)
class Measured:
    """A piece in a picture: the homography (3, 3) from pixels to mm; its length and width; centre and direction of its length
    in mm and radians; some of its points (n, 2) in mm.
    """

    to_mm: Array
    long_mm: float
    wide_mm: float
    centre: tuple[float, float]
    turned: float
    points: Array

    def in_pixels(self, mm: NDArray[np.floating]) -> Array:
        """Where points (n, 2) in mm lie in the picture."""
        return mapped(np.asarray(np.linalg.inv(self.to_mm), dtype=np.float64), mm)


def measured(picture: NDArray[np.uint8], coin_mm: float | None = None) -> Measured:
    """The piece in a picture (h, w, 3) of sRGB values, beside a card, or a coin of that diameter, that lies left of it where
    both could be it. Raises `NoScale`.
    """
    things = _things(picture)
    if len(things) < 2:
        raise NoScale(
            "Only one thing is seen. Lay the piece and the card on plain ground, apart, both wholly in the picture."
        )
    known = [thing for thing in things if (_is_round(thing) if coin_mm else _is_card(thing))]
    if not known:
        what = "round coin" if coin_mm else "card"
        raise NoScale(
            f"No {what} is seen. Lay it flat beside the piece, on ground of another colour, wholly in the picture."
        )
    card = min(known, key=lambda thing: float(thing[:, 0].mean()))
    to_mm = _by_coin(card, coin_mm) if coin_mm else _by_card(card)
    piece = max((thing for thing in things if thing is not card), key=len)
    points = mapped(to_mm, piece)
    hull = mapped(to_mm, _corners(piece))
    centre, turned, long, wide = _along_itself(points, hull)
    step = max(1, len(points) // SAMPLES)
    return Measured(to_mm, long, wide, centre, turned, points[::step])


def mapped(homography: Array, points: NDArray[np.floating]) -> Array:
    """Points (n, 2) through a homography (3, 3)."""
    with_one = np.column_stack([points, np.ones(len(points))]) @ homography.T
    return np.asarray(with_one[:, :2] / with_one[:, 2:])


def smallest_rectangle(points: Array) -> tuple[tuple[float, float], float, float, float]:
    """Centre, direction of the long side in radians, long and short side of the smallest rectangle around points (n, 2)."""
    hull = points[ConvexHull(points).vertices]
    edges = np.diff(np.vstack([hull, hull[:1]]), axis=0)
    best: tuple[float, float, Array, Array] | None = None
    for angle in np.unique(np.round(np.arctan2(edges[:, 1], edges[:, 0]) % (math.pi / 2), 6)):
        turned = hull @ _turn(-float(angle)).T
        low, high = turned.min(axis=0), turned.max(axis=0)
        area = float(np.prod(high - low))
        if best is None or area < best[0]:
            best = (area, float(angle), low, high)
    if best is None:
        raise NoScale("Nothing is seen.")
    _, angle, low, high = best
    sides = high - low
    middle = _turn(angle) @ ((low + high) / 2)
    if sides[0] < sides[1]:
        angle += math.pi / 2
    return (float(middle[0]), float(middle[1])), angle, float(max(sides)), float(min(sides))


def _along_itself(points: Array, hull: Array) -> tuple[tuple[float, float], float, float, float]:
    """The rectangle around a thing along its longer principal axis; the smallest one where it has none."""
    values, vectors = np.linalg.eigh(np.cov(points.T))
    if values[1] < LONGER * values[0]:
        return smallest_rectangle(hull)
    turned = math.atan2(vectors[1, 1], vectors[0, 1])
    straight = hull @ _turn(-turned).T
    low, high = straight.min(axis=0), straight.max(axis=0)
    middle = _turn(turned) @ ((low + high) / 2)
    return (float(middle[0]), float(middle[1])), turned, float(high[0] - low[0]), float(high[1] - low[1])


def _turn(angle: float) -> Array:
    return np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])


def _things(picture: NDArray[np.uint8]) -> list[Array]:
    """The pixels (n, 2), x and y, of each thing that lies wholly in the picture."""
    differs = _off_the_ground(picture)
    threshold = max(LEAST_CONTRAST, otsu(differs))
    high, wide = differs.shape
    times = max(1, round(OPENED * max(high, wide) / 2))
    labels, _ = ndimage.label(_opened(differs > threshold, times))
    things = []
    for number, (rows, columns) in enumerate(ndimage.find_objects(labels), 1):
        if rows.start == 0 or columns.start == 0 or rows.stop == high or columns.stop == wide:
            continue
        around = (slice(max(0, rows.start - 4), rows.stop + 4), slice(max(0, columns.start - 4), columns.stop + 4))
        mine = labels[around] == number
        if mine.sum() >= LEAST_SHARE * high * wide:
            ys, xs = np.nonzero(_to_its_edge(differs[around], mine, times))
            things.append(np.column_stack([xs + around[1].start, ys + around[0].start]).astype(float))
    return things


def _opened(mask: NDArray[np.bool_], times: int) -> NDArray[np.bool_]:
    return np.asarray(ndimage.binary_opening(ndimage.binary_fill_holes(mask), iterations=times))


def _to_its_edge(differs: Array, mine: NDArray[np.bool_], times: int) -> NDArray[np.bool_]:
    """The largest piece around a thing that differs from the ground at least half as much as the thing's middle does."""
    inside = ndimage.binary_erosion(mine, iterations=4)
    half = float(np.median(differs[inside if inside.any() else mine])) / 2
    labels, count = ndimage.label(_opened((differs > half) & ndimage.binary_dilation(mine, iterations=4), times))
    if not count:
        return mine
    return np.asarray(labels == 1 + int(np.argmax(ndimage.sum_labels(labels > 0, labels, np.arange(1, count + 1)))))


def _off_the_ground(picture: NDArray[np.uint8]) -> Array:
    """How far each pixel (h, w) differs from the ground, a plane of colour fitted to the border, twice, without what lies on
    it.
    """
    values = ndimage.gaussian_filter(picture.astype(float), (1, 1, 0))
    high, wide = values.shape[:2]
    ys, xs = np.mgrid[0:high, 0:wide]
    plane = np.stack([np.ones((high, wide)), xs / wide, ys / high], axis=-1)
    band = max(2, round(0.02 * max(high, wide)))
    border = np.ones((high, wide), dtype=bool)
    border[band:-band, band:-band] = False
    keep = border
    for _ in range(3):
        fitted, *_ = np.linalg.lstsq(plane[keep], values[keep], rcond=None)
        off = np.linalg.norm(values - plane @ fitted, axis=-1)
        keep = border & (off <= max(np.median(off[border]) * 3, 1.0))
    return np.asarray(off)


def otsu(values: Array) -> float:
    """The threshold that parts values best in two, by the largest variance between the parts."""
    top = float(np.percentile(values, 99.5))
    counts, edges = np.histogram(np.clip(values, 0, top), bins=256)
    middles = (edges[1:] + edges[:-1]) / 2
    below = np.cumsum(counts)
    sums = np.cumsum(counts * middles)
    above = below[-1] - below
    with np.errstate(invalid="ignore", divide="ignore"):
        between = below * above * (sums / below - (sums[-1] - sums) / above) ** 2
    best = np.flatnonzero(between >= np.nanmax(between) * (1 - 1e-9))  # all of an empty valley part as well
    return float(edges[1:][best].mean())


def _corners(thing: Array) -> Array:
    """The corners of the pixels of a thing that lie on its hull."""
    hull = thing[ConvexHull(thing).vertices]
    half = 0.5
    return np.vstack([hull + np.array([dx, dy]) for dx in (-half, half) for dy in (-half, half)])


def _is_card(thing: Array) -> bool:
    _, _, long, wide = smallest_rectangle(_corners(thing))
    aspect = CARD_MM[0] / CARD_MM[1]
    return len(thing) / (long * wide) >= RECTANGULAR and abs(long / wide / aspect - 1) <= ASPECT


def _is_round(thing: Array) -> bool:
    """Whether it fills the ellipse with its covariance, which is no longer than a tilted coin's."""
    spread = np.linalg.eigvalsh(np.cov(thing.T))
    hull = ConvexHull(_corners(thing))
    ellipse = math.pi * 4 * math.sqrt(float(spread[0] * spread[1]))
    return (
        len(thing) / hull.volume >= ROUND and abs(ellipse / len(thing) - 1) < 1 - ROUND and spread[0] > 0.7 * spread[1]
    )


def _by_coin(thing: Array, diameter_mm: float) -> Array:
    """The affine map to mm in which a coin is a disc of its diameter."""
    values, vectors = np.linalg.eigh(np.cov(thing.T) + np.eye(2) / 12)
    straight = vectors @ np.diag(diameter_mm / 4 / np.sqrt(values)) @ vectors.T
    middle = thing.mean(axis=0)
    return np.vstack([np.column_stack([straight, -straight @ middle]), [0, 0, 1]])


def _by_card(thing: Array) -> Array:
    """The homography to mm in which the card's sides are as long as they are."""
    corners = _card_corners(thing)
    sides = np.linalg.norm(np.roll(corners, -1, axis=0) - corners, axis=1)
    if sides[0] + sides[2] < sides[1] + sides[3]:
        corners = np.roll(corners, -1, axis=0)
    long, wide = CARD_MM
    wanted = np.array([[0, 0], [long, 0], [long, wide], [0, wide]])
    rows, right = [], []
    for (x, y), (u, v) in zip(corners, wanted, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
        right += [u, v]
    found = np.linalg.solve(np.array(rows), np.array(right))
    return np.append(found, 1.0).reshape(3, 3)


def _card_corners(thing: Array) -> Array:
    """The corners (4, 2) of a card, clockwise in the picture, where the lines through its sides meet."""
    middle, turned, long, wide = smallest_rectangle(_corners(thing))
    edge = _outline(thing)
    beside = (edge - middle) @ _turn(turned) / [long / 2, wide / 2]
    lines = []
    for axis, sign in ((1, -1), (0, 1), (1, 1), (0, -1)):  # along the long side above, right, below, left
        along, off = beside[:, 1 - axis], beside[:, axis] * sign
        outward = _turn(turned) @ (np.array([0.0, sign]) if axis else np.array([sign, 0.0]))
        lines.append(_line(edge[(off > 0.8) & (np.abs(along) < 0.75)], outward))
    pairs = zip(lines[-1:] + lines[:-1], lines, strict=True)
    return np.array([np.linalg.solve(np.array([one[0], two[0]]), np.array([one[1], two[1]])) for one, two in pairs])


def _outline(thing: Array) -> Array:
    """The pixels of a thing with a neighbour that is none of it."""
    places = thing.astype(int) - thing.min(axis=0).astype(int) + 1
    mask = np.zeros(places.max(axis=0) + 2, dtype=bool)
    mask[places[:, 0], places[:, 1]] = True
    inner = ndimage.binary_erosion(mask)
    return thing[~inner[places[:, 0], places[:, 1]]]


def _line(points: Array, outward: Array) -> tuple[Array, float]:
    """Normal and distance of the line through points by total least squares, half a pixel further out, without outliers."""
    if len(points) < 4:
        raise NoScale("The card is too small in the picture. Come nearer, or lay it flatter.")
    for _ in range(2):
        middle = points.mean(axis=0)
        normal = np.linalg.svd(points - middle)[2][1]
        off = np.abs((points - middle) @ normal)
        points = points[off <= max(1.0, 2.5 * float(np.median(off)))]
    normal = normal * np.sign(normal @ outward)
    return normal, float(normal @ points.mean(axis=0)) + 0.5
