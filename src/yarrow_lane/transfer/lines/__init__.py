"""The contour lines of the reference that a painter would trace: few, smooth, in canvas mm."""
