"""The requests of every verb, as rules of the contract."""

from __future__ import annotations

import math
from collections.abc import Callable

from wembit.core.craft.materials import FIRMNESS, USUAL_SIGMA
from wembit.core.errors import BadInput
from wembit.core.shape import solids
from wembit.core.shape.polygon import crosses_itself

from .validator import (
    COUNT,
    NOT_NEGATIVE,
    POSITIVE,
    SHARE,
    Choice,
    Key,
    Kinds,
    Many,
    Number,
    Row,
    Thing,
    day,
    place,
    srgb,
    text,
    truth,
)

WEEK = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
ROLES = ("core", "padding", "cover", "coat", "detail", "weighed")
FIRM = Choice(tuple(FIRMNESS))
DENSITY = Number(gt=0, le=25)
SIGMA = Number(ge=0, le=5)
BIAS = Number(gt=0, le=1000)
SPREAD = {"sigma": Key(SIGMA, None), "bias": Key(BIAS, None)}


def lengths(*names: str) -> dict[str, Key]:
    """Keys of lengths in mm, each above 0."""
    return {name: Key(POSITIVE) for name in names}


# --- shapes ---------------------------------------------------------------------------------------------------------


def long_enough(shape: dict, where: str) -> None:
    """A capsule is at least as long as it is thick."""
    if shape["length_mm"] < shape["diameter_mm"]:
        raise BadInput(place(where, "length_mm"), "must not be shorter than the diameter", shape["length_mm"])


def tube_fits(shape: dict, where: str) -> None:
    """A ring's tube is at most half of it."""
    if shape["tube_diameter_mm"] > shape["outer_diameter_mm"] / 2:
        got = shape["tube_diameter_mm"]
        raise BadInput(place(where, "tube_diameter_mm"), "must be at most half the outer diameter", got)


def outline_is_simple(shape: dict, where: str) -> None:
    """An outline has three different points, crosses itself nowhere and encloses an area; repeated points are left out."""
    outline = shape["outline"]
    if len(outline) > 1 and outline[0] == outline[-1]:
        outline.pop()
    kept = [p for p, q in zip(outline, outline[1:] + outline[:1], strict=True) if p != q]
    if len(kept) < 3:
        raise BadInput(place(where, "outline"), "must have at least 3 different points", len(kept))
    if crosses_itself(tuple(map(tuple, kept))):
        raise BadInput(place(where, "outline"), "must not cross itself", outline)
    shape["outline"] = kept
    if solids.Slab(tuple(map(tuple, kept)), 1).face <= 0:
        raise BadInput(place(where, "outline"), "must enclose an area", None)


def stations_in_order(shape: dict, where: str) -> None:
    """Stations follow each other along x, and one has a width."""
    stations = shape["stations"]
    for index in range(1, len(stations)):
        if stations[index][0] <= stations[index - 1][0]:
            spot = f"{place(where, 'stations')}[{index}][0]"
            raise BadInput(spot, "must be greater than the x before it", stations[index][0])
    if not any(width > 0 for _, width in stations):
        raise BadInput(place(where, "stations"), "must have a width greater than 0", 0)


POINTS: dict[str, dict[str, Key]] = {  # of the shapes that their sizes alone do not say
    "slab": {"outline": Key(Many(Row((Number(), Number())), least=3, most=2000)), "thickness_mm": Key(POSITIVE)},
    "silhouette": {
        "stations": Key(Many(Row((Number(), NOT_NEGATIVE)), least=2, most=2000)),
        "depth_ratio": Key(Number(gt=0, le=1000), 1.0),
    },
    "none": {},
}
SHAPE_RULES: dict[str, tuple[Callable[[dict, str], None], ...]] = {
    "capsule": (long_enough,),
    "torus": (tube_fits,),
    "slab": (outline_is_simple,),
    "silhouette": (stations_in_order,),
}
SHAPE = Kinds(
    "kind",
    {
        cls.KIND: Thing(lengths(*cls.SIZES) if cls.BY_SIZES else POINTS[cls.KIND], rules=SHAPE_RULES.get(cls.KIND, ()))
        for cls in solids.SOLIDS
    },
)

