"""Door 3: the drawing on the canvas in the right place."""
