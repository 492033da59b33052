"""Commands of the bench."""
