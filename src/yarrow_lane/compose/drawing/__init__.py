"""The composition as a picture: what each thing's colours become, sprites of the cut-outs, all laid over each other in light."""