# --- layers and parts -----------------------------------------------------------------------------------------------

SHOW_THROUGH = {
    "fibre": Key(text),
    "micron_um": Key(POSITIVE),
    "srgb": Key(srgb),
    "over": Key(srgb),
    "tau": Key(POSITIVE, 0.5),
}


def standing(layer: dict) -> float:
    """Length of a lock above the skin in mm, before it is trimmed."""
    return layer["pulled_mm"] / 2 if layer["folded"] else layer["pulled_mm"]


def finished_within(layer: dict, where: str) -> None:
    """A lock is not trimmed to more than it stands."""
    if layer["finished_mm"] > standing(layer):
        raise BadInput(
            place(where, "finished_mm"),
            f"must be at most the standing length, {standing(layer):g}",
            layer["finished_mm"],
        )


LAYER = Kinds(
    "role",
    {
        "core": Thing(
            {
                "fibre": Key(text),
                "share": Key(SHARE, 1.0),
                "firmness": Key(FIRM, None),
                "density_g_cm3": Key(DENSITY, None),
                **SPREAD,
            }
        ),
        "cover": Thing({**SHOW_THROUGH, "share": Key(SHARE, 1.0), "coats": Key(Number(gt=0, le=100), 1.0), **SPREAD}),
        "detail": Thing({**SHOW_THROUGH, "area_mm2": Key(POSITIVE), **SPREAD}),
        "coat": Thing(
            {
                "fibre": Key(text),
                "row_spacing_mm": Key(POSITIVE),
                "grams_per_cm": Key(POSITIVE),
                "pulled_mm": Key(POSITIVE),
                "folded": Key(truth, True),
                "finished_mm": Key(POSITIVE),
                "scale_pile": Key(truth, False),
                "share": Key(SHARE, 1.0),
                **SPREAD,
            },
            rules=(finished_within,),
        ),
        "padding": Thing(
            {
                "fibre": Key(text),
                "thickness_mm": Key(POSITIVE),
                "firmness": Key(FIRM),
                "density_g_cm3": Key(DENSITY),
                "share": Key(SHARE, 1.0),
                **SPREAD,
            },
            one_of=(("firmness", "density_g_cm3"),),
        ),
        "weighed": Thing({"fibre": Key(text), "grams": Key(POSITIVE), **SPREAD}),
    },
)


def one_core_density(part: dict, where: str) -> None:
    """A core says its firmness or its density, not both."""
    for index, layer in enumerate(part["layers"]):
        if layer["role"] == "core" and layer["firmness"] is not None and layer["density_g_cm3"] is not None:
            spot = f"{place(where, 'layers')}[{index}].density_g_cm3"
            raise BadInput(spot, "only one of firmness and density_g_cm3 may stand", layer["density_g_cm3"])


def cores_add_up(part: dict, where: str) -> None:
    """The shares of the cores of a part are 1 together."""
    shares = [layer["share"] for layer in part["layers"] if layer["role"] == "core"]
    if shares and not math.isclose(sum(shares), 1, abs_tol=1e-6):
        raise BadInput(place(where, "layers"), "the shares of the core layers must add up to 1", sum(shares))


def nothing_has_no_skin(part: dict, where: str) -> None:
    """A part without a shape takes what lies on others."""
    if part["shape"]["kind"] != "none":
        return
    for index, layer in enumerate(part["layers"]):
        if layer["role"] not in ("detail", "weighed"):
            spot = f"{place(where, 'layers')}[{index}].role"
            raise BadInput(spot, "a part without a shape takes only detail and weighed layers", layer["role"])


