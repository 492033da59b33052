"""The figures, one figure, its parts and layers."""
