"""The sheet of keys, laid over the window by "?"."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.actions import keys_for
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours


class KeysSheet(QWidget):
    """Covers the window until a click or any key."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._window = parent
        self._where = ""
        self.hide()

    def show_keys(self, where: str) -> None:
        self._where = where
        self.setGeometry(self._window.rect())
        self.raise_()
        self.show()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.hide()

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        rows = keys_for(self._where)
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(60, 60, 60, 150))
        width, height = px(600), px(84) + px(29) * len(rows)
        sheet = QRectF((self.width() - width) / 2, max(10.0, (self.height() - height) / 2), width, height)
        painter.fillRect(sheet, QColor(c.panel))
        painter.setPen(QPen(QColor(c.soft), 1))
        painter.drawRect(sheet)
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(22, "bold", SERIF))
        painter.drawText(
            sheet.adjusted(px(26), px(16), 0, 0), Qt.AlignmentFlag.AlignTop, f"Keys of {self._where or 'this view'}"
        )
        for n, (keys, words) in enumerate(rows):
            y = sheet.top() + px(60) + n * px(29)
            painter.setFont(lettering(16, "bold"))
            painter.drawText(QRectF(sheet.left() + px(26), y, px(180), px(26)), Qt.AlignmentFlag.AlignVCenter, keys)
            painter.setFont(lettering(16))
            painter.drawText(QRectF(sheet.left() + px(206), y, width - px(220), px(26)), Qt.AlignmentFlag.AlignVCenter, words)
        painter.end()