def one_firmness(part: dict, where: str) -> None:
    """A part says its firmness or its density, one of them."""
    given = [key for key in ("firmness", "density_g_cm3") if part.get(key) is not None]
    if len(given) == 2:
        raise BadInput(
            place(where, given[1]), "only one of firmness and density_g_cm3 may stand", part["density_g_cm3"]
        )
    if not given and part["shape"]["kind"] != "none":
        raise BadInput(place(where, "firmness"), "is missing (or density_g_cm3)", None)


PART = Thing(
    {
        "name": Key(text),
        "count": Key(COUNT, 1),
        "shape": Key(SHAPE),
        "firmness": Key(FIRM, None),
        "density_g_cm3": Key(DENSITY, None),
        "armature_mm3": Key(NOT_NEGATIVE, 0.0),
        "loose_end_mm3": Key(NOT_NEGATIVE, 0.0),
        "allowance": Key(Number(ge=0, le=10), 0.08),
        "visible": Key(SHARE, 1.0),
        "layers": Key(Many(LAYER)),
        **SPREAD,
    },
    rules=(one_firmness, nothing_has_no_skin, one_core_density, cores_add_up),
)


def room_inside(request: dict, where: str) -> None:
    """What only the scaled figure shows: the wire within its sleeve, the armature within the part."""
    s = request["scale"]
    for index, part in enumerate(request["parts"]):
        spot = f"{place(where, 'parts')}[{index}]"
        shape = part["shape"]
        if shape["kind"] == "wrap" and shape["wire_mm"] >= shape["diameter_mm"] * s:
            raise BadInput(
                f"{spot}.shape.wire_mm",
                f"must be thinner than its sleeve, {shape['diameter_mm'] * s:g}",
                shape["wire_mm"],
            )
        if part["armature_mm3"] > 0 and part["armature_mm3"] * s >= solids.solid(shape).scaled(s).volume:
            raise BadInput(f"{spot}.armature_mm3", "must be less than the part's volume", part["armature_mm3"])


ESTIMATE = Thing(
    {
        "scale": Key(Number(gt=0, le=10_000), 1.0),
        "sigma": Key(SIGMA, USUAL_SIGMA),
        "bias": Key(BIAS, 1.0),
        "parts": Key(Many(PART, most=5000)),
    },
    rules=(room_inside,),
)

# --- colour ---------------------------------------------------------------------------------------------------------


def least_below_most(request: dict, where: str) -> None:
    """The least weight of a cover is not above the most."""
    if request["least_g_m2"] > request["most_g_m2"]:
        raise BadInput(place(where, "least_g_m2"), "must be at most most_g_m2", request["least_g_m2"])


COVER = Thing(
    {
        "srgb": Key(srgb),
        "over": Key(srgb),
        "micron_um": Key(POSITIVE),
        "tau": Key(POSITIVE, 0.5),
        "limit_de00": Key(NOT_NEGATIVE, 2.0),
        "least_g_m2": Key(NOT_NEGATIVE, 60.0),
        "most_g_m2": Key(POSITIVE, 400.0),
    },
    rules=(least_below_most,),
)

LAB = Row((Number(ge=0, le=100), Number(ge=-200, le=200), Number(ge=-200, le=200)))
REFLECTANCE = Many(Number(gt=0, lt=1), least=36, most=36)
SEEN = {"srgb": Key(srgb), "lab": Key(LAB), "reflectance": Key(REFLECTANCE)}
SEEN_ONE = (("srgb", "lab", "reflectance"),)
TARGET = Thing(SEEN, one_of=SEEN_ONE)
PALETTE = Many(
    Thing({"id": Key(text), **SEEN, "grams": Key(NOT_NEGATIVE, None)}, one_of=SEEN_ONE), 1, 5000, unique="id"
)

MATCH = Thing({"target": Key(TARGET), "lots": Key(PALETTE), "limit": Key(COUNT, 10)})
BLEND = Thing(
    {
        "target": Key(TARGET),
        "lots": Key(PALETTE),
        "grams": Key(POSITIVE),
        "max_fibres": Key(Number(ge=1, le=4, whole=True), 3),
        "parts": Key(Number(ge=1, le=16, whole=True), 8),
        "limit": Key(COUNT, 5),
    }
)

