"""The web application: one Django app a place, and what they share."""
