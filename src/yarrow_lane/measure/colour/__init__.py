"""Colour spaces, one per file."""