# --- habits, stock and time -----------------------------------------------------------------------------------------

OF_WHAT = {"firmness": Key(FIRM), "role": Key(Choice(ROLES))}
OF_WHICH = (("firmness", "role"),)
CALIBRATE = Thing(
    {
        "records": Key(
            Many(
                Thing(
                    {"maker": Key(text), **OF_WHAT, "planned_g": Key(POSITIVE), "actual_g": Key(POSITIVE)},
                    one_of=OF_WHICH,
                )
            )
        ),
        "ask": Key(Many(Thing({"maker": Key(text), **OF_WHAT}, one_of=OF_WHICH))),
    }
)

ALLOCATE = Thing(
    {
        "lots": Key(
            Many(
                Thing(
                    {
                        "id": Key(text),
                        "fibre": Key(text),
                        "grams": Key(NOT_NEGATIVE),
                        "dye_lot": Key(text, None),
                        "opened": Key(truth, False),
                    }
                ),
                unique="id",
            )
        ),
        "demands": Key(
            Many(
                Thing(
                    {
                        "id": Key(text),
                        "due": Key(day),
                        "fibre": Key(text),
                        "grams": Key(NOT_NEGATIVE),
                        "visible": Key(truth, True),
                    }
                ),
                unique="id",
            )
        ),
    }
)

PRICE = Number(ge=0)
PACK = Thing({"grams": Key(Number(ge=0.01, le=1e6)), "price": Key(PRICE)})
PACKS = Thing({"grams": Key(Number(ge=0, le=1e7)), "packs": Key(Many(PACK, least=1, most=100))})


FORECAST = Thing(
    {
        "today": Key(day),
        "service": Key(Number(gt=0, lt=1), 0.9),
        "horizon_days": Key(Number(ge=1, le=3660, whole=True), 180),
        "fibres": Key(
            Many(
                Thing(
                    {
                        "id": Key(text),
                        "on_hand_g": Key(Number()),
                        "receipts": Key(Many(Thing({"date": Key(day), "grams": Key(NOT_NEGATIVE)})), ()),
                        "demands": Key(
                            Many(
                                Thing(
                                    {
                                        "date": Key(day),
                                        "grams": Key(NOT_NEGATIVE),
                                        "sigma": Key(SIGMA, 0.0),
                                    }
                                )
                            ),
                            (),
                        ),
                        "habit": Key(Thing({"weekly_g": Key(NOT_NEGATIVE), "weekly_sd_g": Key(NOT_NEGATIVE)}), None),
                        "lead_days": Key(Number(ge=0, le=3660)),
                        "lead_sd_days": Key(NOT_NEGATIVE, 0.0),
                        "packs": Key(Many(PACK, least=1, most=100)),
                        "cover_days": Key(Number(ge=0, le=3660, whole=True), 60),
                    }
                ),
                unique="id",
            )
        ),
    }
)


def some_bench_time(request: dict, where: str) -> None:
    """A week has some time at the bench."""
    if not any(request["hours"].values()):
        raise BadInput(place(where, "hours"), "must leave some bench time in the week", 0)


SCHEDULE = Thing(
    {
        "today": Key(day),
        "hours": Key(Thing({name: Key(Number(ge=0, le=15)) for name in WEEK})),
        "days_off": Key(Many(day), ()),
        "jobs": Key(
            Many(
                Thing(
                    {
                        "id": Key(text),
                        "due": Key(day),
                        "steps": Key(Many(Thing({"minutes": Key(NOT_NEGATIVE), "wait_hours": Key(NOT_NEGATIVE, 0.0)}))),
                        "ready": Key(day, None),
                    }
                ),
                unique="id",
            )
        ),
    },
    rules=(some_bench_time,),
)
