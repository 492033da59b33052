"""Colourways side by side, faces, two figures compared."""
