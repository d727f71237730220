"""Calling the painter: a soft ring if wished, and the desktop's notification when another window is in front."""

import shutil
from functools import cache
from pathlib import Path

from PySide6.QtCore import QProcess

_RING = Path(__file__).parent / "ring.wav"
_PLAYERS = (("pw-play",), ("paplay",), ("aplay", "-q"))
_NOTIFY_MS = 8000


def call_over(words: str, ring: bool, in_front: bool) -> None:
    """Say it once; a machine without sound or notifications stays quiet, for the words stand at the easel anyway."""
    if ring:
        player = _player()
        if player:
            QProcess.startDetached(player[0], [*player[1:], str(_RING)])
    if not in_front:
        command = notify_command(words)
        if command:
            QProcess.startDetached(command[0], command[1:])


@cache
def _player() -> tuple[str, ...]:
    return next((p for p in _PLAYERS if shutil.which(p[0])), ())


def notify_command(words: str) -> list[str]:
    """How this desktop is told (org.freedesktop.Notifications); [] where it cannot be."""
    if shutil.which("notify-send"):
        return ["notify-send", "--app-name=Yarrow Lane", f"--expire-time={_NOTIFY_MS}", "At the easel", words]
    if shutil.which("gdbus"):
        name = "org.freedesktop.Notifications"
        arguments = ["Yarrow Lane", "0", "", "At the easel", words, "[]", "{}", str(_NOTIFY_MS)]
        return [
            "gdbus", "call", "--session", "--dest", name, "--object-path", "/org/freedesktop/Notifications", "--method", f"{name}.Notify", *arguments,
        ]  # fmt: skip
    return []
