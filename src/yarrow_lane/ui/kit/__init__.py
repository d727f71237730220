"""Widgets several rooms share."""
