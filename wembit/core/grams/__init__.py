"""What a figure takes: grams with ranges, details, sizes that follow, sizes backwards."""
