"""The walk along the shelf."""
