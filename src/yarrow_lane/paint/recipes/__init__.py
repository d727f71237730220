"""From a wanted colour to small whole parts of the paints at hand."""
