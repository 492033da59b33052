"""The plan drawn: figures on a sill on the day they are due, and the rope of the work that leads to them."""
