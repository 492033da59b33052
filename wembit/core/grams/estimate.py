"""Grams of a figure, part by part and layer by layer, with an honest range.

Rules: solids × density, skins × the weight per area that hides what is under them, coats in rows. Sums: log errors of
any two layers correlate 0.5; a lognormal matched to mean and variance of the sum (L. F. Fenton, "The sum of log-normal
probability distributions in scatter transmission systems", IRE Transactions on Communications Systems 8 (1960) 57–67).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from wembit.core.colour.show_through import cover
from wembit.core.contract.requests import ESTIMATE, standing
from wembit.core.craft.materials import FIRMNESS
from wembit.core.errors import BadInput
from wembit.core.shape.solids import Solid, solid

Z90 = 1.2816  # the 90 % point of the normal distribution, to the four places that the contract fixes
CORRELATION = 0.5


@dataclass(frozen=True)
class Range:
    """Grams: one in ten below p10, half below p50, nine in ten below p90."""

    p10: float
    p50: float
    p90: float

    @classmethod
    def of(cls, middle: float, sigma: float) -> Range:
        spread = math.exp(Z90 * sigma)
        return cls(middle / spread, middle, middle * spread)

    def plus(self, other: Range) -> Range:
        """Both of them, where they err alike."""
        return Range(self.p10 + other.p10, self.p50 + other.p50, self.p90 + other.p90)

    def at_least(self, grams: float) -> Range:
        """The range with nothing below so many grams."""
        return Range(max(self.p10, grams), max(self.p50, grams), max(self.p90, grams))

    def less(self, taken: float) -> Range:
        """What is left of it when so much was taken: the range keeps its shape, and nothing is left below nothing."""
        share = max(0.0, 1 - taken / self.p50) if self.p50 else 0.0
        return Range(self.p10 * share, self.p50 * share, self.p90 * share)


@dataclass(frozen=True)
class LayerGrams:
    """`rule_g`: the rule's grams for all pieces with the allowance, at bias 1; `capped`: what is under it shows."""

    role: str
    fibre: str
    rule_g: float
    bias: float
    sigma: float
    trimmed_g: float | None = None
    cover_g_m2: float | None = None
    capped: bool = False

    @property
    def middle(self) -> float:
        return self.rule_g * self.bias

    @property
    def grams(self) -> Range:
        return Range.of(self.middle, self.sigma)


@dataclass(frozen=True)
class PartGrams:
    """Volume (before the armature) and area (before `visible`) of one piece; layers for `count` pieces."""

    name: str
    count: int
    volume_mm3: float
    area_mm2: float
    layers: tuple[LayerGrams, ...]


@dataclass(frozen=True)
class Estimate:
    """What a figure takes: by part, by fibre, and in all."""

    parts: tuple[PartGrams, ...]
    totals: dict[str, Range]
    all: Range


def estimate(request: dict) -> Estimate:
    """The estimate of a request as the contract gives it; raises `BadInput` naming the place of a fault."""
    clean = ESTIMATE(request, "")
    parts = tuple(
        _part(part, clean["scale"], clean["sigma"], clean["bias"], f"parts[{i}]")
        for i, part in enumerate(clean["parts"])
    )
    layers = [layer for part in parts for layer in part.layers]
    fibres = dict.fromkeys(layer.fibre for layer in layers)
    totals = {fibre: total([layer for layer in layers if layer.fibre == fibre]) for fibre in fibres}
    return Estimate(parts, totals, total(layers))


def total(layers: Sequence[LayerGrams]) -> Range:
    """The range of a sum of layers whose log errors correlate 0.5.

    Layers of one sigma are summed first: the pairs are then those of the few sigmas there are.
    """
    sums: dict[float, float] = {}
    alone = 0.0
    for layer in layers:
        middle, sigma = layer.middle, layer.sigma
        if middle > 0:
            mean = middle * math.exp(sigma**2 / 2)
            sums[sigma] = sums.get(sigma, 0.0) + mean
            alone += mean**2 * (math.expm1(sigma**2) - math.expm1(CORRELATION * sigma**2))
    if not sums:
        return Range(0.0, 0.0, 0.0)
    import numpy as np

    sigmas, means = np.array(list(sums)), np.array(list(sums.values()))
    mean = float(means.sum())
    variance = float(means @ np.expm1(CORRELATION * np.outer(sigmas, sigmas)) @ means) + alone
    sigma2 = math.log1p(variance / mean**2)
    return Range.of(mean * math.exp(-sigma2 / 2), math.sqrt(sigma2))


