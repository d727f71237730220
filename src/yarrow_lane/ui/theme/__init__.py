"""Colours, type and the style sheet."""
