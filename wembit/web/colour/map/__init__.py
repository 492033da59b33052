"""The colour map, what answers a colour, carding."""
