"""What is done with letters."""
