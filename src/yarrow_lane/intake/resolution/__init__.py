"""How much of a picture's pixels resolve: one measure for whole photographs and for eyes."""
