"""The best blends of a palette for a colour: recipes in whole parts that a person can weigh.

The additive function of a blend (mixture.py) is a weighted mean of those of its fibres. Around any mix, CIELAB runs straight
in it and the square of CIEDE2000 is a quadratic form: each lot is a point in a space of three, and the difference of a recipe
is the length of the weighted mean of its points, which one matrix product gives for many recipes at once. The foremost are
then worked out exactly. The first space is laid around the target itself, the next ones around the best mix so far, until
nothing gains.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from itertools import combinations, product

import numpy as np
from scipy.optimize import nnls

from ..dividing import rounded
from .basis import WEIGHTS
from .difference import differences, in_words
from .mixture import f, reflectance, slope
from .palette import Palette
from .recovery import curves
from .spaces import KNEE, labs_of_ratios

ENOUGH = 0.08  # ΔE00: nothing that matters is better
ROUNDS, LITTLE = 5, 0.01  # spaces laid, and the gain for which another one is not worth while
NEAR = 1.0  # ΔE00: so near, the space around the target itself is true
WORK = 800_000  # recipes of one kind that are looked at in one step
CHUNK = 600_000  # and of them at once: so many stay in the processor's cache
EXACTLY = 600  # recipes of one step that are worked out exactly; where the best is far off, more of a small palette:
FAR_EXACTLY, FAR_MOST = 240_000, 12_000  # so many by the number of lots, but at most those
KEPT = 80  # and kept
PAIRED, ROWS = 600, 100  # lots of which all pairs are looked at, and of them at once
SLACK, WIDER, FAR_WIDER = 0.3, 1.3, 2.0  # how much longer than the best a length may be and still be looked at
STEP = 0.5  # CIELAB: over which the difference is laid straight
LEEWAY = 0.05  # ΔE00 by which a recipe of three must be better to be looked for among all lots
SUMS, HITS = 3_500_000, 200_000  # pairs times recipes so looked at, and third lots found: fewer pairs where they abound
SMALL = 100  # lots that are looked at in all sets again in every space
PARTNERS = 60  # lots whose pairs tell how many are found
BENT, MOST_BENT = 0.1, 1.0  # ΔE00 by which the straight space may be wrong: as much as can be looked at, within these
TABLE, PRIMES, FINE = 1 << 20, np.array([1, 12_289, 786_433], dtype=np.int32), 2
EASE = 1e-9
_CUBE = np.array([[0, 116, 0], [500, -500, 0], [0, 200, -200]])


@dataclass(frozen=True)
class Blend:
    """A recipe: places in the palette with whole parts in lowest terms, what it looks like (CIELAB, and X/Xn, Y/Yn, Z/Zn), how
    far it is off, and the largest difference between two of its fibres."""

    indices: tuple[int, ...]
    parts: tuple[int, ...]
    lab: tuple[float, float, float]
    ratios: tuple[float, float, float]
    de00: float
    mottle: float

    @property
    def words(self) -> str:
        return in_words(self.de00)

    def weighed(self, grams: float) -> list[float]:
        """What each lot gives to so many grams, to 0.01 g, in the order of `indices`."""
        return rounded(grams, [Fraction(part, sum(self.parts)) for part in self.parts])


@lru_cache(maxsize=64)
def recipes(fibres: int, most: int) -> np.ndarray:
    """All recipes of so many fibres in at most `most` whole parts, in lowest terms, (m, fibres)."""
    found = [
        parts
        for parts in product(range(1, most - fibres + 2), repeat=fibres)
        if sum(parts) <= most and math.gcd(*parts) == 1
    ]
    return np.array(found, dtype=int).reshape(-1, fibres)


@lru_cache(maxsize=64)
def _sets(count: int, fibres: int) -> np.ndarray:
    return np.array(list(combinations(range(count), fibres)), dtype=np.int32).reshape(-1, fibres)


@lru_cache(maxsize=256)
def _mixing_of(ratios: tuple[float, float, float]) -> np.ndarray | None:
    """The additive function of a colour's own curve; None where no curve reaches it."""
    curve, came = curves(np.array([ratios]))
    return f(curve[0]) if came[0] else None


