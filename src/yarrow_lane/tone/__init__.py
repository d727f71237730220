"""Door 4: values before things, and the ground."""
