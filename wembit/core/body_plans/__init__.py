"""Bodies to begin a figure from, one file each; see plan.py."""
