"""Makings and what is taken for them."""
