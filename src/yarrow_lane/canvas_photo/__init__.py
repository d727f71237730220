"""A photograph of the canvas, straightened: every place in it in canvas mm."""
