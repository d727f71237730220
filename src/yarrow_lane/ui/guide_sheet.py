"""The guide, laid over the window by F1: chapters at the left, the chosen one beside them; it ships with the program and needs no network."""

from importlib import resources

from PySide6.QtCore import QSize, Qt, QUrl
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QTextDocument
from PySide6.QtWidgets import QHBoxLayout, QListWidget, QTextBrowser, QWidget

from yarrow_lane.ui.theme.lettering import lettering, px

# File of `yarrow_lane/guide`, and what it is called.
CHAPTERS = (
    ("first-portrait", "The first portrait"),
    ("doors", "The doors"),
    ("schools", "The schools"),
    ("printing", "What to print"),
    ("guesses", "What is a guess"),
    ("trouble", "When something goes wrong"),
)


def chapter(name: str) -> str:
    """The text of a chapter (Markdown)."""
    return resources.files("yarrow_lane").joinpath("guide", f"{name}.md").read_text(encoding="utf-8")


class _Pages(QTextBrowser):
    """Pictures come from the guide's own folder, as wide as the text at most."""

    def loadResource(self, kind: int, name: QUrl | str) -> object:
        if kind != QTextDocument.ResourceType.ImageResource.value:
            return super().loadResource(kind, name)
        url = name if isinstance(name, str) else name.toString()
        file = resources.files("yarrow_lane").joinpath("guide", url.rsplit("/", 1)[-1])
        image = QImage.fromData(file.read_bytes()) if file.is_file() else QImage()
        wide = max(120, self.viewport().width() - px(24))
        return image.scaledToWidth(wide, Qt.TransformationMode.SmoothTransformation) if image.width() > wide else image


class GuideSheet(QWidget):
    """Up and down walk the chapters, Esc or a click beside the sheet leaves it."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._window = parent
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.sheet = QWidget(self)
        self.sheet.setObjectName("sheet")
        self.sheet.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self.sheet)
        row.setContentsMargins(px(16), px(16), px(16), px(16))
        self.names = QListWidget()
        self.names.setAccessibleName("Chapters of the guide")
        self.names.setFont(lettering(15))
        self.names.setFixedWidth(px(220))
        self.names.addItems([words for _, words in CHAPTERS])
        self.page = _Pages()
        self.page.setAccessibleName("The guide")
        self.page.setOpenLinks(False)
        self.page.document().setDefaultFont(lettering(15.5))
        row.addWidget(self.names)
        row.addWidget(self.page, 1)
        self.names.currentRowChanged.connect(self._show)
        self.hide()

    def sizeHint(self) -> QSize:
        return self._window.size()

    def show_guide(self) -> None:
        """Open it where it was left."""
        self.setGeometry(self._window.rect())
        self.names.setCurrentRow(max(0, self.names.currentRow()))
        self._show(self.names.currentRow())
        self.raise_()
        self.show()
        self.names.setFocus(Qt.FocusReason.OtherFocusReason)

    def _show(self, row: int) -> None:
        self.page.setMarkdown(chapter(CHAPTERS[row][0]))

    def resizeEvent(self, event: object) -> None:
        wide, high = min(self.width() - px(60), px(1000)), self.height() - px(60)
        self.sheet.setGeometry((self.width() - wide) // 2, px(30), wide, high)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(60, 60, 60, 150))
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.leave()

    def leave(self) -> None:
        """Back to what lies beneath."""
        self.hide()
        self._window.setFocus(Qt.FocusReason.OtherFocusReason)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_F1):
            self.leave()
        event.accept()  # nothing beneath hears a key while it is read


def show_guide(window: QWidget, sheets: list[QWidget]) -> None:
    """Lay it over the window; made when it is first wanted, and then one of its `sheets`."""
    sheet = next((s for s in sheets if isinstance(s, GuideSheet)), None)
    if sheet is None:
        sheet = GuideSheet(window)
        sheets.append(sheet)
    sheet.show_guide()
