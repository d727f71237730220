"""The shared rulers: lengths, plane, pictures as arrays, colour, progress and trouble."""
