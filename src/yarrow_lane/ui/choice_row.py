"""The row of choices above the table, written as a sentence with switches."""

from typing import Any

from PySide6.QtCore import QEvent, Qt
from PySide6.QtWidgets import QPushButton, QWidget

from yarrow_lane.ui.bench_editors import Hand
from yarrow_lane.ui.bench_sheet import ChoiceSheet, Switch
from yarrow_lane.ui.kit.flow import FlowLayout
from yarrow_lane.ui.kit.plain import PlainLabel, on_button
from yarrow_lane.ui.theme.lettering import lettering, px

# After these a button or label may be of another size.
_RESIZING = {
    QEvent.Type.LayoutRequest, QEvent.Type.StyleChange, QEvent.Type.FontChange, QEvent.Type.Polish, QEvent.Type.PolishRequest,
    QEvent.Type.Show, QEvent.Type.ChildAdded, QEvent.Type.ChildRemoved, QEvent.Type.ChildPolished,
}  # fmt: skip


class ChoiceRow(QWidget):
    """Shows a `ChoiceSheet`; a pressed option is handed to what its switch says it means."""

    def __init__(self, hand: Hand) -> None:
        super().__init__()
        self._hand = hand
        self._row = FlowLayout(px(6), px(44))
        self.setObjectName("choices")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setLayout(self._row)
        self._row.setContentsMargins(px(14), 0, px(14), 0)
        self._shape: tuple[object, ...] = ()
        self._switches: tuple[Switch, ...] = ()
        self._buttons: dict[tuple[int, Any], QPushButton] = {}
        self.remark = PlainLabel()

    def show_sheet(self, sheet: ChoiceSheet) -> None:
        """Show what differs from before."""
        self._switches = sheet.switches
        shape = tuple((s.label, s.options) for s in sheet.switches)
        if shape != self._shape:
            self._build(sheet)
            self._shape = shape
        for number, switch in enumerate(sheet.switches):
            for value, _ in switch.options:
                self._buttons[number, value].setChecked(value == switch.chosen)
        self.remark.setText(sheet.remark)
        self.remark.setVisible(bool(sheet.remark))
        self._row.forget()

    def event(self, event: QEvent) -> bool:
        if event.type() in _RESIZING:
            self._row.forget()
        return super().event(event)

    def button(self, words: str, of: str = "") -> QPushButton:
        """The button with those words, of the switch with that label where several have them; raises KeyError."""
        for (number, _), button in self._buttons.items():
            if button.text() == on_button(words) and of in ("", self._switches[number].label):
                return button
        raise KeyError(words)

    def _press(self, number: int, value: Any) -> None:
        switch = self._switches[number]
        self._hand(lambda: switch.edit(value))
        for other, _ in switch.options:  # a refused choice goes back to what is on record
            if (number, other) in self._buttons and number < len(self._switches):
                self._buttons[number, other].setChecked(other == self._switches[number].chosen)

    def _build(self, sheet: ChoiceSheet) -> None:
        while (item := self._row.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self._buttons = {}
        for number, switch in enumerate(sheet.switches):
            self._row.begin_group()
            if switch.label:
                label = PlainLabel(switch.label)
                label.setContentsMargins(px(10) if number else 0, 0, 0, 0)
                label.setFont(lettering(14))
                label.setProperty("role", "soft")
                self._row.addWidget(label)
            for value, words in switch.options:
                button = QPushButton(on_button(words))
                button.setFont(lettering(14.5))
                button.setCheckable(switch.chosen is not None)
                button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
                button.clicked.connect(lambda _=False, n=number, v=value: self._press(n, v))
                self._buttons[number, value] = button
                self._row.addWidget(button)
        self._row.begin_group()
        self.remark = PlainLabel()
        self.remark.setContentsMargins(px(10), 0, 0, 0)
        self.remark.setFont(lettering(13.5))
        self.remark.setProperty("role", "soft")
        self._row.addWidget(self.remark)
