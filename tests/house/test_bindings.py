"""The Qt bindings must not lose references: one release did, and the process ended after some hundred signals."""

import sys

from PySide6.QtCore import QObject, Signal

TIMES = 200


class _Speaker(QObject):
    said = Signal(object)


def test_signals_give_back_what_they_took(qapp):
    speaker = _Speaker()
    heard = []
    speaker.said.connect(heard.append)
    before = [sys.getrefcount(thing) for thing in (True, False, None)]
    for _ in range(TIMES):
        speaker.said.emit(speaker)
    after = [sys.getrefcount(thing) for thing in (True, False, None)]
    assert len(heard) == TIMES
    assert all(a - b > -TIMES / 2 for a, b in zip(after, before, strict=True))
