"""How big a figure comes out."""
