"""Lines to draw on a page of a PDF, lost edges broken."""

from collections.abc import Callable, Sequence

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.measure.plane import Polygon
from yarrow_lane.transfer.lines.line import Line, stretches

At = Callable[[float, float], tuple[float, float]]  # canvas mm to points of the page


def draw_lines(pdf: Canvas, lines: Sequence[Line], at: At, pen: float, wanted: Callable[[Polygon], bool] = bool) -> None:
    """Every stretch of the lines that is `wanted`, black, `pen` points wide."""
    pdf.setStrokeGray(0)
    pdf.setLineWidth(pen)
    pdf.setLineJoin(1)
    for line in lines:
        for path, lost in stretches(line):
            if not wanted(path):
                continue
            pdf.setDash(*((3, 2) if lost else ()))
            drawn = pdf.beginPath()
            drawn.moveTo(*at(*path[0]))
            for point in path[1:]:
                drawn.lineTo(*at(*point))
            pdf.drawPath(drawn)
    pdf.setDash()
