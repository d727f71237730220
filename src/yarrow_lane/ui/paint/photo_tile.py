"""One photograph as a card: the picture, the eyes close up, its facts and its use."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QImage, QPainter

from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


@dataclass(frozen=True)
class TilePaint:
    """What the card shows; images may still be on their way."""

    name: str
    use: str
    lines: tuple[str, ...]
    share: float
    mood: str
    image: QImage | None
    eyes: tuple[QImage | None, ...]


def cover(rect: QRectF, image: QImage) -> QRectF:
    """The middle part of the image that fills `rect` without stretching."""
    scale = max(rect.width() / image.width(), rect.height() / image.height())
    width, height = rect.width() / scale, rect.height() / scale
    return QRectF((image.width() - width) / 2, (image.height() - height) / 3, width, height)


def paint_tile(painter: QPainter, rect: QRectF, tile: TilePaint) -> None:
    """Draw the card into `rect`."""
    c = colours()
    painter.fillRect(rect, QColor(c.panel))
    facts_h = px(58)
    foot_h = px(34)
    picture = QRectF(rect.x(), rect.y(), rect.width(), rect.height() - facts_h - foot_h)
    if tile.image is None:
        painter.fillRect(picture, QColor("#9a9a9a"))
    else:
        painter.drawImage(picture, tile.image, cover(picture, tile.image))
    if tile.use == "set aside":
        painter.fillRect(picture, QColor(241, 241, 241, 150))
    x = rect.x()
    for eye in tile.eyes:
        box = QRectF(x, picture.bottom(), facts_h, facts_h)
        if eye is not None:
            painter.drawImage(box, eye, cover(box, eye))
        x += facts_h + 1
    text_x = x + px(8)
    painter.setPen(QColor(c.text))
    font = lettering(13)
    painter.setFont(font)
    metrics = QFontMetricsF(font)
    for n, line in enumerate(tile.lines[:3]):
        shown = metrics.elidedText(line, Qt.TextElideMode.ElideRight, rect.right() - text_x - px(4))
        painter.drawText(QPointF(text_x, picture.bottom() + px(16) + n * px(17)), shown)
    _paint_foot(painter, QRectF(rect.x(), rect.bottom() - foot_h, rect.width(), foot_h), tile)


def _paint_foot(painter: QPainter, foot: QRectF, tile: TilePaint) -> None:
    c = colours()
    bold, plain = lettering(14, "bold"), lettering(14)
    use = tile.use
    use_w = QFontMetricsF(plain).horizontalAdvance(use)
    painter.setFont(plain)
    painter.setPen(QColor(c.text))
    middle = Qt.AlignmentFlag.AlignVCenter
    painter.drawText(foot.adjusted(0, 0, -px(10), 0), middle | Qt.AlignmentFlag.AlignRight, use)
    name_w = foot.width() * 0.42
    painter.setFont(bold)
    name = QFontMetricsF(bold).elidedText(tile.name, Qt.TextElideMode.ElideMiddle, name_w)
    painter.drawText(foot.adjusted(px(10), 0, 0, 0), middle | Qt.AlignmentFlag.AlignLeft, name)
    left = foot.x() + px(20) + min(name_w, QFontMetricsF(bold).horizontalAdvance(name))
    bar = QRectF(left, foot.center().y() - px(3), foot.right() - use_w - px(20) - left, px(7))
    if bar.width() > px(16):
        painter.fillRect(bar, QColor(c.rule))
        colour = {"good": c.holds, "wrong": c.wrong}.get(tile.mood, c.soft)
        painter.fillRect(QRectF(bar.x(), bar.y(), bar.width() * tile.share, bar.height()), QColor(colour))
