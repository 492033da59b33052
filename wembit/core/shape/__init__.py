"""Solids of parts: volumes, areas, sizes, traced outlines."""
