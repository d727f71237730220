"""Play: the canvas as it should look after each pass. A prediction to compare with, not art; every number in it is our choice."""
