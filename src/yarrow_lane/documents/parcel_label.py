"""The label on the parcel: 100 x 150 mm, the two addresses, weight and size, and the courier's number in bars (ISO/IEC 15417, Code 128)."""

from dataclasses import dataclass

from reportlab.graphics.barcode.code128 import Code128

from yarrow_lane.documents.paper import begun_pdf, fitted, font, points, wrapped

SIZE_MM = (100.0, 150.0)
_EDGE_MM = 7.0


@dataclass(frozen=True)
class Label:
    """What it says."""

    courier: str
    tracking: str
    to: tuple[str, ...]
    sender: tuple[str, ...]
    measures: str
    weight: str
    fragile: bool = True


def parcel_label(label: Label) -> bytes:
    """Its PDF; long lines are broken, what has no room is cut with an ellipsis."""
    buffer, pdf = begun_pdf(f"Parcel {label.tracking}", SIZE_MM)
    left, width = points(_EDGE_MM), points(SIZE_MM[0] - 2 * _EDGE_MM)
    y = points(SIZE_MM[1] - _EDGE_MM)

    def write(text: str, size: float, bold: bool = False) -> None:
        nonlocal y
        face = font("Bold" if bold else "Regular")
        for line in wrapped(text, face, size, width)[:2]:
            y -= size * 1.25
            pdf.setFont(face, size)
            pdf.drawString(left, y, fitted(line, face, size, width))

    write("from " + ", ".join(label.sender), 8)
    y -= 10
    write("to", 8)
    for n, line in enumerate(label.to[:6]):
        write(line, 17 if n == 0 else 14, n == 0)
    y = points(66)
    pdf.line(left, y, left + width, y)
    write(f"{label.measures} · {label.weight}", 12, True)
    if label.fragile:
        write("PAINTING · THIS SIDE UP · DO NOT BEND", 12, True)
    bars = Code128(label.tracking, barHeight=points(18), barWidth=1.1, humanReadable=False)
    bars.drawOn(pdf, left - bars.lquiet, points(18))
    y = points(16)
    write(f"{label.courier} {label.tracking}", 11)
    pdf.showPage()
    pdf.save()
    return buffer.getvalue()
