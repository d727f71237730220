"""The lie of the fur: its axis with a doubt from the picture, its direction from a few strokes, its length from hairs drawn."""
