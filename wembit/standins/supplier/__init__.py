"""A supplier who takes order files: confirms, names a day, and now and then sends short, of another dye lot, or late."""
