"""Colour of wool: spaces, words and differences."""
