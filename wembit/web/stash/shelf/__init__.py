"""The shelf and a bag on it."""
