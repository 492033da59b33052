"""One fibre, and the table of breeds."""
