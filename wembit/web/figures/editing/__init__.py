"""What holds between the parts of a figure while it is changed."""
