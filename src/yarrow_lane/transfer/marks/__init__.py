"""Scribble marks on the canvas: what is seen of them, where more are wanted, what becomes of them."""
