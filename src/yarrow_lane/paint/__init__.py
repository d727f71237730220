"""Paint as light meets it: pigments, mixes, films, recipes. Knows no commission and no window."""
