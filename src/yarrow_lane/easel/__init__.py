"""Door 7: what may be painted now, the clock, and what was done."""
