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


def felt_mm(g_m2: float, density_g_cm3: float) -> float:
    """How thick wool of that weight per area is in mm when felted to that density."""
    return g_m2 / density_g_cm3 / 1000


SMALLEST_PIECE_G = 0.02  # common practice
USUAL_SIGMA = 0.25  # log scatter round the rule of a studio that has weighed nothing yet, common practice
A_PINCH_BELOW_G = 0.05


CRIMPS = ("hardly any", "some", "fine and close")
FELTING = ("slowly", "steadily", "quickly", "not at all")
TOUCHES = ("soft", "between", "coarse")
USES = ("core", "cover", "coat", "locks", "detail")


@dataclass(frozen=True)
class Breed:
    """Where a fibre comes from. Diameter in µm, staple in mm: middle values of the breed; its crimp, how it felts under the
    needle, how it feels, what it is mostly used for.
    """

    name: str
    micron_um: float
    staple_mm: float | None
    crimp: str = "some"
    felting: str = "steadily"
    touch: str = "between"
    uses: tuple[str, ...] = ("cover",)


# Middle fibre diameter and staple length, and what the breeds are like under the needle; common practice of the trade
BREEDS = {
    "merino": Breed("Merino", 21, 75, "fine and close", "slowly", "soft", ("cover", "detail")),
    "corriedale": Breed("Corriedale", 27, 110, "some", "quickly", "between", ("core", "cover")),
    "bluefaced": Breed("Bluefaced Leicester", 26, 110, "some", "steadily", "soft", ("cover", "coat")),
    "shetland": Breed("Shetland", 25, 90, "fine and close", "quickly", "between", ("cover",)),
    "jacob": Breed("Jacob", 30, 110, "some", "quickly", "between", ("core", "cover")),
    "romney": Breed("Romney", 33, 140, "some", "quickly", "coarse", ("core",)),
    "gotland": Breed("Gotland", 33, 120, "some", "quickly", "between", ("coat", "locks")),
    "wensleydale": Breed("Wensleydale", 34, 230, "hardly any", "slowly", "between", ("locks", "coat")),
    "mountain": Breed("Mountain mix", 30, 70, "some", "quickly", "coarse", ("core",)),
    "alpaca": Breed("Alpaca", 24, 100, "hardly any", "slowly", "soft", ("coat", "cover")),
    "mohair": Breed("Mohair", 30, 130, "hardly any", "slowly", "soft", ("coat", "locks")),
    "down": Breed("Down type", 29, 75, "fine and close", "slowly", "between", ("core",)),
    "hill": Breed("Hill, kempy", 36, 150, "hardly any", "slowly", "coarse", ("coat", "core")),
    "lustre": Breed("Long lustre", 38, 220, "hardly any", "slowly", "between", ("locks", "coat")),
    "silk": Breed("Silk", 13, 90, "hardly any", "not at all", "soft", ("detail",)),
    "polyester": Breed("Polyester", 25, None, "some", "not at all", "between", ("core",)),
    "mixed": Breed("Mixed", 25, None, "some", "steadily", "between", ("cover",)),
    "unknown": Breed("Wool", 25, 90),  # a bag whose label is lost
}
SHORT_BREEDS = {  # as labels and lists abbreviate them; common practice
    "bfl": "bluefaced", "corrie": "corriedale", "shet": "shetland", "wensley": "wensleydale", "romney marsh": "romney",
    "gotl": "gotland", "mer": "merino", "poly": "polyester", "pes": "polyester",
}  # fmt: skip


@dataclass(frozen=True)
class Form:
    """How a fibre comes. Loose density in g/cm³; a strand is also sold and used by its length; some blend by hand; what it is
    good for.
    """

    name: str
    loose_g_cm3: float
    strand: bool = False
    linear_g_m: float | None = None
    blends: bool = False
    good_for: str = ""


# Loose densities 0.02–0.06 g/cm³ and strands of 20–25 g/m: from memory, replaced by what the scale learns. Which forms blend
# with each other by hand: common practice.
FORMS = {
    "tops": Form(
        "tops",
        0.05,
        True,
        22,
        blends=True,
        good_for="smooth covers, long fur; pulled apart for shaping",
    ),
    "sliver": Form(
        "sliver",
        0.04,
        True,
        15,
        blends=True,
        good_for="shaping and covers; it grips well",
    ),
    "batt": Form("batt", 0.03, blends=True, good_for="shaping in the round, covers; it felts evenly"),
    "core": Form("core wool", 0.03, blends=True, good_for="the inside; cheap, springy, quick to felt"),
    "locks": Form("locks", 0.03, good_for="curls and coats, planted or laid; they are not carded"),
    "neps": Form("neps", 0.06, good_for="specks and rough skins, felted in on top"),
    "fleece": Form("fleece", 0.02, blends=True, good_for="own batts, rough coats; it may want washing first"),
    "prefelt": Form(
        "pre-felt", 0.1, good_for="flat pieces and covers in one sheet; cut to the outline, then felted on"
    ),
    "scrap": Form("scrap", 0.04, good_for="stuffing, the inside of hidden parts"),
    "filling": Form("filling", 0.015, good_for="large insides; it does not felt, wool goes over it"),
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
    "cutter": "cutter",
    "stencil": "stencil",
    "pin": "pin",
    "loop": "hanging loop",
    "perch": "perch",
    "bell": "bell",
    "bead": "bead",
}
MEASURED = ("wire", "thread", "loop")  # these are kept in mm, the others are counted
