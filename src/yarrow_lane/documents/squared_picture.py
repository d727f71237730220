"""The squared reference as a picture for any printer or screen."""

import io

from PIL import Image, ImageDraw

from yarrow_lane.measure.lengths import MM_PER_INCH
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.squares import Squares

_THIN_MM = 0.15  # of a ruled line on paper: our choice


def squared_png(picture: Picture, squares: Squares, print_width_mm: float) -> bytes:
    """The whole canvas (H, W, 3) with its squares, as PNG whose resolution makes it `print_width_mm` wide on paper."""
    image = Image.fromarray(picture)
    draw = ImageDraw.Draw(image)
    scale = picture.shape[1] / squares.width_mm
    thin = max(1, round(_THIN_MM * picture.shape[1] / print_width_mm))
    for grey, pen in ((0, 3 * thin), (255, thin)):
        for x in squares.lines_across():
            draw.line([(x * scale, 0), (x * scale, image.height)], (grey, grey, grey), pen)
        for y in squares.lines_down():
            draw.line([(0, y * scale), (image.width, y * scale)], (grey, grey, grey), pen)
    out = io.BytesIO()
    per_inch = picture.shape[1] / print_width_mm * MM_PER_INCH
    image.save(out, "PNG", dpi=(per_inch, per_inch))
    return out.getvalue()
