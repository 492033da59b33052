"""What the picture of a piece shows: its size by what lies beside it, and the plan's outline laid over it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from PIL import Image

from wembit.core.work.by_photo import NoScale, measured
from wembit.core.work.laid_over import laid_over
from wembit.web.errors import Refusal

if TYPE_CHECKING:
    from django.core.files.base import ContentFile

    from .piece_chart import PiecePicture

CARD, COIN = "card", "coin"
BESIDE = {CARD: "a bank card", COIN: "a coin"}
LEVELS = 6  # lines across a picture


def seen_in(photo: ContentFile, coin_mm: float | None, plan: PiecePicture | None) -> dict[str, Any]:
    """Size of the picture in px, length and width in mm, the piece's middle and the plan's rings in px, and the share of the
    piece within the plan; as it is kept with the piece. Raises `Refusal` where nothing can be measured.
    """
    with Image.open(photo) as image:
        pixels = np.asarray(image.convert("RGB"))
    photo.seek(0)
    try:
        found = measured(pixels, coin_mm)
    except NoScale as fault:
        raise Refusal(str(fault), "photo") from None
    rings, within = laid_over(found, plan.rings) if plan else ([], 0.0)
    middle = found.in_pixels(np.array([found.centre]))[0]
    return {
        "wide": pixels.shape[1],
        "high": pixels.shape[0],
        "long_mm": round(found.long_mm, 1),
        "thick_mm": round(found.wide_mm, 1),
        "middle": [round(each, 1) for each in middle.tolist()],
        "rings": [[[round(x, 1), round(y, 1)] for x, y in ring.tolist()] for ring in rings],
        "within": round(within, 2),
    }


@dataclass(frozen=True)
class Shown:
    """A picture as it is looked at: turned upside down, mirrored; with a line through the piece's middle and level ones."""

    seen: Mapping[str, Any]
    turned: bool
    mirrored: bool

    @property
    def transform(self) -> str:
        """Of the picture, for SVG."""
        wide, high = self.seen["wide"], self.seen["high"]
        across, down = (-1 if self.turned != self.mirrored else 1), (-1 if self.turned else 1)
        return f"translate({wide if across < 0 else 0} {high if down < 0 else 0}) scale({across} {down})"

    @property
    def path(self) -> str:
        """The plan's outline."""
        return "".join("M" + "L".join(f"{x} {y}" for x, y in ring) + "Z" for ring in self.seen["rings"])

    @property
    def middle_x(self) -> float:
        x = float(self.seen["middle"][0])
        return self.seen["wide"] - x if self.turned != self.mirrored else x

    @property
    def levels(self) -> list[float]:
        """Where the level lines lie."""
        return [round(self.seen["high"] * n / LEVELS, 1) for n in range(1, LEVELS)]
