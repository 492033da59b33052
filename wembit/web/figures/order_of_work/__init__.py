"""The order of work of a figure."""
