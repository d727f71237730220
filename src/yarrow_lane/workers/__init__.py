"""Whole questions answered in processes of their own, within limits of time and memory."""
