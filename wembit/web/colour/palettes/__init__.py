"""Palettes and the colours of a picture."""
