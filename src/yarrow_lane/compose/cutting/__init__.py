"""Cutting a sitter out of a photograph: a mask from a rough outline, a smooth outline of it, a soft edge, clean colours."""
