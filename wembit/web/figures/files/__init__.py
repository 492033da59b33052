"""Figures as files, out and in."""
