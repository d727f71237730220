"""Door 2: format, size and crop, at the canvas's exact proportion."""
