"""What can be done here, one verb a file."""
