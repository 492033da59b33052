"""The usual cautions, each at the step where it matters. Local codes and the supplier's instructions come first."""

from __future__ import annotations

FIRST = "Local codes and the supplier’s instructions come before this."
CAUTIONS = {
    "needle": "Needles are barbed and very sharp: slow, and slanting away from the fingers.",
    "join": "Where two parts meet the needle is near the fingers: slow, slanted away, with guards or a helper needle.",
    "join guards": "Where two parts meet the needle is near the fingers: guards on both that hold, slow, slanted away.",
    "join helper": "Where two parts meet hold them with the helper needle, not with the fingers; slow, slanted away.",
    "brush": "On bristles a needle breaks when it goes in deep: short stabs, and lift the work often.",
    "wire": "Near wire needles break: shallow stabs past it. A broken tip is found before the figure is given away.",
    "wire ends": "Wire ends spring and prick: cut them away from the face, bend them over, cover them.",
    "thin": "Thin things bend a needle: shallow, aslant, and never towards the finger that holds them.",
    "awl": "Bore away from the hand that holds; the awl stays in the hole until glue or wire is ready.",
    "glue": "Ventilate; nothing is handled before it is dry.",
    "clay": "The packet’s temperature, at least its time, a window open, and never wool in the oven.",
    "small parts": "Bought eyes, beads and pin backs are small parts: not for children under three nor for animals. "
                   "Wool eyes instead.",
    "prop": "A photographer’s prop is never left with the child.",
    "scissors": "Scissors and awl: the flat of the blade against the piece.",
    "fleece": "Raw fleece is dusty: outdoors or with a mask; look it through for moths.",
    "colour rubs": "Colour put on as make-up rubs off: say so on the piece.",
    "hang": "Not near or on hot lamps.",
    "give": "Look at it from all sides, upside down and under the arms: gaps, strays? Tug each part, stand it. All needles "
            "back? A broken one must be found before it is given away.",
    "count": "Needles, pins and skewers are counted out and back; none stays in the piece.",
}  # fmt: skip
