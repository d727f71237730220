"""Pictures side by side or above each other, each under its name."""

from collections.abc import Sequence

from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px


class Heads(QWidget):
    """A column for each view, seen while its view is."""

    def __init__(self, views: Sequence[PictureView]) -> None:
        super().__init__()
        self.setObjectName("table")
        self.layout_of_views: QBoxLayout = QHBoxLayout(self)
        self.layout_of_views.setContentsMargins(0, 0, 0, 0)
        self.layout_of_views.setSpacing(0)
        self._names: list[PlainLabel] = []
        self._columns: list[QWidget] = []
        for view in views:
            holder, name = QWidget(), PlainLabel()
            column = QVBoxLayout(holder)
            column.setContentsMargins(0, 0, 0, 0)
            column.setSpacing(0)
            name.setFont(lettering(14, "bold"))
            name.setStyleSheet(f"color: {INK}; background: {SURROUND}; padding: {px(8)}px 0 0 {px(18)}px")
            # Columns are equally wide, whatever their names.
            name.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
            column.addWidget(name)
            column.addWidget(view, 1)
            self.layout_of_views.addWidget(holder, 1)
            self._columns.append(holder)
            self._names.append(name)

    def say(self, *names: str) -> None:
        """The names, in the order of the views; a view without a name is not shown."""
        for holder, label, name in zip(self._columns, self._names, names, strict=True):
            label.setText(name)
            holder.setVisible(bool(name))
