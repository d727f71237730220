"""Pigments by their index name: generic entries, remembered and not measured, that a calibration makes the painter's own."""
