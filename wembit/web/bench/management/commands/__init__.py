"""Commands of the bench, a file each."""
