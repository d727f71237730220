"""The row of choices above the table, written as a sentence with switches."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QLabel, QPushButton, QWidget

from yarrow_lane.ui.bench_sheet import ChoiceSheet
from yarrow_lane.ui.kit.flow import FlowLayout
from yarrow_lane.ui.theme.lettering import lettering, px


class ChoiceRow(QWidget):
    """Shows a `ChoiceSheet`; `chosen` tells the switch's key and the option's value."""

    chosen = Signal(str, str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("choices")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._row = FlowLayout(px(6), px(44))
        self.setLayout(self._row)
        self._row.setContentsMargins(px(14), 0, px(14), 0)
        self._shape: tuple[object, ...] = ()
        self._buttons: dict[tuple[str, str], QPushButton] = {}
        self._remark = QLabel()

    def show_sheet(self, sheet: ChoiceSheet) -> None:
        """Show what differs from before."""
        shape = tuple((s.key, s.label, s.options) for s in sheet.switches)
        if shape != self._shape:
            self._build(sheet)
            self._shape = shape
        for switch in sheet.switches:
            for value, _ in switch.options:
                self._buttons[switch.key, value].setChecked(value == switch.chosen)
        self._remark.setText(sheet.remark)
        self._remark.setVisible(bool(sheet.remark))

    def button(self, key: str, value: str) -> QPushButton:
        return self._buttons[key, value]

    def _build(self, sheet: ChoiceSheet) -> None:
        while (item := self._row.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.deleteLater()
        self._buttons = {}
        for number, switch in enumerate(sheet.switches):
            if switch.label:
                label = QLabel(switch.label)
                label.setContentsMargins(px(10) if number else 0, 0, 0, 0)
                label.setFont(lettering(14))
                label.setProperty("role", "soft")
                self._row.addWidget(label)
            for value, words in switch.options:
                button = QPushButton(words)
                button.setFont(lettering(14.5))
                button.setCheckable(bool(switch.chosen))
                button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
                button.clicked.connect(lambda _=False, k=switch.key, v=value: self.chosen.emit(k, v))
                self._buttons[switch.key, value] = button
                self._row.addWidget(button)
        self._remark = QLabel()
        self._remark.setContentsMargins(px(10), 0, 0, 0)
        self._remark.setFont(lettering(13.5))
        self._remark.setProperty("role", "soft")
        self._row.addWidget(self._remark)
