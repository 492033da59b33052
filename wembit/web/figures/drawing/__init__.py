"""A figure laid out as drawings in mm, and what they point at."""
