"""What this machine's settings say of writing."""

from PySide6.QtCore import QLocale

from yarrow_lane.measure.dates import Order


def local_order() -> Order:
    """The order of day, month and year in numbers."""
    letters = [letter for letter in QLocale().dateFormat(QLocale.FormatType.ShortFormat).lower() if letter in "dmy"]
    order = "".join(dict.fromkeys(letters))
    return "mdy" if order == "mdy" else "ymd" if order == "ymd" else "dmy"
