"""Which needles: by what is stabbed, how thick it is and whether there is wire in it. A higher number is finer.

All common practice; the supplier's own advice comes first.
"""

from __future__ import annotations

from .worked import Worked

SHALLOW = "one 40, shallow and aslant"
FINE = "one 40 or 42, star or triangle"


def needles_for(part: Worked, role: str, *, bundle: bool = False) -> str:
    """The needles for a layer of a part in that role; never a bundle on thin or wired work, on faces or on details."""
    if part.thin:
        return SHALLOW
    match role:
        case "detail" | "face":
            return f"{FINE}, never a bundle"
        case "cover" | "coat" | "padding":
            return "38 or 40, star"
    if part.kind in FACES:
        return f"{FINE}, never a bundle"
    if bundle:
        return "two or three 36 or 38, triangle"
    return "one 38, then 40 to finish" if part.firmness in ("firm", "very_firm") else "one 36 or 38, triangle"


FACES = ("eye", "ear", "nose", "snout")
