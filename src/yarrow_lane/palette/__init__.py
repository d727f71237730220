"""Door 5: the colours, taken from the crop and mixed before they are needed."""
