"""Door 9: sign, rest, last list, varnish, pack, hand over."""
