"""The invented studio Saltgrass: its data and the loader."""
