"""The best blends of a palette for a colour: recipes in whole parts that a person can weigh.

Each lot is a point in a space in which a recipe's difference is the length of the weighted mean of its points (space.py); one
matrix product gives it for many recipes. Pairs, sets of the nearest, and any lot beside the best come first; then, where the
best is near, every recipe that can still be better: for each choice of the others the lots near the place where the last one
must lie. The foremost are worked out exactly. The first space is laid around the target itself, the next ones around the best
mix so far, until nothing gains.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from heapq import nsmallest
from itertools import combinations

import numpy as np

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import xyz_rows_to_lab, xyz_to_lab
from wembit.core.colour.difference import RELATED, delta_e_2000, differences, in_words
from wembit.core.colour.mixing_lots import MixingLots
from wembit.core.colour.mixture import f, reflectance
from wembit.core.colour.recovery import curves
from wembit.core.portions import rounded

from .alike import worth_looking_at
from .everything import everything, how_many, recipes, sets
from .linear_space import Space
from .neighbours import Neighbours
from .shortest import Shortest

ALL = 60_000  # recipes: if there are no more, all of them are worked out
ENOUGH = 0.09  # ΔE00: nothing that matters is better
ROUNDS, LITTLE = 5, 0.01  # spaces laid, and the gain for which another one is not worth while
NEAR = 1.0  # ΔE00: so near, the space around the target itself is true
WORK = 800_000  # recipes of one kind that are looked at in one step
CHUNK = 600_000  # and of them at once: so many stay in the processor's cache
EXACTLY = 300  # recipes of one step that are worked out exactly; where the best is far off, more of a small palette:
FAR_EXACTLY, FAR_MOST = 120_000, 12_000  # so many by the number of lots, but at most those
KEPT = 80  # and kept, or as many as are asked for
ROOM = 4  # times as many as are asked for are worked out exactly
MOST_FIBRES = 4
PAIRED, ROWS = 600, 100  # lots of which all pairs are looked at, and of them at once
SLACK, WIDER, FAR_WIDER = 0.3, 1.3, 2.0  # how much longer than the best a length may be and still be looked at
SMALL = 100  # lots that are looked at in all sets again in every space
SCATTERED = 5_000  # recipes of one kind from all over the shelf
EASE = 1e-9
ALIKE = 1e-6  # ΔE00: recipes as good as each other

# The search for every recipe of so many fibres that can be better
LEEWAY = 0.09  # ΔE00 by which it must be
BENT, MOST_BENT = 0.6, 3.0  # ΔE00 by which the space may be wrong: at least and at most
BENT_OF = {2: 6_000, 3: 300, 4: 120}  # and, between, by the number of lots
LEAST_BENT, SURE = 0.1, 0.5  # where very much would be found; wrong by more is too rare to look again in another space
SUMS = {
    2: 300_000,
    3: 300_000,
    4: 3_000_000,
}  # choices of the others looked at, of the nearest lots where there are more
HITS = 80_000  # last lots that are looked at; the space may be wrong by as much as gives about so many
MOST_HITS = 2_000_000  # and never more: where very many lots are nearly alike
CLOSER, CLOSER_OF = 2_000, 1_000_000  # recipes that are worked out exactly: at least, and by the number of lots


@dataclass(frozen=True)
class Blend:
    """A recipe: places in the palette with whole parts in lowest terms, most parts first, and the grams that those lots hold;
    what it looks like (CIELAB, and X/Xn, Y/Yn, Z/Zn), how far it is off, and the largest difference between two of its fibres.
    """

    indices: tuple[int, ...]
    parts: tuple[int, ...]
    held: tuple[float, ...]
    lab: tuple[float, float, float]
    ratios: tuple[float, float, float]
    de00: float
    mottle: float

    @property
    def words(self) -> str:
        return in_words(self.de00)

    def weighed(self, grams: float) -> list[float]:
        """What each lot gives to so many grams, to 0.01 g and no more than it holds, in the order of `indices`."""
        return rounded(grams, [Fraction(part, sum(self.parts)) for part in self.parts], self.held)


@lru_cache(maxsize=256)
def _mixing_of(ratios: tuple[float, float, float], m: float) -> np.ndarray | None:
    """The additive function of a colour's own curve; None where no curve reaches it."""
    curve, came = curves(np.array([ratios]))
    return f(curve[0], m) if came[0] else None


