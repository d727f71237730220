"""A disk under SQLite that forgets what was not synced and fails when told to: a shim between the library and its files.

Only what a file held at its last sync counts as durable. The interface is that of https://sqlite.org/vfs.html (sqlite3_vfs and
sqlite3_io_methods); the shim keeps the library's own file functions and looks over `xWrite`, `xTruncate` and `xSync`.
"""

import _sqlite3
import ctypes as c
from pathlib import Path

FULL = 13  # SQLITE_FULL
_OPEN = c.CFUNCTYPE(c.c_int, c.c_void_p, c.c_void_p, c.c_void_p, c.c_int, c.c_void_p)
_SYNC = c.CFUNCTYPE(c.c_int, c.c_void_p, c.c_int)
_SIZE = c.CFUNCTYPE(c.c_int, c.c_void_p, c.POINTER(c.c_int64))
_WRITE = c.CFUNCTYPE(c.c_int, c.c_void_p, c.c_void_p, c.c_int, c.c_int64)


class _Vfs(c.Structure):
    """The head of sqlite3_vfs; what follows is kept as it is."""


_Vfs._fields_ = [
    ("version", c.c_int),
    ("file_size", c.c_int),
    ("longest_path", c.c_int),
    ("next", c.c_void_p),
    ("name", c.c_char_p),
    ("data", c.c_void_p),
    ("open", c.c_void_p),
    ("rest", c.c_void_p * 15),
]


class _Methods(c.Structure):
    """sqlite3_io_methods: a version, then functions in the order of the published header."""

    _fields_ = [
        ("version", c.c_int),
        ("close", c.c_void_p),
        ("read", c.c_void_p),
        ("write", c.c_void_p),
        ("truncate", c.c_void_p),
        ("sync", c.c_void_p),
        ("size", c.c_void_p),
        ("rest", c.c_void_p * 12),
    ]


class BadDisk:
    """While it is in place every file SQLite opens lies on it.

    `durable` maps a path to its bytes at the last sync; `room` is how many more writes succeed, None for all of them.
    """

    def __init__(self) -> None:
        self.durable: dict[str, bytes] = {}
        self.syncs = 0
        self.room: int | None = None
        self._library = c.CDLL(_sqlite3.__file__) if _has_symbol(_sqlite3.__file__) else c.CDLL("libsqlite3.so.0")
        self._library.sqlite3_vfs_find.restype = c.POINTER(_Vfs)
        self._library.sqlite3_vfs_find.argtypes = [c.c_char_p]
        self._usual = self._library.sqlite3_vfs_find(None)
        self._vfs = _Vfs.from_buffer_copy(self._usual.contents)
        self._usual_open = _OPEN(self._usual.contents.open)
        self._kept: list[object] = []  # callbacks live as long as the disk
        self._opened = _OPEN(self._open)
        self._vfs.name, self._vfs.open, self._vfs.next = b"bad disk", c.cast(self._opened, c.c_void_p), None

    def __enter__(self) -> "BadDisk":
        assert self._library.sqlite3_vfs_register(c.byref(self._vfs), 1) == 0
        return self

    def __exit__(self, *_: object) -> None:
        self._library.sqlite3_vfs_unregister(c.byref(self._vfs))
        assert self._library.sqlite3_vfs_register(self._usual, 1) == 0

    def crashed(self, before: Path, after: Path) -> Path:
        """A copy of a studio's folder as the disk would show it after power went."""
        after.mkdir(parents=True)
        for name, data in self.durable.items():
            path = Path(name)
            if path.parent == before and path.exists():
                (after / path.name).write_bytes(data)
        return after

    def _open(self, vfs: int, name: int | None, file: int, flags: int, found: int) -> int:
        # The name goes on as the pointer it came as: the library keeps it.
        answer = self._usual_open(c.cast(self._usual, c.c_void_p), name, file, flags, found)
        at = c.cast(file, c.POINTER(c.c_void_p))
        if answer != 0 or not at[0] or name is None:
            return answer
        path = c.string_at(name).decode()
        methods = _Methods.from_buffer_copy(_Methods.from_address(at[0]))
        sync, write, read, size = _SYNC(methods.sync), _WRITE(methods.write), _WRITE(methods.read), _SIZE(methods.size)

        def synced(file: int, flags: int) -> int:
            answer = sync(file, flags)
            self.syncs += 1
            # Read as SQLite reads: a file opened and closed beside it would drop its locks (POSIX).
            length = c.c_int64()
            size(file, c.byref(length))
            data = c.create_string_buffer(max(1, length.value))
            read(file, c.addressof(data), length.value, 0)
            self.durable[path] = data.raw[: length.value]
            return answer

        def written(file: int, data: int, size: int, offset: int) -> int:
            if self.room is not None:
                self.room -= 1
                if self.room < 0:
                    return FULL
            return write(file, data, size, offset)

        mine = _SYNC(synced), _WRITE(written)
        methods.sync, methods.write = (c.cast(m, c.c_void_p) for m in mine)
        self._kept += [methods, mine, sync, write, read, size]
        at[0] = c.addressof(methods)
        return answer


def _has_symbol(path: str) -> bool:
    try:
        return hasattr(c.CDLL(path), "sqlite3_vfs_find")
    except OSError:
        return False
