"""The chest: its drawers from in front, with the wools that lie in them."""
