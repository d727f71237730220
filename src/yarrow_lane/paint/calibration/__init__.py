"""From remembered pigments to the painter's own tubes: tints, swatches, dabs, read by camera or by eye."""
