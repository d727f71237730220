"""The place in an EXIF block: its GPS directory, and words about the picture that may name it. TIFF 6.0, BigTIFF, EXIF 2.32."""

import struct
from collections.abc import Iterator
from dataclasses import dataclass

_GPS, _EXIF_IFD, _SUB_IFDS = 0x8825, 0x8769, 0x014A
# XMP packet, IPTC, image resources; then title, comment, author's words (in two forms), subject and keywords.
_PACKETS = (0x02BC, 0x83BB, 0x8649)
_WORDS = (0x010E, 0x9286, 0x9C9B, 0x9C9C, 0x9C9E, 0x9C9F)
_SIZES = {1: 1, 2: 1, 3: 2, 4: 4, 5: 8, 6: 1, 7: 1, 8: 2, 9: 4, 10: 8, 11: 4, 12: 8, 13: 4, 16: 8, 17: 8, 18: 8}
_MOST_ENTRIES, _MOST_DIRECTORIES = 500, 40  # our choice: real blocks have a tenth


@dataclass(frozen=True)
class Range:
    """Bytes of the file, and what they are: "gps", "packet" or "words"."""

    start: int
    end: int
    what: str


@dataclass(frozen=True)
class _Entry:
    at: int
    tag: int
    start: int
    end: int
    elsewhere: bool  # its value does not lie in the entry itself


class ExifBlock:
    """A block between `start` and `end` of a file. Nothing outside it is ever read or named."""

    def __init__(self, data: bytes, start: int, end: int) -> None:
        self._data, self._start, self._end = data, start, end
        self._order = "<" if data[start : start + 2] == b"II" else ">"
        self._big = data[start + 2 : start + 4] in (b"+\0", b"\0+")

    def ranges(self) -> list[Range]:
        """What tells or may tell the place; never raises for damage."""
        try:
            return list(self._ranges())
        except struct.error:
            return []

    def _number(self, form: str, at: int) -> int:
        if at < self._start or at + struct.calcsize(form) > self._end:
            raise struct.error
        return int(struct.unpack_from(self._order + form, self._data, at)[0])

    def _offset(self, at: int) -> int:
        return self._start + self._number("Q" if self._big else "I", at)

    def _entries(self, directory: int) -> tuple[list[_Entry], int]:
        """The entries of a directory, and where it tells the next one."""
        count = self._number("Q" if self._big else "H", directory)
        first, size = directory + (8 if self._big else 2), 20 if self._big else 12
        if count > _MOST_ENTRIES:
            raise struct.error
        found = []
        for n in range(count):
            at = first + n * size
            tag, kind = self._number("H", at), self._number("H", at + 2)
            many = self._number("Q" if self._big else "I", at + 4)
            inside = 8 if self._big else 4
            length, value = _SIZES.get(kind, 1) * many, at + size - inside
            elsewhere = length > inside
            start = self._offset(value) if elsewhere else value
            found.append(_Entry(at, tag, start, min(start + length, self._end), elsewhere))
        return found, first + count * size

    def _ranges(self) -> Iterator[Range]:
        waiting = [self._offset(self._start + (8 if self._big else 4))]
        seen: set[int] = set()
        while waiting and len(seen) < _MOST_DIRECTORIES:
            directory = waiting.pop()
            if directory in seen or directory <= self._start:
                continue
            seen.add(directory)
            try:
                entries, following = self._entries(directory)
                waiting.append(self._offset(following))
            except struct.error:
                continue  # a directory that ends early tells nothing that could be read
            for entry in entries:
                if entry.tag == _GPS:
                    yield from self._gps(self._pointer(entry))
                elif entry.tag in (_EXIF_IFD, _SUB_IFDS):
                    waiting.append(self._pointer(entry))
                elif entry.tag in _PACKETS or entry.tag in _WORDS:
                    yield Range(entry.start, entry.end, "packet" if entry.tag in _PACKETS else "words")

    def _pointer(self, entry: _Entry) -> int:
        return self._offset(entry.at + (12 if self._big else 8))

    def _gps(self, directory: int) -> Iterator[Range]:
        try:
            entries, following = self._entries(directory)
        except struct.error:
            return
        if not entries:
            return
        for entry in entries:
            if entry.elsewhere:
                yield Range(entry.start, entry.end, "gps")
        # The count goes too: the directory is then empty, and whatever leads to it leads to nothing.
        yield Range(directory, following, "gps")
