"""What answers a shortage."""