def blends(
    target: Sequence[float],
    palette: MixingLots,
    grams: float,
    *,
    least_fibres: int = 1,
    max_fibres: int = 3,
    parts: int = 8,
    limit: int = 5,
) -> list[Blend]:
    """The `limit` best blends for a colour given as X/Xn, Y/Yn, Z/Zn, `grams` of it wanted, best first. Each is the best for
    its rank, to 0.1 CIEDE2000; the list is empty where no lot can give its share.
    """
    search = _Search(np.asarray(target, dtype=float), palette, grams, parts, limit)
    search.fewest = least_fibres
    if len(search.usable):
        search.run(min(max_fibres, parts, len(search.usable)))
    return search.best()


class _Search:
    def __init__(self, target: np.ndarray, palette: MixingLots, grams: float, parts: int, limit: int) -> None:
        self.target, self.lab, self.palette, self.parts = target, xyz_rows_to_lab(target), palette, parts
        share = (palette.grams + EASE) / grams  # the largest share that a lot can give
        enough = np.flatnonzero(share >= 1 / parts)
        ids = [palette.ids[place] for place in enough]
        first = worth_looking_at(palette.mixing[enough], share[enough], ids, parts, limit + MOST_FIBRES)
        self.usable = enough[first]
        self.share, self.mixing = share[self.usable], palette.mixing[self.usable]
        self.scarce = bool((self.share < 1).any())
        # What is known of recipes, by their places among the usable and their parts: ΔE00, and X/Xn, Y/Yn, Z/Zn.
        self.known: dict[tuple, tuple[float, np.ndarray]] = {}
        self.limit, self.kept = limit, max(KEPT, limit)
        self.fewest = 1  # fibres of a recipe that is asked for
        self.nearest = self.last = math.inf  # ΔE00 of the best recipe so far, and of the last one that is asked for
        self.sure: set[int] = set()  # of how many fibres no better one can have been overlooked

    def run(self, fibres: int) -> None:
        """All recipes there are, where those are few; else rounds of looking."""
        count = len(self.usable)
        if fibres == 1 or how_many(count, fibres, self.parts) <= max(ALL, ROOM * self.limit):
            for piece in everything(count, fibres, self.parts):
                self.work_out(*piece)
            return
        self.work_out(np.arange(count)[:, None], np.ones((count, 1), dtype=int))
        own = _mixing_of(tuple(self.target.tolist()), self.palette.m)
        middle = self.mix_of_best() if own is None else own
        for round_ in range(ROUNDS):
            before = self.last
            self.look_around(middle, fibres, again=round_ > 0)
            settled = not self.last < before - LITTLE and (round_ > 0 or self.nearest < NEAR)
            if self.last <= ENOUGH or settled or not self.known:
                break
            middle = self.mix_of_best()

    def look_around(self, middle: np.ndarray, fibres: int, *, again: bool) -> None:
        """Look in a space laid around a mix near to the best."""
        self.space = Space(self.mixing, middle, self.lab, self.palette.m)
        self.tried: set[tuple] = set()  # what `exchange` has kept in this space
        if not again or (self.nearest > NEAR and len(self.usable) <= SMALL):
            self.pairs()
            for count in range(3, fibres + 1):
                if self.last > ENOUGH:
                    self.among(count)
            if self.nearest > RELATED:
                self.scattered(fibres)
        self.exchange(fibres)
        for count in range(min(3, fibres), fibres + 1):
            if self.last > ENOUGH and self.nearest < NEAR and count not in self.sure:
                self.to_the_last(count)

    def mix_of_best(self) -> np.ndarray:
        """The additive function of the best recipe; of all lots alike where there is none yet."""
        if not self.known:
            return self.mixing.mean(axis=0)
        indices, parts = self.foremost(1)[0]
        return np.array(parts) / sum(parts) @ self.mixing[list(indices)]

    def foremost(self, count: int) -> list[tuple]:
        return nsmallest(count, self.known, key=lambda recipe: self.known[recipe][0])

    def chosen(self, fibres: int) -> np.ndarray:
        """The lots of which all sets of so many are looked at: those of the best recipes, the corners, and the nearest."""
        count, most = len(recipes(fibres, self.parts)), fibres
        while most < len(self.space.points) and math.comb(most + 1, fibres) * count <= WORK:
            most += 1
        if most >= len(self.space.points):
            return np.arange(len(self.space.points))
        best = [index for indices, _ in self.foremost(most // 3) for index in indices][: most // 3]
        near = self.space.order[:most].tolist()
        return np.array(list(dict.fromkeys([*self.space.corners(), *best, *near]))[:most])

    def pairs(self) -> None:
        """All pairs, of the nearest lots where there are very many, by the nearest point of the line between them."""
        parts = recipes(2, self.parts)
        if not len(parts):
            return
        lots = self.space.order[:PAIRED]
        own, inner = self.space.own[lots], self.space.points[lots] @ self.space.points[lots].T
        bound, found = self.shortest().bound, []
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
        inner = self.space.points[chosen] @ self.space.points[chosen].T
        self.look(chosen, inner, sets(len(chosen), fibres), recipes(fibres, self.parts))

    def look(self, lots: np.ndarray, inner: np.ndarray, sets: np.ndarray, parts: np.ndarray) -> None:
        """All recipes in those parts (m, k) of sets (n, k) of lots with these inner products."""
        if not len(sets) or not len(parts):
            return
        shares = (parts / parts.sum(axis=1, keepdims=True)).astype(np.float32)
        pairs = list(combinations(range(parts.shape[1]), 2))
        weights = np.stack([*(shares.T**2), *(2 * shares[:, i] * shares[:, j] for i, j in pairs)])
        own, flat = self.space.own[lots], inner.ravel()
        shortest = self.shortest()
        step = max(1, CHUNK // len(parts))
        for start in range(0, len(sets), step):
            some = sets[start : start + step]
            features = [own[each] for each in some.T] + [flat[some[:, i] * len(lots) + some[:, j]] for i, j in pairs]

            def recipe(rows: np.ndarray, columns: np.ndarray, some: np.ndarray = some) -> tuple[np.ndarray, np.ndarray]:
                return lots[some[rows]], parts[columns]

            shortest.add(np.stack(features, axis=1) @ weights, recipe)
        self.exactly(shortest)

    def scattered(self, fibres: int) -> None:
        """Recipes from all over the shelf: for a colour far from all of it CIEDE2000 has valleys of its own, in other hues."""
        chance = np.random.default_rng(0)
        for count in range(2, fibres + 1):
            parts = recipes(count, self.parts)
            indices = chance.integers(0, len(self.usable), (SCATTERED, count))
            some = parts[chance.integers(0, len(parts), SCATTERED)]
            self.work_out(*(each[self.can_be(indices, some)] for each in (indices, some)))

    def to_the_last(self, fibres: int) -> None:
        """Every recipe of so many that may be better by more than LEEWAY: for each choice of the others, the lots near
        the place where the last one, that with the fewest parts, would have to lie are looked up.
        """
        parts = recipes(fibres, self.parts)
        parts = parts[(parts[:, 1:] <= parts[:, :-1]).all(axis=1)]
        wanted = self.last - LEEWAY
        reach = self.space.length(wanted + min(MOST_BENT, max(BENT, BENT_OF[fibres] / len(self.usable))))
        looked, hits = self.looked_up(parts, reach)
        if hits > HITS:
            reach = max(self.space.length(wanted + LEAST_BENT), reach * (HITS / hits) ** (1 / 5))
            looked, hits = self.looked_up(parts, reach)
        if reach >= self.space.length(wanted + SURE):
            self.sure.add(fibres)
        shortest = Shortest(reach**2, max(CLOSER, CLOSER_OF // len(self.usable)), self.can_be)
        share = min(1.0, MOST_HITS / max(1, hits))
        for hit in looked:
            hit.add_to(shortest, self.space, share)
        self.exactly(shortest)

    def who_can(self, parts: np.ndarray, reach: float) -> list[list[np.ndarray]]:
        """For each recipe the lots, nearest first, that can have each of its parts in a mix that comes so near."""
        order = self.space.order
        most = np.minimum(self.space.largest_shares(reach), self.share)[order] + EASE
        shares = (parts / parts.sum(axis=1, keepdims=True)).tolist()
        able = {share: order[most >= share] for share in {share for recipe in shares for share in recipe}}
        return [[able[share] for share in recipe] for recipe in shares]

    def looked_up(self, parts: np.ndarray, reach: float) -> tuple[list[_Lookup], int]:
        """A lookup for each recipe, and how many last lots they find in all."""
        lists, columns = self.who_can(parts, reach), self.space.columns
        sums, most = sum(math.prod(len(lots) for lots in other[:-1]) for other in lists), SUMS[parts.shape[1]]
        if sums > most:
            kept = (most / sums) ** (1 / (parts.shape[1] - 1))
            lists = [[*(lots[: math.ceil(len(lots) * kept)] for lots in other[:-1]), other[-1]] for other in lists]
        wide = [2 * math.ceil(sum(recipe) / recipe[-1] / 2) for recipe in parts.tolist()]
        last: dict[int, np.ndarray] = {}
        for each, (*_, lots) in zip(wide, lists, strict=True):
            last[each] = max(last.get(each, lots), lots, key=len)
        near = {each: Neighbours(columns, lots, reach * each) for each, lots in last.items()}
        looked = [_Lookup(*each, columns) for each in zip(parts, lists, (near[each] for each in wide), strict=True)]
        return looked, sum(int(hit.counts.sum()) for hit in looked)

    def exchange(self, fibres: int) -> None:
        """Put any lot of the shelf in the place of one, or beside those, of the best recipes, as long as that leads nearer."""
        while self.last > ENOUGH:
            before = self.last
            for count in range(min(3, fibres), fibres + 1):
                parts = recipes(count, self.parts)
                if len(parts):
                    self.beside(self.to_keep(count - 1, len(parts)), parts)
            if not self.last < before - LITTLE:
                break

    def to_keep(self, fibres: int, recipes_: int) -> np.ndarray:
        """Sets of so many lots of the best recipes that have not been kept before."""
        most = max(6, WORK // 3 // (recipes_ * len(self.space.points)))
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
        ones = np.ones(len(self.space.points), dtype=np.float32)
        right = np.stack([ones, *self.space.points.T, self.space.own])
        shortest = self.shortest()
        step = max(1, CHUNK // (len(parts) * len(self.space.points)))
        for start in range(0, len(kept), step):
            some = kept[start : start + step]
            mixed = np.einsum("mk,qkc->qmc", shares[:, :-1], self.space.points[some].astype(float))
            last = np.broadcast_to(shares[:, -1:], (len(some), len(parts), 1))
            left = np.concatenate([(mixed**2).sum(axis=2, keepdims=True), 2 * last * mixed, last**2], axis=2)
            lengths = left.reshape(-1, 5).astype(np.float32) @ right

            def recipe(rows: np.ndarray, lots: np.ndarray, some: np.ndarray = some) -> tuple[np.ndarray, np.ndarray]:
                which, columns = np.divmod(rows, len(parts))
                return np.column_stack([some[which], lots]), parts[columns]

            shortest.add(lengths, recipe)
        self.exactly(shortest)

    def shortest(self) -> Shortest:
        far = self.nearest >= NEAR
        bound = (self.last * (FAR_WIDER if far else WIDER) + SLACK) ** 2 - self.space.off
        many = max(EXACTLY, min(FAR_MOST, FAR_EXACTLY // len(self.usable)))
        return Shortest(bound, max(many if far else EXACTLY, ROOM * self.limit), self.can_be)

    def can_be(self, indices: np.ndarray, parts: np.ndarray) -> np.ndarray:
        """Which recipes name no lot twice and can be given."""
        order = np.sort(indices, axis=1)
        good = (order[:, 1:] != order[:, :-1]).all(axis=1)
        if self.scarce:
            good &= (parts <= self.share[indices] * parts.sum(axis=1, keepdims=True)).all(axis=1)
        return good

    def exactly(self, shortest: Shortest) -> None:
        """Work out what those recipes really look like, and keep the best."""
        if recipes_ := shortest.all():
            self.work_out(*recipes_)

    def work_out(self, indices: np.ndarray, parts: np.ndarray) -> None:
        """The same of recipes (n, k); those that the lots cannot give are left out."""
        shares = parts / parts.sum(axis=1, keepdims=True)
        given = (shares <= self.share[indices]).all(axis=1) & (parts.shape[1] >= self.fewest)
        indices, parts, shares = indices[given], parts[given], shares[given]
        if not len(parts):
            return
        mixed = np.einsum("nk,nkc->nc", shares, self.mixing[indices])
        ratios = reflectance(mixed, self.palette.m) @ WEIGHTS.T
        de00 = differences(xyz_rows_to_lab(ratios), self.lab)
        best = np.flatnonzero(de00 <= self.last + ALIKE)
        best = best[np.argsort(de00[best], kind="stable")[: self.kept]]
        order = np.argsort(indices[best], axis=1)
        lots, counts = (np.take_along_axis(each[best], order, axis=1).tolist() for each in (indices, parts))
        for recipe in zip(map(tuple, lots), map(tuple, counts), de00[best].tolist(), ratios[best], strict=True):
            self.known[recipe[:2]] = recipe[2:]
        differences_ = nsmallest(self.limit, (de for de, _ in self.known.values()))
        self.nearest = differences_[0]
        if len(differences_) == self.limit:
            self.last = differences_[-1]

    def best(self) -> list[Blend]:
        """The best of what is known."""

        def rank(recipe: tuple) -> tuple:
            indices, parts = recipe  # the places stand in the order of the ids
            return round(self.known[recipe][0] / ALIKE), len(parts), sum(parts), indices

        return [self.blend_of(*recipe) for recipe in sorted(self.known, key=rank)[: self.limit]]

    def blend_of(self, indices: tuple[int, ...], parts: tuple[int, ...]) -> Blend:
        """A known recipe, most parts first, then by the ids."""
        de, ratios = self.known[indices, parts]
        order = sorted(range(len(parts)), key=lambda place: (-parts[place], indices[place]))
        places = [int(self.usable[indices[place]]) for place in order]
        labs = self.palette.labs[places].tolist()
        mottle = max((delta_e_2000(*pair) for pair in combinations(labs, 2)), default=0.0)
        seen = tuple(ratios.tolist())
        held = tuple(self.palette.grams[places].tolist())
        return Blend(tuple(places), tuple(parts[place] for place in order), held, xyz_to_lab(seen), seen, de, mottle)


class _Lookup:
    """A recipe, the lists of its lots, and for each choice of all but the last the lots near the place of that one."""

    def __init__(self, recipe: np.ndarray, lists: list[np.ndarray], near: Neighbours, columns: np.ndarray) -> None:
        *self.others, _ = lists
        self.recipe, self.near = recipe, near
        places = np.zeros((3, 1), dtype=np.float32)
        for part, lots in zip(recipe, self.others, strict=False):
            ways = np.float32(part / recipe[-1]) * columns[:, lots]
            places = (places[:, :, None] - ways[:, None]).reshape(3, -1)
        self.places = places
        self.choices, self.starts, self.counts = near.beside(places)

    def add_to(self, shortest: Shortest, space: Space, share: float) -> None:
        """The recipes, of that share of the choices whose lots are nearest, a bounded number at once."""
        until = np.searchsorted(np.cumsum(self.counts), share * self.counts.sum(), side="right")
        pieces = 1 + int(self.counts[:until].sum()) // CHUNK
        for some in np.array_split(np.arange(until), pieces):
            self._add(shortest, space, self.choices[some], self.starts[some], self.counts[some])

    def _add(
        self, shortest: Shortest, space: Space, choices: np.ndarray, starts: np.ndarray, counts: np.ndarray
    ) -> None:
        choices, last = np.repeat(choices, counts), self.near.listed(starts, counts)
        away = (place.take(choices) - along.take(last) for place, along in zip(self.places, space.columns, strict=True))
        lengths = sum(each * each for each in away) * np.float32((self.recipe[-1] / self.recipe.sum()) ** 2)
        short = np.flatnonzero(lengths < shortest.bound)
        at = np.unravel_index(choices[short], [len(lots) for lots in self.others])
        indices = np.column_stack([*(lots[each] for lots, each in zip(self.others, at, strict=True)), last[short]])
        shortest.add(lengths[short, None], lambda rows, _: (indices[rows], np.tile(self.recipe, (len(rows), 1))))
