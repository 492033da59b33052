"""What is done about money: one verb a file."""
