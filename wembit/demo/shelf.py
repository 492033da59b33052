"""The shelf of Saltgrass: invented wools, notions, suppliers and what they offer."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Bag:
    """A fibre's bag: grams as first weighed (None: not weighed yet), days ago it was laid in, minimum of the item."""

    name: str
    breed: str
    form: str
    srgb: str
    grams: float | None
    drawer: str
    dye_lot: str = ""
    days_ago: int = 130
    minimum: float = 0


BAGS = [
    # the wools of the eight figures
    Bag("core", "mountain", "core", "#e9e2d2", 640, "A1", minimum=150),
    Bag("fawn", "corriedale", "batt", "#b08a5e", 118, "B1", "F-21"),
    Bag("chalk", "merino", "tops", "#f1ede3", 92, "C1", "C-07", minimum=20),
    Bag("peat", "bluefaced", "tops", "#4a382b", 29, "C2", "P-13"),
    Bag("soot", "merino", "tops", "#24211f", 46, "C2", "S-02"),
    Bag("moss", "merino", "sliver", "#6f7d43", 4.5, "D1", "M-30", minimum=10),
    Bag("oat", "corriedale", "batt", "#d9c7a0", 96, "B1", "O-11"),
    Bag("rust", "corriedale", "sliver", "#a8502c", 42, "D1", "R-08"),
    Bag("rose", "merino", "tops", "#d79a93", 24, "C3", "RS-4"),
    Bag("slate", "merino", "tops", "#7d8790", 66, "C3", "SL-9"),
    Bag("fog", "merino", "tops", "#b9bfc2", 38, "C3", "FG-1"),
    Bag("plum", "merino", "tops", "#7a4860", 54, "C4", "PL-6"),
    Bag("sea", "merino", "tops", "#3f6f78", 31, "C4", "SE-5"),
    Bag("brick", "corriedale", "sliver", "#a33a2a", 36, "D2", "BR-3"),
    Bag("straw", "corriedale", "sliver", "#c9a253", 40, "D2", "ST-2"),
    Bag("umber", "corriedale", "batt", "#6b4a32", 58, "B2", "U-14"),
    Bag("filling", "polyester", "filling", "#f4f4f2", 210, "A2", minimum=40),
    # second bags and other dye lots
    Bag("core", "mountain", "core", "#e4dcc9", 180, "A1", days_ago=40),
    Bag("chalk", "merino", "tops", "#efe9dc", 18, "C1", "C-05"),
    Bag("peat", "bluefaced", "tops", "#503d2f", 3, "C2", "P-11"),
    Bag("oat", "corriedale", "batt", "#d6c297", 22, "B1", "O-09"),
    Bag("slate", "merino", "tops", "#828b92", 12, "C3", "SL-7"),
    # more colours of the marsh
    Bag("samphire", "merino", "tops", "#8c9b4a", 27, "C5", "SA-1"),
    Bag("reed", "shetland", "tops", "#a59a5c", 33, "C5"),
    Bag("mudflat", "shetland", "tops", "#857462", 61, "C5"),
    Bag("cockle", "shetland", "batt", "#cbb7a4", 105, "B2"),
    Bag("sandpiper", "shetland", "batt", "#9a7f62", 130, "B2"),
    Bag("gull", "merino", "batt", "#dcdcd6", 110, "B3"),
    Bag("storm", "merino", "batt", "#4c555e", 90, "B3"),
    Bag("dusk", "merino", "batt", "#6e6480", 29, "B3", "DU-2"),
    Bag("thrift", "merino", "sliver", "#c47b96", 19, "D3", "TH-6"),
    Bag("sea lavender", "merino", "sliver", "#8f83ac", 23, "D3", "LA-1"),
    Bag("buoy", "corriedale", "sliver", "#c9622f", 26, "D3"),
    Bag("pine", "corriedale", "sliver", "#34503d", 21, "D4", "PI-4"),
    Bag("olive", "corriedale", "sliver", "#7a7a3c", 34, "D4", "OL-4"),
    Bag("kelp", "corriedale", "batt", "#5a5a32", 40, "B4"),
    Bag("mussel", "bluefaced", "tops", "#38405c", 47, "C6", "MU-8"),
    Bag("oyster", "bluefaced", "tops", "#c9c2b6", 52, "C6"),
    Bag("harbour", "bluefaced", "tops", "#2f5a73", 30, "C6", "HA-2"),
    Bag("dark fell", "jacob", "fleece", "#54483f", 320, "E1"),
    Bag("pale fell", "jacob", "fleece", "#d8cfbf", 260, "E1"),
    Bag("grey fell", "gotland", "fleece", "#84827f", None, "E1"),
    Bag("silver curl", "gotland", "locks", "#a9a7a3", 64, "E2"),
    Bag("pearl curl", "wensleydale", "locks", "#eee6d4", 58, "E2"),
    Bag("copper curl", "wensleydale", "locks", "#9c5a34", 25, "E2", "CO-3"),
    Bag("foam curl", "mohair", "locks", "#f0ece2", 37, "E2"),
    Bag("snow grain", "merino", "neps", "#f2efe8", 28, "E3"),
    Bag("heather grain", "merino", "neps", "#93708f", 14, "E3"),
    Bag("fog sheet", "merino", "prefelt", "#b9bfc2", 42, "E3"),
    Bag("warm scrap", "mixed", "scrap", "#a98a6b", 85, "A3"),
    Bag("dark scrap", "mixed", "scrap", "#4d4640", 62, "A3"),
    Bag("green scrap", "mixed", "scrap", "#7d8455", 22, "A3"),
    Bag("grey core", "romney", "core", "#a7a49d", 620, "A2"),
    Bag("white core", "romney", "core", "#ece7da", None, "A2", days_ago=12),
    Bag("fawn alpaca", "alpaca", "tops", "#a98258", 45, "F1"),
    Bag("black alpaca", "alpaca", "tops", "#2b2725", 33, "F1"),
    Bag("cream alpaca", "alpaca", "batt", "#e2d6bf", 39, "F1"),
    Bag("spun light", "silk", "tops", "#efe8d8", 11, "F2"),
    Bag("tide silk", "silk", "tops", "#5f8f97", 7, "F2", "TS-1"),
]


