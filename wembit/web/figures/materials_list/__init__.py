"""All that a figure takes, held against the house."""
