"""The JSON Schema (draft 2020-12) of a shape, made from the registry of solids."""

from __future__ import annotations

from wembit.core.shape.solids import SOLIDS, Solid

LENGTH = {"type": "number", "exclusiveMinimum": 0, "maximum": 10_000}
ANYWHERE = {"type": "number", "minimum": -10_000, "maximum": 10_000}
WIDTH = {"type": "number", "minimum": 0, "maximum": 10_000}


def _points(least: int, second: dict) -> dict:
    row = {"type": "array", "prefixItems": [ANYWHERE, second], "minItems": 2, "maxItems": 2}
    return {"type": "array", "minItems": least, "maxItems": 2000, "items": row}


DRAWN = {
    "slab": {"outline": _points(3, ANYWHERE), "thickness_mm": LENGTH},
    "silhouette": {
        "stations": _points(2, WIDTH),
        "depth_ratio": {"type": "number", "exclusiveMinimum": 0, "maximum": 1000},
    },
    "none": {},
}
OPTIONAL = ("depth_ratio",)


def shape_schema() -> dict:
    """One of the kinds, each with exactly its keys; lengths in mm up to 10 m."""
    return {"oneOf": [_kind(cls) for cls in SOLIDS]}


def _kind(cls: type[Solid]) -> dict:
    keys = dict.fromkeys(cls.SIZES, LENGTH) if cls.BY_SIZES else DRAWN[cls.KIND]
    return {
        "type": "object",
        "additionalProperties": False,
        "properties": {"kind": {"const": cls.KIND}, **keys},
        "required": ["kind", *(key for key in keys if key not in OPTIONAL)],
    }
