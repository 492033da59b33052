"""Suppliers, shortages and orders."""
