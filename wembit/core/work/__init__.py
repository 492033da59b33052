"""The order of work."""
