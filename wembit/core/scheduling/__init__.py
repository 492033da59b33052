"""When to begin what: one bench, its hours, and the order in which its jobs are worked."""
