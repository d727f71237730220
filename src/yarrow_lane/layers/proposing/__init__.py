"""A first set of regions without a stroke: from cut-outs, eyes, landmarks and colour. All of it is a guess, and shown as one."""
