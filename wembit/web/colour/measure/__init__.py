"""How a bag gets its colour."""
