"""Colour of wool: spaces, hue sectors and differences."""