def _part(part: dict, s: float, sigma: float, bias: float, where: str) -> PartGrams:
    shape = solid(part["shape"]).scaled(s)
    volume, area = shape.volume, shape.area
    skin = area * part["visible"]
    paddings = [
        skin * layer["share"] * layer["thickness_mm"] * s if layer["role"] == "padding" else 0.0
        for layer in part["layers"]
    ]
    inside = volume - part["armature_mm3"] * s - sum(paddings)
    if sum(paddings) > 0 and inside <= 0:
        index = next(i for i, volume in enumerate(paddings) if volume)
        raise BadInput(
            f"{where}.layers[{index}].thickness_mm",
            "leaves nothing of the core under it",
            part["layers"][index]["thickness_mm"],
        )
    inside += part["loose_end_mm3"] * s**3
    density = part["density_g_cm3"] or FIRMNESS.get(part["firmness"], 0.0)
    layers = []
    for index, layer in enumerate(part["layers"]):
        trimmed_share = per_area = None
        capped = False
        match layer["role"]:
            case "core":
                rule = layer["share"] * inside * _density(layer, density) / 1000
            case "padding":
                rule = paddings[index] * _density(layer, density) / 1000
            case "cover":
                per_area, capped = _per_area(layer)
                rule = skin * layer["share"] * layer["coats"] * per_area / 1e6
            case "detail":
                per_area, capped = _per_area(layer)
                rule = layer["area_mm2"] * s**2 * per_area / 1e6
            case "coat":
                pile = s if layer["scale_pile"] else 1.0
                row_cm = skin * layer["share"] / layer["row_spacing_mm"] / 10
                rule = row_cm * layer["grams_per_cm"] * pile
                trimmed_share = 1 - layer["finished_mm"] / standing(layer)
            case "weighed":
                rule = layer["grams"] * s**3
        rule *= part["count"] * (1 + part["allowance"])
        layer_grams = LayerGrams(
            role=layer["role"],
            fibre=layer["fibre"],
            rule_g=rule,
            bias=_innermost(layer["bias"], part["bias"], bias),
            sigma=_innermost(layer["sigma"], part["sigma"], sigma),
            trimmed_g=None,
            cover_g_m2=per_area,
            capped=capped,
        )
        if trimmed_share is not None:
            layer_grams = LayerGrams(**{**layer_grams.__dict__, "trimmed_g": layer_grams.middle * trimmed_share})
        layers.append(layer_grams)
    return PartGrams(part["name"], part["count"], volume, area, tuple(layers))


def _density(layer: dict, otherwise: float) -> float:
    if layer.get("density_g_cm3"):
        return layer["density_g_cm3"]
    return FIRMNESS[layer["firmness"]] if layer.get("firmness") else otherwise


def _per_area(layer: dict) -> tuple[float, bool]:
    """Grams a m² of a cover, and whether what is under it shows all the same."""
    covered = cover(layer["srgb"], layer["over"], layer["micron_um"], layer["tau"])
    return covered.g_m2, covered.capped


def _innermost(*values: float | None) -> float:
    return next(value for value in values if value is not None)


def as_json(found: Estimate) -> dict:
    """The estimate as the contract answers it."""
    return {
        "parts": [
            {
                "name": part.name,
                "count": part.count,
                "volume_mm3": part.volume_mm3,
                "area_mm2": part.area_mm2,
                "layers": [_layer_json(layer) for layer in part.layers],
            }
            for part in found.parts
        ],
        "totals": [{"fibre": fibre, "grams": grams.__dict__} for fibre, grams in found.totals.items()],
        "all": found.all.__dict__,
    }


def _layer_json(layer: LayerGrams) -> dict:
    row: dict[str, object] = {"role": layer.role, "fibre": layer.fibre, "grams": layer.grams.__dict__}
    if layer.trimmed_g is not None:
        row["trimmed_g"] = layer.trimmed_g
    if layer.cover_g_m2 is not None:
        row["cover_g_m2"] = layer.cover_g_m2
    if layer.capped:
        row["capped"] = True
    return row


def measure(shape: dict) -> Solid:
    """The solid of one unchecked shape object; raises `BadInput`."""
    from wembit.core.contract.requests import SHAPE

    return solid(SHAPE(shape, "shape"))
