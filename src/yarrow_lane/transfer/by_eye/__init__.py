"""Drawing by eye: checks that need no ruler, shapes between things, own measures."""
