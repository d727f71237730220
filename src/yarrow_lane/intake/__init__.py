"""Door 1: the photographs, the right to use them, and the brief."""
