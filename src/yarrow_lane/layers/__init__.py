"""Door 6: the right patch at the right time over a dry layer."""
