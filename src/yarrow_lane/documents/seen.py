"""The pages of a PDF as pictures, drawn by PDFium from the very bytes that are saved."""

from typing import TYPE_CHECKING, Any

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.lengths import MM_PER_INCH
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    pypdfium2: Any
else:
    pypdfium2 = late("pypdfium2")


def pages_of(pdf: bytes, px_per_mm: float) -> tuple[Picture, ...]:
    """Each page (H, W, 3) sRGB at that scale."""
    document = pypdfium2.PdfDocument(pdf)
    try:
        scale = px_per_mm * MM_PER_INCH / 72
        return tuple(
            np.ascontiguousarray(page.render(scale=scale, rev_byteorder=True).to_numpy()[:, :, :3]) for page in document
        )
    finally:
        document.close()
