"""Lines and squares at true size as SVG (W3C, SVG 1.1): one unit is one millimetre of canvas."""

from collections.abc import Sequence
from xml.sax.saxutils import escape, quoteattr

from yarrow_lane.transfer.lines.line import Line, stretches
from yarrow_lane.transfer.squares import Squares

_LOST_MM = "2 1.5"


def lines_svg(title: str, width_mm: float, height_mm: float, lines: Sequence[Line], squares: Squares | None = None) -> bytes:
    """The whole canvas; lost edges broken, ruled squares thin."""
    size = f'width="{width_mm:g}mm" height="{height_mm:g}mm" viewBox="0 0 {width_mm:g} {height_mm:g}"'
    parts = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" version="1.1" {size}>',
        f"<title>{escape(title)}</title>",
        f'<rect width="{width_mm:g}" height="{height_mm:g}" fill="none" stroke="#888888" stroke-width="0.2"/>',
    ]
    if squares is not None:
        ruled = [f"M{x:g} 0V{height_mm:g}" for x in squares.lines_across()] + [
            f"M0 {y:g}H{width_mm:g}" for y in squares.lines_down()
        ]
        parts.append(f'<path id="squares" d={quoteattr("".join(ruled))} fill="none" stroke="#888888" stroke-width="0.2"/>')
    parts.append(
        '<g id="lines" fill="none" stroke="#000000" stroke-width="0.5" stroke-linecap="round" stroke-linejoin="round">'
    )
    for line in lines:
        for path, lost in stretches(line):
            points = " ".join(f"{x:.2f},{y:.2f}" for x, y in path)
            broken = f' stroke-dasharray="{_LOST_MM}"' if lost else ""
            parts.append(f'<polyline points="{points}"{broken}/>')
    parts.append("</g></svg>")
    return "\n".join(parts).encode()
