"""The first thing that runs: what is loaded at the start is not searched for garbage while it is loaded; large memory goes back when freed."""

import ctypes
import gc

_M_MMAP_THRESHOLD = -3  # malloc.h of the GNU C library; mallopt(3)
_OWN_PIECE_BYTES = 4 << 20  # our choice, after days of 1, 4 and no fixed limit


def give_back_large_memory() -> None:
    """Let each large array have a piece of memory of its own, which the system has again as soon as the array is gone.

    The GNU C library otherwise moves that limit up to 32 MB by itself, and pictures leave holes nobody can use: a seventh of a long
    day's memory. On another library nothing happens.
    """
    own = ctypes.CDLL(None)
    if hasattr(own, "mallopt"):
        own.mallopt(_M_MMAP_THRESHOLD, _OWN_PIECE_BYTES)


def main() -> int:
    """Start the application; returns the exit code."""
    give_back_large_memory()
    gc.disable()  # a tenth of a second of the start; `ui.main` turns it on again once the window is there
    # What is loaded before Qt's Python layer is not read a second time by it in search of Qt's names:
    # about 7 % of loading our own modules, medians of twelve starts each.
    import yarrow_lane.desk.desk  # noqa: F401
    from yarrow_lane.ui.main import main as run

    return run()
