"""The colours of the shelf."""
