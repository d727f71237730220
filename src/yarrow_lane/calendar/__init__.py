"""Sittings, promise dates and the weeks ahead over all commissions."""
