"""Proof of the drawing: where every place was drawn, against where it belongs, in mm."""