@dataclass(frozen=True)
class Supply:
    """A notion: amount in pieces or mm."""

    name: str
    notion: str
    unit: str
    amount: float
    size_mm: float | None
    drawer: str
    srgb: str = ""
    minimum: float = 0
    told: tuple[tuple[str, object], ...] = ()


SUPPLIES = [
    Supply("black eyes", "eyes", "pc", 22, 4, "N1", "#16181a", 8),
    Supply("black eyes", "eyes", "pc", 14, 5, "N1", "#16181a"),
    Supply("black beads", "eyes", "pc", 40, 3, "N1", "#16181a"),
    Supply("florist wire", "wire", "mm", 9400, 1, "N2", "#7f7f7f"),
    Supply("stout wire", "wire", "mm", 4200, 1.5, "N2", "#6f6f6f"),
    Supply("paper wire", "wire", "mm", 2600, 0.6, "N2", "#e8e2d4"),
    Supply("whisker thread", "thread", "mm", 12000, None, "N3", "#efeae0"),
    Supply(
        "triangle 38",
        "needle",
        "pc",
        9,
        None,
        "N4",
        "#9a9a9a",
        4,
        (("gauge", 38), ("section", "triangle"), ("holder", "the long one")),
    ),
    Supply(
        "star 40",
        "needle",
        "pc",
        6,
        None,
        "N4",
        "#9a9a9a",
        4,
        (("gauge", 40), ("section", "star"), ("holder", "the round one, three")),
    ),
    Supply(
        "star 42",
        "needle",
        "pc",
        3,
        None,
        "N4",
        "#9a9a9a",
        0,
        (("gauge", 42), ("section", "star"), ("mark", "a notch")),
    ),
    Supply("pale pad", "pad", "pc", 1, None, "N5", "#e6e2d8", 0, (("wools", "pale"),)),
    Supply("dark pad", "pad", "pc", 1, None, "N5", "#3a3836", 0, (("wools", "dark"),)),
    Supply("shell cutter", "cutter", "pc", 1, 36, "N5", "#b8b8b8", 0, (("outline", "drop"),)),
    Supply("ear cutter", "cutter", "pc", 1, 14, "N5", "#b8b8b8", 0, (("outline", "ear"),)),
]


@dataclass(frozen=True)
class Seller:
    """A supplier with packs: item name → (pack, price) rows; notions by pieces or mm."""

    name: str
    lead_days: int
    postage: str
    packs: dict[str, list[tuple[float, str]]]


SELLERS = [
    Seller(
        "Marram Wool Shed", 6, "4.20",
        {
            "core": [(250, "6.50"), (500, "11.80")],
            "chalk": [(25, "2.90"), (50, "4.90"), (100, "8.80")],
            "peat": [(25, "3.10"), (50, "5.20"), (100, "9.40")],
            "soot": [(25, "2.90"), (50, "4.90")],
            "oat": [(50, "4.60"), (100, "8.40")],
            "fawn": [(50, "4.60"), (100, "8.40")],
            "slate": [(25, "2.90"), (50, "4.90"), (100, "8.80")],
            "rust": [(25, "2.60"), (50, "4.50")],
            "umber": [(50, "4.60")],
            "plum": [(25, "2.90"), (50, "4.90")],
            "triangle 38": [(5, "4.50"), (20, "15.00")],
        },
    ),
    Seller(
        "Spindle and Tide", 11, "3.20",
        {
            "moss": [(10, "1.60"), (25, "2.60"), (50, "4.50")],
            "straw": [(25, "2.60"), (50, "4.50")],
            "brick": [(25, "2.60")],
            "rose": [(25, "3.00")],
            "fog": [(25, "3.00")],
            "sea": [(25, "3.00")],
            "filling": [(200, "3.80")],
            "chalk": [(50, "4.60")],
            "core": [(1000, "21.00")],
            "grey core": [(250, "5.90"), (500, "10.80")],
            "cockle": [(50, "4.30"), (100, "7.90")],
            "sandpiper": [(50, "4.30"), (100, "7.90")],
            "gull": [(50, "4.60"), (100, "8.40")],
            "storm": [(50, "4.60")],
        },
    ),
]  # fmt: skip
