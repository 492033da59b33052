"""Constants of the craft, one table each: breeds, forms, firmness, loose density, losses."""

from __future__ import annotations

from dataclasses import dataclass

WOOL_DENSITY = 1.31  # g/cm³ of the fibre itself; Morton & Hearle, Physical Properties of Textile Fibres

# g/cm³ of dry-felted wool by hand; common practice
FIRMNESS = {"airy": 0.06, "soft": 0.09, "medium": 0.13, "firm": 0.17, "very_firm": 0.22}
FILLING_DENSITY = 0.04  # g/cm³ of packed polyester filling, from memory
FIRMNESS_WORDS = {"airy": "airy", "soft": "soft", "medium": "medium", "firm": "firm", "very_firm": "very firm"}

# fibre lost on the pad and in tidying, where loose ends are not worked out and where they are; common practice
LOSS_LOOSE_ENDS = 0.08
LOSS_WORKED_OUT = 0.03
LOSS_CARDING = 0.03  # what stays in the carders and falls out; common practice

SMALLEST_PIECE_G = 0.02  # common practice
A_PINCH_BELOW_G = 0.05


@dataclass(frozen=True)
class Breed:
    """Where a fibre comes from. Diameter in µm, staple in mm: middle values of the breed."""

    name: str
    micron_um: float
    staple_mm: float | None


# Middle fibre diameter and staple length; common practice of the trade
BREEDS = {
    "merino": Breed("Merino", 21, 75),
    "corriedale": Breed("Corriedale", 27, 110),
    "bluefaced": Breed("Bluefaced Leicester", 26, 110),
    "shetland": Breed("Shetland", 25, 90),
    "jacob": Breed("Jacob", 30, 110),
    "romney": Breed("Romney", 33, 140),
    "gotland": Breed("Gotland", 33, 120),
    "wensleydale": Breed("Wensleydale", 34, 230),
    "mountain": Breed("Mountain mix", 30, 70),
    "alpaca": Breed("Alpaca", 24, 100),
    "mohair": Breed("Mohair", 30, 130),
    "silk": Breed("Silk", 13, 90),
    "polyester": Breed("Polyester", 25, None),
    "mixed": Breed("Mixed", 25, None),
    "unknown": Breed("Wool", 25, 90),  # a bag whose label is lost
}


@dataclass(frozen=True)
class Form:
    """How a fibre comes. Loose density in g/cm³; a strand is also sold and used by its length; some blend by hand."""

    name: str
    loose_g_cm3: float
    strand: bool = False
    linear_g_m: float | None = None
    blends: bool = False


# Loose densities 0.02–0.06 g/cm³ and strands of 20–25 g/m: from memory, replaced by what the scale learns. Which forms blend
# with each other by hand: common practice.
FORMS = {
    "tops": Form("tops", 0.05, True, 22, blends=True),
    "sliver": Form("sliver", 0.04, True, 15, blends=True),
    "batt": Form("batt", 0.03, blends=True),
    "core": Form("core wool", 0.03, blends=True),
    "locks": Form("locks", 0.03),
    "neps": Form("neps", 0.06),
    "fleece": Form("fleece", 0.02, blends=True),
    "scrap": Form("scrap", 0.04),
    "filling": Form("filling", 0.015),
}

NOTIONS = {
    "eyes": "eyes",
    "wire": "wire",
    "pipe_cleaner": "pipe cleaner",
    "brooch_back": "brooch back",
    "needle": "needle",
    "thread": "thread",
    "clay": "polymer clay",
    "glue": "glue",
    "pad": "pad",
}
