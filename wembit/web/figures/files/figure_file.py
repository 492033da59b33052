"""A figure as a JSON file and back: documented in docs/formats.md, checked by the schema that ships beside this module."""

from __future__ import annotations

import json
import re
from functools import cache
from pathlib import Path
from typing import Any

from jsonschema import Draft202012Validator

from wembit.core.contract.shape_schema import shape_schema
from wembit.web.errors import Refusal
from wembit.web.figures.models import PART_FIELDS, Figure, Part, Version
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.limits import FIGURE_BYTES
from wembit.web.stash.queries import colours

FORMAT = 1


@cache
def schema() -> dict:
    """The schema of a figure's file; what a shape may be comes from the core's registry of solids."""
    return _with_shape(shape_schema())


@cache
def _reading_schema() -> dict:
    """The same, with shapes left to the core, which names the place of what is wrong in one."""
    return _with_shape({"type": "object", "required": ["kind"]})


def _with_shape(shape: dict) -> dict:
    written = json.loads((Path(__file__).parent / "figure.schema.json").read_text())
    written["$defs"]["shape"] = shape
    return written


def figure_as_json(figure: Figure) -> dict:
    """The newest version of a figure with its colourways; fibres by name, breed, form and colour."""
    version = newest_version(figure)
    return {
        "wembit_figure": FORMAT,
        "name": figure.name,
        "story": figure.story,
        "origin": figure.origin,
        "slots": [slot.name for slot in version.slots.all()],
        "parts": [_part(part) for part in parts_of(version)],
        "colourways": _colourways(version),
        "school": version.school,
        "notions": version.notions,
        "faces": version.faces,
        "order": version.order,
    }


def _part(part: Part) -> dict:
    layers = [
        {"role": layer.role, "slot": layer.slot.name, "over": layer.over and layer.over.name, "rule": layer.rule}
        for layer in part.layers.all()
    ]
    return {**{name: getattr(part, name) for name in PART_FIELDS}, "layers": layers}


def _colourways(version: Version) -> list[dict]:
    found = []
    for way in version.colourways.order_by("position", "name"):
        choices = list(way.choices.select_related("item", "slot"))
        seen = colours(version.studio, [choice.item_id for choice in choices])
        fibres = {
            choice.slot.name: {"name": choice.item.name, "breed": choice.item.breed, "form": choice.item.form,
                               "srgb": seen.get(choice.item_id, "")}
            for choice in choices
        }  # fmt: skip
        found.append({"name": way.name, "fibres": fibres})
        thought = {slot.name: way.thought[str(slot.pk)] for slot in version.slots.all() if str(slot.pk) in way.thought}
        if thought:
            found[-1]["thought"] = thought
    return found


WRITTEN_NUL = re.compile(r"(?<!\\)((?:\\\\)*)\\u0000")  # as JSON writes it; no database takes one


def read_file(content: bytes) -> dict:
    """The figure in a file. Raises `Refusal` naming the place of what is wrong."""
    if len(content) > FIGURE_BYTES:
        raise Refusal("That file is larger than 2 MB: a figure's file is not.", "file")
    try:
        text = WRITTEN_NUL.sub(r"\1", content.decode("utf-8"))
        found = json.loads(text, parse_constant=_no_constant)
    except (UnicodeDecodeError, ValueError, RecursionError) as fault:
        raise Refusal(f"That file is no JSON that can be read ({fault}).", "file") from None
    if not isinstance(found, dict) or "wembit_figure" not in found:
        raise Refusal("That file holds no figure of Wembit: it begins with wembit_figure.", "file")
    if found["wembit_figure"] != FORMAT:
        raise Refusal(f"That file is of format {found['wembit_figure']}; this Wembit reads format {FORMAT}.", "file")
    faults = sorted(
        Draft202012Validator(_reading_schema()).iter_errors(found), key=lambda fault: list(map(str, fault.path))
    )
    if faults:
        raise Refusal(f"{_place(faults[0].absolute_path)}: {faults[0].message[:160]}.", "file")
    return found


def _no_constant(name: str) -> None:
    raise ValueError(f"{name} is no number")


def _place(path: Any) -> str:
    return "".join(f"[{each}]" if isinstance(each, int) else f".{each}" for each in path).lstrip(".") or "the file"
