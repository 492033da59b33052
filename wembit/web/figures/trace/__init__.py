"""Parts drawn over a picture."""
