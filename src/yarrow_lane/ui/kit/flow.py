"""A row that goes on in the next line when it is too narrow."""

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem


class FlowLayout(QLayout):
    """Lays its items left to right with `gap` px between, `line_px` high each line.

    Items added after `begin_group` stay together in one line where a line is wide enough for them, else they begin one.
    """

    def __init__(self, gap: int, line_px: int) -> None:
        super().__init__()
        self._gap, self._line_px = gap, line_px
        self._items: list[QLayoutItem] = []
        self._groups: list[int] = []  # the place of each group's first item
        self._heights: dict[int, int] = {}  # by width: Qt asks some hundred times for one showing

    def begin_group(self) -> None:
        """What is added from now on belongs together."""
        self._groups.append(len(self._items))
        self._heights.clear()

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)
        self._heights.clear()

    def forget(self) -> None:
        """An item may have another size: heights are worked out anew. Told by whoever owns the items."""
        self._heights.clear()

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        if not 0 <= index < len(self._items):
            return None
        self._groups = [g - (g > index) for g in self._groups] if len(self._items) > 1 else []
        self._heights.clear()
        return self._items.pop(index)

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        if width not in self._heights:
            self._heights[width] = self._lay(QRect(0, 0, width, 0), place=False)
        return self._heights[width]

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        widest = max((i.sizeHint().width() for i in self._items), default=0)
        m = self.contentsMargins()
        return QSize(widest + m.left() + m.right(), self._line_px)

    def setGeometry(self, rect: QRect) -> None:
        super().setGeometry(rect)
        self._lay(rect, place=True)

    def _lay(self, rect: QRect, place: bool) -> int:
        m = self.contentsMargins()
        x, y = rect.x() + m.left(), rect.y()
        for place_in, item in enumerate(self._items):
            if item.isEmpty():  # a hidden widget takes no room
                continue
            size = item.sizeHint()
            # A group wider than a line begins one: its label does not stay behind.
            wide = self._width_of_group(place_in) if place_in in self._groups else size.width()
            if x + wide > rect.right() - m.right() and x > rect.x() + m.left():
                x, y = rect.x() + m.left(), y + self._line_px
            if place:
                item.setGeometry(QRect(QPoint(x, y + (self._line_px - size.height()) // 2), size))
            x += size.width() + self._gap
        return y - rect.y() + self._line_px

    def _width_of_group(self, first: int) -> int:
        end = min((g for g in self._groups if g > first), default=len(self._items))
        wide = [i.sizeHint().width() for i in self._items[first:end] if not i.isEmpty()]
        return sum(wide) + self._gap * max(0, len(wide) - 1)
