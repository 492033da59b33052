"""Stored figures as the core wants them, and what it answers."""
