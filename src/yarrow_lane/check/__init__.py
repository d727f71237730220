"""Door 8: see what the eye has stopped seeing."""
