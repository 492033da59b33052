"""A figure to begin: from a body plan, from one of one's own, from nothing."""
