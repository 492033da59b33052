"""The search for the best blend of a shelf."""
