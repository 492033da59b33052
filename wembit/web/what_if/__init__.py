"""What if a project were due on another day, or were more? Tried on a copy, held against what is, kept or dropped."""