def blends(
    target: Sequence[float], palette: Palette, grams: float, *, max_fibres: int = 3, parts: int = 8, limit: int = 5
) -> list[Blend]:
    """The `limit` best blends for a colour given as X/Xn, Y/Yn, Z/Zn, `grams` of it wanted, best first. The first is the
    best there is, to 0.1 CIEDE2000; the list is empty where no lot can give its share."""
    search = _Search(np.asarray(target, dtype=float), palette, grams, parts)
    if len(search.usable):
        search.run(min(max_fibres, parts, len(search.usable)))
    return search.best(limit)


class _Search:
    def __init__(self, target: np.ndarray, palette: Palette, grams: float, most: int):
        self.target, self.lab, self.palette, self.most = target, labs_of_ratios(target), palette, most
        share = (palette.grams + EASE) / grams  # the largest share that a lot can give
        self.usable = np.flatnonzero(share >= 1 / most)
        self.share, self.mixing = share[self.usable], palette.mixing[self.usable]
        self.scarce = bool((self.share < 1).any())
        # What is known of recipes, by their places among the usable and their parts: ΔE00, and X/Xn, Y/Yn, Z/Zn.
        self.known: dict[tuple, tuple[float, np.ndarray]] = {}
        self.nearest = math.inf

    def run(self, fibres: int) -> None:
        """Rounds of looking, each in a space laid around a mix nearer to the best."""
        self.exactly(np.arange(len(self.usable))[:, None], np.ones((len(self.usable), 1), dtype=int))
        if fibres == 1:
            return
        own = _mixing_of(tuple(self.target.tolist()))
        middle = self.mix_of_best() if own is None else own
        for round_ in range(ROUNDS):
            before = self.nearest
            self.lay(middle)
            self.exchange(fibres)
            if self.nearest > ENOUGH and (round_ == 0 or (self.nearest > NEAR and len(self.usable) <= SMALL)):
                self.pairs()
                for count in range(3, fibres + 1):
                    self.among(count)
                self.exchange(fibres)
            for count in range(3, fibres + 1):
                if ENOUGH < self.nearest < NEAR:
                    self.to_the_last(count)
            settled = not self.nearest < before - LITTLE and (round_ > 0 or self.nearest < NEAR)
            if self.nearest <= ENOUGH or settled or not self.known:
                break
            middle = self.mix_of_best()

    def mix_of_best(self) -> np.ndarray:
        """The additive function of the best recipe; of all lots alike where there is none yet."""
        if not self.known:
            return self.mixing.mean(axis=0)
        indices, parts = self.foremost(1)[0]
        return np.array(parts) / sum(parts) @ self.mixing[list(indices)]

    def foremost(self, count: int) -> list[tuple]:
        return sorted(self.known, key=lambda recipe: self.known[recipe][0])[:count]

    # --- the space of a round ---------------------------------------------------------------------------------------------

    def lay(self, middle: np.ndarray) -> None:
        """Lay the usable lots out as points around the mix of that additive function: a recipe's ΔE00 is about
        √(self.off + |weighted mean of its points|²)."""
        self.tried: set[tuple] = set()  # what `exchange` has kept in this space
        ratios = WEIGHTS @ reflectance(middle)
        bent = np.where(ratios > KNEE**3, np.maximum(ratios, 1e-12) ** (-2 / 3) / 3, 1 / (3 * KNEE**2))
        tangent = (_CUBE * bent) @ (WEIGHTS * slope(middle))
        away = (self.mixing - middle) @ tangent.T  # (n, 3), CIELAB
        form, nearest, self.off = _quadratic(labs_of_ratios(ratios), self.lab)
        self.points = ((away - nearest) @ form).astype(np.float32)
        self.own = (self.points**2).sum(axis=1)

    def corners(self) -> list[int]:
        """The lots of the mix in any parts that comes closest."""
        far = max(1.0, float(np.abs(self.points).max())) * 100
        system = np.concatenate([self.points.T.astype(float), np.full((1, len(self.points)), far)])
        shares, _ = nnls(system, np.array([0, 0, 0, far]), maxiter=20 * len(self.points))
        return np.flatnonzero(shares > 1e-6).tolist()

    def chosen(self, fibres: int) -> np.ndarray:
        """The lots of which all sets of so many are looked at: those of the best recipes, the corners, and the nearest."""
        count, most = len(recipes(fibres, self.most)), fibres
        while most < len(self.points) and math.comb(most + 1, fibres) * count <= WORK:
            most += 1
        if most >= len(self.points):
            return np.arange(len(self.points))
        best = [index for indices, _ in self.foremost(most // 3) for index in indices][: most // 3]
        near = np.argsort(self.own, kind="stable")[:most].tolist()
        return np.array(list(dict.fromkeys([*self.corners(), *best, *near]))[:most])

    # --- looking -----------------------------------------------------------------------------------------------------------

    def pairs(self) -> None:
        """All pairs, of the nearest lots where there are very many, by the nearest point of the line between them."""
        parts = recipes(2, self.most)
        if not len(parts):
            return
        lots = np.argsort(self.own, kind="stable")[:PAIRED]
        own, inner = self.own[lots], self.points[lots] @ self.points[lots].T
        bound, found = self.found().bound, []
        for start in range(0, len(lots), ROWS):
            rows = slice(start, start + ROWS)
            towards = own[start:] - inner[rows, start:]
            apart = own[rows, None] - inner[rows, start:] + towards
            share = np.clip(towards / np.maximum(apart, 1e-9), 0, 1)
            lengths = own[start:] - share * (2 * towards - share * apart)
            one, two = np.divmod(np.flatnonzero(lengths < bound), lengths.shape[1])
            after = one < two
            found.append(np.stack([one[after], two[after]], axis=1) + start)
        self.look(lots, inner, np.concatenate(found), parts)

    def among(self, fibres: int) -> None:
        """All recipes of so many of the chosen lots."""
        chosen = self.chosen(fibres)
        inner = self.points[chosen] @ self.points[chosen].T
        self.look(chosen, inner, _sets(len(chosen), fibres), recipes(fibres, self.most))

    def look(self, lots: np.ndarray, inner: np.ndarray, sets: np.ndarray, parts: np.ndarray) -> None:
        """All recipes in those parts (m, k) of sets (n, k) of lots with these inner products."""
        if not len(sets) or not len(parts):
            return
        shares = (parts / parts.sum(axis=1, keepdims=True)).astype(np.float32)
        pairs = list(combinations(range(parts.shape[1]), 2))
        weights = np.stack([*(shares.T**2), *(2 * shares[:, i] * shares[:, j] for i, j in pairs)])
        own, flat = self.own[lots], inner.ravel()
        found = self.found()
        step = max(1, CHUNK // len(parts))
        for start in range(0, len(sets), step):
            some = sets[start : start + step]
            features = [own[each] for each in some.T] + [flat[some[:, i] * len(lots) + some[:, j]] for i, j in pairs]
            found.add(
                np.stack(features, axis=1) @ weights,
                lambda rows, columns, some=some: (lots[some[rows]], parts[columns]),
            )
        self.take(found)

    def to_the_last(self, fibres: int) -> None:
        """Every recipe of three or four that may be better by more than LEEWAY: for each choice of the others, the place where
        the last lot, that with the most parts, would have to lie is looked up in a table of the places near a lot."""
        parts = recipes(fibres, self.most)
        parts = parts[(parts[:, 1:] >= parts[:, :-1]).all(axis=1)]
        if not len(parts):
            return
        wide = np.ceil(parts.sum(axis=1) / parts[:, -1])
        order = np.argsort(self.own, kind="stable")
        others, lots = fibres - 1, len(order)
        least = self.nearest - LEEWAY + BENT

        # A few are looked up first, to tell how far out all can be.
        few = min(lots, PARTNERS if others == 2 else PARTNERS // 4)
        hits = sum(len(found[-1]) for *_, found in self.looked_up(order[:few], parts, wide, least))
        sets = min(SUMS / len(parts), lots**others)
        wider = (HITS / max(1, hits * sets / few**others)) ** (1 / 3)
        reach = float(np.clip(least * wider, least, least + MOST_BENT))
        sets = min(sets, few**others * HITS / max(1, hits * (reach / least) ** 3))
        first = order[: max(few // 2, math.ceil(sets ** (1 / others)))]

        found = _Found(reach**2 - self.off, EXACTLY, self.can_be)
        for recipe, left, right, (one, two, last) in self.looked_up(first, parts, wide, reach):
            away = [left[:, c].take(one) + right[:, c].take(two) - self.points[:, c].take(last) for c in range(3)]
            lengths = sum(each * each for each in away) * np.float32((recipe[-1] / recipe.sum()) ** 2)
            kept = np.flatnonzero(lengths < found.bound)
            earlier = [one[kept]] if others == 2 else list(np.divmod(one[kept], len(first)))
            indices = np.column_stack([*(first[each] for each in (*earlier, two[kept])), last[kept]])
            all_ = np.tile(recipe, (len(indices), 1))
            found.add(lengths[kept][:, None], lambda rows, _, i=indices, p=all_: (i[rows], p[rows]))
        self.take(found)

    def looked_up(self, first: np.ndarray, parts: np.ndarray, wide: np.ndarray, reach: float):
        """For each recipe: where the others than the last lead to, as sums of two places, and which sums have a lot near."""
        near = {each: _Near(self.points, reach * each) for each in set(wide)}
        for recipe, each in zip(parts, wide, strict=True):
            ways = [self.points[first] * np.float32(-part / recipe[-1]) for part in recipe[:-1]]
            left = ways[0] if len(ways) == 2 else (ways[0][:, None] + ways[1][None]).reshape(-1, 3)
            yield recipe, left, ways[-1], near[each].sums(left, ways[-1])

    def exchange(self, fibres: int) -> None:
        """Put any lot of the shelf in the place of one, or beside those, of the best recipes, as long as that leads nearer."""
        while self.nearest > ENOUGH:
            before = self.nearest
            for count in range(2, fibres + 1):
                parts = recipes(count, self.most)
                if len(parts):
                    self.beside(self.to_keep(count - 1, len(parts)), parts)
            if not self.nearest < before - LITTLE:
                break

    def to_keep(self, fibres: int, recipes_: int) -> np.ndarray:
        """Sets of so many lots of the best recipes that have not been kept before."""
        most = max(6, WORK // 3 // (recipes_ * len(self.points)))
        kept: dict[tuple, None] = {}
        for indices, _ in self.foremost(KEPT):
            for some in combinations(indices, fibres):
                if some not in self.tried:
                    kept[some] = None
            if len(kept) >= most:
                break
        sets = list(kept)[:most]
        self.tried.update(sets)
        return np.array(sets, dtype=int).reshape(-1, fibres)

    def beside(self, kept: np.ndarray, parts: np.ndarray) -> None:
        """All recipes of one more lot, any, beside sets of lots (q, k) in parts (m, k + 1); the new lot's stand last."""
        if not len(kept):
            return
        shares = parts / parts.sum(axis=1, keepdims=True)
        ones = np.ones(len(self.points), dtype=np.float32)
        right = np.stack([ones, *self.points.T, self.own])
        found = self.found()
        step = max(1, CHUNK // (len(parts) * len(self.points)))
        for start in range(0, len(kept), step):
            some = kept[start : start + step]
            mixed = np.einsum("mk,qkc->qmc", shares[:, :-1], self.points[some].astype(float))
            last = np.broadcast_to(shares[:, -1:], (len(some), len(parts), 1))
            left = np.concatenate([(mixed**2).sum(axis=2, keepdims=True), 2 * last * mixed, last**2], axis=2)
            lengths = left.reshape(-1, 5).astype(np.float32) @ right

            def recipe(rows, lots, some=some):
                which, columns = np.divmod(rows, len(parts))
                return np.column_stack([some[which], lots]), parts[columns]

            found.add(lengths, recipe)
        self.take(found)

    def found(self) -> _Found:
        far = self.nearest >= NEAR
        bound = (self.nearest * (FAR_WIDER if far else WIDER) + SLACK) ** 2 - self.off
        many = max(EXACTLY, min(FAR_MOST, FAR_EXACTLY // len(self.points)))
        return _Found(bound, many if far else EXACTLY, self.can_be)

    def take(self, found: _Found) -> None:
        """Work out the foremost of what was found exactly."""
        if not found.lengths:
            return
        lengths, indices, parts = (np.concatenate(each) for each in (found.lengths, found.indices, found.parts))
        if len(lengths) > found.most:
            first = np.argpartition(lengths, found.most)[: found.most]
            indices, parts = indices[first], parts[first]
        self.exactly(indices, parts)

    def can_be(self, indices: np.ndarray, parts: np.ndarray) -> np.ndarray:
        """Which recipes name no lot twice and can be given."""
        order = np.sort(indices, axis=1)
        good = (order[:, 1:] != order[:, :-1]).all(axis=1)
        if self.scarce:
            good &= (parts <= self.share[indices] * parts.sum(axis=1, keepdims=True)).all(axis=1)
        return good

    def exactly(self, indices: np.ndarray, parts: np.ndarray) -> None:
        """Keep the best of what recipes (n, k) really look like; those that the lots cannot give are left out."""
        shares = parts / parts.sum(axis=1, keepdims=True)
        given = (shares <= self.share[indices]).all(axis=1)
        indices, parts, shares = indices[given], parts[given], shares[given]
        if not len(parts):
            return
        mixed = sum(shares[:, k, None] * self.mixing[indices[:, k]] for k in range(parts.shape[1]))
        ratios = reflectance(mixed) @ WEIGHTS.T
        found = differences(labs_of_ratios(ratios), self.lab)
        self.nearest = min(self.nearest, float(found.min()))
        for at in np.argsort(found, kind="stable")[:KEPT].tolist():
            recipe = sorted(zip(indices[at].tolist(), parts[at].tolist(), strict=True))
            self.known[tuple(zip(*recipe, strict=True))] = (float(found[at]), ratios[at])

    def best(self, limit: int) -> list[Blend]:
        ids = [self.palette.ids[index] for index in self.usable]

        def rank(recipe: tuple) -> tuple:
            indices, parts = recipe
            return round(self.known[recipe][0], 6), len(parts), sum(parts), tuple(ids[index] for index in indices)

        found = []
        for recipe in sorted(self.known, key=rank)[:limit]:
            indices, parts = recipe
            de, ratios = self.known[recipe]
            places = tuple(self.usable[list(indices)].tolist())
            labs = self.palette.labs[list(places)]
            mottle = float(differences(labs[:, None], labs[None]).max())
            lab = tuple(labs_of_ratios(ratios).tolist())
            found.append(Blend(places, parts, lab, tuple(ratios.tolist()), de, mottle))
        return found


class _Near:
    """A table that names a point near any place: by a hash of the cells of a lattice, which adds up as the places do. Where
    several points are near, it names one of them."""

    def __init__(self, points: np.ndarray, reach: float):
        self.cell = np.float32(max(reach, 0.01) / FINE)
        around = np.array(list(product(range(-FINE - 1, FINE + 2), repeat=3)), dtype=np.int32)
        around = around[(around**2).sum(axis=1) <= (FINE + 1) ** 2]
        keys = np.add.outer(around @ PRIMES, self.keys(points)) & (TABLE - 1)
        self.table = np.full(TABLE, -1, dtype=np.int16)
        self.table[keys] = np.arange(len(points), dtype=np.int16)

    def keys(self, places: np.ndarray) -> np.ndarray:
        return np.rint(places / self.cell).astype(np.int32) @ PRIMES

    def sums(self, left: np.ndarray, right: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Which sums of one of `left` (n, 3) and one of `right` (m, 3) lie near a point: places in both, and the point."""
        keys = np.add.outer(self.keys(left), self.keys(right))
        keys &= TABLE - 1
        named = self.table.take(keys)
        at = np.flatnonzero(named >= 0)
        return *np.divmod(at, len(right)), named.ravel()[at]


class _Found:
    """The shortest recipes whose squared length is below a bound, gathered piece by piece."""

    def __init__(self, bound: float, most: int, can_be):
        self.bound, self.most, self.can_be = bound, most, can_be
        self.lengths, self.indices, self.parts = [], [], []

    def add(self, lengths: np.ndarray, recipe) -> None:
        rows, columns = np.divmod(np.flatnonzero(lengths < self.bound), lengths.shape[1])
        if not len(rows):
            return
        lengths = lengths[rows, columns]
        for most in (8 * self.most, len(lengths)):  # room for what cannot be; where that is most of it, look at all
            first = np.argpartition(lengths, most)[:most] if len(lengths) > most else np.arange(len(lengths))
            indices, parts = recipe(rows[first], columns[first])
            good = self.can_be(indices, parts)
            if len(first) == len(lengths) or good.sum() >= self.most:
                break
        lengths, indices, parts = lengths[first][good], indices[good], parts[good]
        if len(lengths) > self.most:
            first = np.argpartition(lengths, self.most)[: self.most]
            lengths, indices, parts = lengths[first], indices[first], parts[first]
            self.bound = lengths.max()
        self.lengths.append(lengths)
        self.indices.append(indices)
        self.parts.append(parts)


def _quadratic(middle: np.ndarray, target: np.ndarray) -> tuple[np.ndarray, np.ndarray, float]:
    """ΔE00² from `target` around the CIELAB colour `middle`, as |(step − nearest) @ form|² + off for steps from there."""
    around = [np.zeros(3), *(STEP * np.eye(3)), *(-STEP * np.eye(3))]
    around += [STEP * (np.eye(3)[i] + np.eye(3)[j]) for i, j in combinations(range(3), 2)]
    around += [-STEP * (np.eye(3)[i] + np.eye(3)[j]) for i, j in combinations(range(3), 2)]
    if np.abs(middle - target).max() < STEP / 10:  # at the target itself: the metric there, the same both ways
        steps = np.array(around)
        squares = differences(middle + steps / 2, middle - steps / 2) ** 2
    else:
        squares = differences(middle + np.array(around), target) ** 2
    here, ahead, behind = squares[0], squares[1:4], squares[4:7]
    rise = (ahead - behind) / (2 * STEP)
    form = np.diag((ahead + behind - 2 * here) / (2 * STEP**2))
    for at, (i, j) in enumerate(combinations(range(3), 2)):
        both = (squares[7 + at] + squares[10 + at] - 2 * here) / (2 * STEP**2)
        form[i, j] = form[j, i] = (both - form[i, i] - form[j, j]) / 2
    values, vectors = np.linalg.eigh(form)
    values = np.maximum(values, max(1e-4, values.max() / 200))
    nearest = -vectors @ ((vectors.T @ rise) / values) / 2
    off = float(here - (rise @ ((vectors / values) @ vectors.T) @ rise) / 4)
    return vectors * np.sqrt(values), nearest, off
