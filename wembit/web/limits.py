"""How much of anything the house takes: each reader has its limit from here. What the core computes with has its own limits
where it is computed (sizes to 10 m, 1,000 pieces, seats 40 deep, tables of 200,000 rows).
"""

from __future__ import annotations

from decimal import Decimal

# bytes of what is sent
BODY_BYTES = 45_000_000  # the largest file and the form round it
TABLE_BYTES = 40_000_000
PICTURE_BYTES = 20_000_000
FIGURE_BYTES = 2_000_000
INSTRUMENT_BYTES = 2_000_000
PALETTE_BYTES = 500_000

PICTURE_PIXELS = 60_000_000
TABLE_ROWS = 100_000

# of a studio, in an item's unit
AMOUNT = Decimal("1000000")

# of a figure
COLOURWAYS = 24
FACES = 24
FITTINGS = 60
LAYERS = 30  # of a part
PICTURES = 40
SPOTS = 6_000  # each one is drawn
STEPS, STEP_MINUTES = 300, 6000.0
POINTS = 400  # of a drawn outline

# of a plan and its orders
MAKINGS = 500
PACKS = 1000  # of one offer in one press
