"""The scale that a maker asks for: so many times, a finished size, all of a wool or of the shelf."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from django import forms
from scipy.optimize import brentq

from wembit.core.errors import BadInput
from wembit.core.grams.largest_scale import LARGEST, SMALLEST, Largest, TooLittle, largest, scale_for
from wembit.web import numbers
from wembit.web.fields import length_field, number, weight_field
from wembit.web.figures.drawing.layout import Picture, pictures
from wembit.web.figures.models import Part, Version
from wembit.web.figures.size_words import sizes
from wembit.web.figures.to_core.estimating import Palette, plan_figure, request_of
from wembit.web.figures.to_core.scaling import at_scale

if TYPE_CHECKING:
    from wembit.web.request import Request

TRIES, NEAR_MM, NEAR_LOG = 6, 0.02, 1e-4
HIGH, LONG, ALL = "", "whole long", "all"  # what a finished size is of; all wools of a figure


@dataclass(frozen=True)
class Asked:
    """What the form asks of a figure, as it is drawn now; `free`: what of each item of its wools may be used."""

    request: Request
    version: Version
    parts: Sequence[Part]
    palette: Palette
    now: Picture
    free: Mapping[UUID, Decimal]

    def largest(self) -> Largest:
        """The scale, and the wool that limits it. Raises `ValidationError` with what to change."""
        given = self.request.GET
        match given.get("way"):
            case "times":
                return Largest(self._by_times(), None)
            case "height":
                return Largest(self._by_size(given.get("of", HIGH)), None)
            case "wool" if given.get("item") == ALL:
                return Largest(self._by_all_wool(self._grams()), None)
            case "wool":
                return self._by_wool(self._of_one_wool())
            case "shelf":
                return self._by_wool(self._on_the_shelf())
        return Largest(1.0, None)

    def _by_times(self) -> float:
        try:
            return _within(number(self.request.GET.get("times", ""), "how many times, like 1.5,"))
        except ValueError as fault:
            raise forms.ValidationError(str(fault)) from None

    def _by_size(self, of: str) -> float:
        """The scale at which the figure is drawn that high or long (asked again where locks do not grow with it), or a part
        is so long.
        """
        wanted = float(length_field(self.request.studio, least=1).clean(self.request.GET.get("height", "")))
        if not self.now.tall:
            raise forms.ValidationError("Begin with a part: there is no height yet.")
        if of not in (HIGH, LONG):
            return _within(wanted / self._long(of))
        scale = 1.0
        for _ in range(TRIES):
            side = pictures(self.version, at_scale(self.version, self.parts, scale), self.palette)["side"]
            now = side.tall if of == HIGH else side.long
            if abs(now - wanted) < NEAR_MM:
                break
            scale = _within(scale_for(now, scale, wanted))
        return scale

    def _long(self, key: str) -> float:
        part = next((each for each in self.parts if each.key == key and each.shape["kind"] != "none"), None)
        if part is None:
            raise forms.ValidationError("Choose the whole or a part of the figure.")
        return max(size.mm for size in sizes(part.shape) if size.name != "wire_mm")

    def _grams(self) -> float:
        return float(weight_field(self.request.member, least=0.01).clean(self.request.GET.get("grams", "")))

    @property
    def _odds(self) -> str:
        return "p90" if "sure" in self.request.GET else "p50"

    def _by_all_wool(self, grams: float) -> float:
        """The scale at which all its wools together come to so many grams."""

        def over(log: float) -> float:
            plan = plan_figure(self.version, at_scale(self.version, self.parts, math.exp(log)), self.palette)
            return math.log(max(getattr(plan.all, self._odds), 1e-9) / grams)

        low, high = math.log(SMALLEST), math.log(LARGEST)
        if over(low) > 0:
            raise forms.ValidationError(f"That is too little for even {SMALLEST:g} times its size.")
        return LARGEST if over(high) < 0 else math.exp(brentq(over, low, high, xtol=NEAR_LOG))

    def _of_one_wool(self) -> dict[str, float]:
        chosen = self.request.GET.get("item")
        item = next((other for other in self.palette.items.values() if str(other.pk) == chosen), None)
        if item is None:
            raise forms.ValidationError("Choose a wool of the figure.")
        return {str(item.pk): self._grams()}

    def _on_the_shelf(self) -> dict[str, float]:
        """What there is of each wool of which all bags are weighed. Raises `ValidationError` where that is none."""
        there = {
            str(item.pk): float(self.free[item.pk]) for item in self.palette.items.values() if item.pk in self.free
        }
        if not there and self.palette.items:
            raise forms.ValidationError("No bag of its wools is weighed. Weigh one first.")
        return there

    def _by_wool(self, there: Mapping[str, float]) -> Largest:
        try:
            return largest(request_of(self.version, self.parts, self.palette), there, odds=self._odds)
        except TooLittle as fault:
            names = {str(item.pk): item.name for item in self.palette.items.values()}
            raise forms.ValidationError(self._too_little(names[fault.fibre], fault.there_g)) from None
        except BadInput as fault:
            raise forms.ValidationError(f"The figure cannot be computed: {fault.what}.") from None

    def _too_little(self, name: str, there_g: float) -> str:
        if there_g:
            there = " ".join(numbers.grams(there_g, self.request.studio))
            return f"There are {there} of {name}, too little for even the smallest. Give its place another wool."
        return f"No {name} is free. Count what is promised to others too, or give its place another wool."


def _within(scale: float) -> float:
    if not SMALLEST <= scale <= LARGEST:
        raise forms.ValidationError(f"That is {scale:.3g} times. Choose between {SMALLEST:g} and {LARGEST:g} times.")
    return scale
