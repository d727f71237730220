"""Paint in thin coats: what shows through, glazes and scumbles, and coats to cover."""
