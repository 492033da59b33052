"""Studios, members, signing in."""
