"""Figures, versions and parts."""
