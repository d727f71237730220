"""The style sheet, made from a theme's colours."""

from PySide6.QtWidgets import QApplication

from yarrow_lane.ui.theme.colours import DAY, EVENING, SURROUND, Colours
from yarrow_lane.ui.theme.lettering import lettering, px, set_text_percent

_current = DAY


def colours() -> Colours:
    """The theme now worn."""
    return _current


def wear(application: QApplication, evening: bool, text_percent: int) -> None:
    """Put the theme on the whole application."""
    global _current
    _current = EVENING if evening else DAY
    set_text_percent(text_percent)
    application.setFont(lettering())
    sheet = style_sheet(_current)
    if application.styleSheet() != sheet:  # every widget there is would be polished again
        application.setStyleSheet(sheet)


def style_sheet(c: Colours) -> str:
    """Flat, thin rules, nearly square corners; no shadows."""
    return f"""
    * {{ color: {c.text}; }}
    QMainWindow, #bench, #header, #choices, #bench QWidget#lines, QScrollArea {{ background: {c.panel}; border: none; }}
    #header {{ border-bottom: 1px solid {c.rule}; }}
    #choices {{ border-bottom: 1px solid {c.rule}; }}
    #bench {{ border-left: 1px solid {c.rule}; }}
    #lane {{ background: {c.lane}; border-right: 1px solid {c.rule}; }}
    #table {{ background: {SURROUND}; }}
    #message {{ background: {c.field}; border-top: 2px solid {c.rule}; }}
    #message[tone="wrong"] {{ border-top: 2px solid {c.wrong}; }}
    #sheet {{ background: {c.panel}; border: 1px solid {c.soft}; }}
    QTreeWidget {{ background: {c.field}; border: 1px solid {c.rule}; outline: none;
        selection-background-color: {c.chosen}; selection-color: {c.on_chosen}; }}
    QListWidget, QTextBrowser {{ background: {c.field}; border: 1px solid {c.rule}; outline: none; padding: {px(6)}px; }}
    QListWidget::item {{ padding: {px(6)}px {px(8)}px; }}
    QListWidget::item:selected {{ background: {c.chosen}; color: {c.on_chosen}; }}
    QTreeWidget::item {{ padding: {px(4)}px {px(8)}px; }}
    QTreeWidget::item:selected {{ background: {c.chosen}; color: {c.on_chosen}; }}
    QHeaderView::section {{ background: {c.panel}; color: {c.soft}; border: none; padding: {px(3)}px {px(8)}px; }}
    QLabel {{ background: transparent; }}
    QLabel[role="soft"] {{ color: {c.soft}; }}
    QLabel[role="head"] {{ color: {c.soft}; font-weight: bold; }}
    QLabel[tone="wrong"] {{ color: {c.wrong}; }}
    QLabel[tone="good"] {{ color: {c.holds}; }}
    QFrame[role="rule"] {{ background: {c.rule}; border: none; max-height: 1px; min-height: 1px; }}
    QPushButton {{ background: {c.field}; border: 1px solid {c.soft}; border-radius: 3px; padding: {px(4)}px {px(11)}px; }}
    QPushButton:hover {{ border-color: {c.text}; }}
    QPushButton:focus {{ border: 2px solid {c.here_edge}; padding: {px(3)}px {px(10)}px; }}
    QPushButton:disabled {{ color: {c.soft}; border-color: {c.rule}; background: {c.panel}; }}
    QPushButton:checked {{ background: {c.chosen}; color: {c.on_chosen}; border-color: {c.chosen}; }}
    QPushButton#act {{ background: {c.here}; border: 1px solid {c.here_edge}; border-radius: 3px; text-align: left; }}
    QPushButton#act:disabled {{ background: {c.paper}; border-color: {c.rule}; }}
    QWidget[pointed="yes"] {{ border-bottom: {px(3)}px solid {c.here}; }}
    QPushButton[role="tick"] {{ text-align: left; border: none; padding: 3px 0; background: transparent; }}
    QPushButton[role="tick"]:focus {{ border-left: {px(4)}px solid {c.here_edge}; padding: 3px 0 3px {px(4)}px; }}
    QPushButton[pointed="yes"] {{ border: 2px solid {c.here_edge}; }}
    QLabel[role="act"] {{ color: {c.on_here}; }}
    QLabel[role="act off"] {{ color: {c.soft}; }}
    QLineEdit, QPlainTextEdit, QDoubleSpinBox, QComboBox {{
        background: {c.field}; border: 1px solid {c.rule}; border-radius: 2px; padding: {px(3)}px {px(6)}px;
        selection-background-color: {c.chosen}; selection-color: {c.on_chosen}; }}
    QLineEdit:focus, QPlainTextEdit:focus, QDoubleSpinBox:focus, QComboBox:focus {{
        border: 1px solid {c.here_edge}; }}
    QDoubleSpinBox::up-button, QDoubleSpinBox::down-button {{ width: 0; height: 0; border: none; }}
    QComboBox::drop-down {{ border: none; width: {px(20)}px; }}
    QComboBox::down-arrow {{ image: none; }}
    QComboBox QAbstractItemView {{ background: {c.field}; selection-background-color: {c.chosen};
        selection-color: {c.on_chosen}; }}
    QScrollBar:vertical {{ background: {c.panel}; width: 10px; margin: 0; }}
    QScrollBar::handle:vertical {{ background: {c.rule}; min-height: 30px; border-radius: 3px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ height: 0; width: 0; }}
    QScrollBar:horizontal {{ background: {c.panel}; height: 10px; margin: 0; }}
    QScrollBar::handle:horizontal {{ background: {c.rule}; min-width: 30px; border-radius: 3px; }}
    QToolTip {{ background: {c.field}; color: {c.text}; border: 1px solid {c.soft}; }}
    """
