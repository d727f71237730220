"""The program's icon in each size, from its drawing: run by hand when the drawing changes."""

import sys
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication, QImage, QPainter
from PySide6.QtSvg import QSvgRenderer

from yarrow_lane.installing import APP_ID
from yarrow_lane.installing.entries import PNG_SIZES

application = QGuiApplication(sys.argv)
folder = Path(__file__).parents[1] / "src" / "yarrow_lane" / "installing" / "files"
drawing = QSvgRenderer(str(folder / f"{APP_ID}.svg"))
for size in PNG_SIZES:
    image = QImage(size, size, QImage.Format.Format_ARGB32)
    image.fill(Qt.GlobalColor.transparent)
    painter = QPainter(image)
    drawing.render(painter)
    painter.end()
    image.save(str(folder / f"{APP_ID}-{size}.png"))
