"""Messages between window and worker: a pickle over a socket, large arrays beside it in shared memory without a name.

A memory file (memfd_create, Linux) is handed over with the message and vanishes with its last holder: nothing is left behind when a
process dies, which named blocks would be.
"""

import mmap
import os
import pickle
import socket
from typing import Any

_LARGE_BYTES = 65_536  # our choice: smaller arrays travel in the pickle
_LENGTH = 8
_PIECE_S = 30.0  # our choice: the rest of a message that has begun comes at once unless its process hangs
_MOST_FILES = 16


class Wire:
    """One end of the connection; one thread reads, one writes."""

    def __init__(self, end: socket.socket) -> None:
        self._end = end
        end.settimeout(_PIECE_S)

    def fileno(self) -> int:
        return self._end.fileno()

    def send(self, message: object) -> None:
        """Raises OSError when the other end is gone."""
        large: list[memoryview] = []

        def aside(buffer: pickle.PickleBuffer) -> bool:
            raw = buffer.raw()
            if raw.nbytes < _LARGE_BYTES or len(large) >= _MOST_FILES:
                return True
            large.append(raw)
            return False

        data = pickle.dumps(message, protocol=5, buffer_callback=aside)
        files = [_filled(raw) for raw in large]
        try:
            head = len(data).to_bytes(_LENGTH, "big")
            if files:
                socket.send_fds(self._end, [head], files)
            else:
                self._end.sendall(head)
            self._end.sendall(data)
        finally:
            for file in files:
                os.close(file)

    def receive(self) -> Any:
        """Wait for a message; raises EOFError when the other end is gone. Arrays in it lie in memory of their own."""
        head, files, _, _ = socket.recv_fds(self._end, _LENGTH, _MOST_FILES)
        head += self._exactly(_LENGTH - len(head)) if head else b""
        if not head:
            raise EOFError
        data = self._exactly(int.from_bytes(head, "big"))
        return pickle.loads(data, buffers=[_mapped(file) for file in files])

    def _exactly(self, count: int) -> bytes:
        found = bytearray()
        while len(found) < count:
            piece = self._end.recv(min(count - len(found), 1 << 20))
            if not piece:
                raise EOFError
            found += piece
        return bytes(found)

    def close(self) -> None:
        self._end.close()


def _filled(raw: memoryview) -> int:
    file = os.memfd_create("yarrow-lane")
    os.ftruncate(file, raw.nbytes)
    with mmap.mmap(file, raw.nbytes) as memory:
        memory[:] = raw
    return file


def _mapped(file: int) -> mmap.mmap:
    """The memory of a file that was handed over; it lives as long as the array that lies in it."""
    try:
        return mmap.mmap(file, os.fstat(file).st_size)
    finally:
        os.close(file)


def pair() -> tuple[socket.socket, socket.socket]:
    """Two connected ends."""
    return socket.socketpair(socket.AF_UNIX, socket.SOCK_STREAM)
