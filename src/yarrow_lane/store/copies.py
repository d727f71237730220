"""Copies of the studio's file: made whole, looked over, kept for as long as they may be wanted."""

import sqlite3
from collections.abc import Iterable
from contextlib import closing
from dataclasses import dataclass, replace
from datetime import date, datetime, time
from pathlib import Path

from yarrow_lane.store.parts import Parts
from yarrow_lane.store.schema import NEWEST, schema_number
from yarrow_lane.store.sql import Sql, connect_unchanging
from yarrow_lane.store.things import sync
from yarrow_lane.store.trouble import Damaged, StoreTrouble, disk_trouble
from yarrow_lane.store.versions import Versions

PLACE = "backups"
_STUDIO = "studio"
# Our choice: each day of a week, the last of each week for a month, the last of each month for a year.
_DAYS, _WEEKS, _MONTHS = 7, 4, 12


@dataclass(frozen=True)
class Copy:
    """One copy as it was found. `day` is None when its name tells none; `why` says in words why it is not sound.

    `commissions` and `happenings` only grow in a studio: by them it is seen which of two copies holds more.
    """

    path: Path
    at: datetime | None
    sound: bool
    why: str = ""
    commissions: int = 0
    happenings: int = 0

    @property
    def day(self) -> date | None:
        return _day_of(self.path)

    def holds_all_of(self, other: "Copy") -> bool:
        """Whether it is sound and no emptier than the other."""
        return self.sound and self.commissions >= other.commissions and self.happenings >= other.happenings


def copies_in(folder: Path) -> tuple[Path, ...]:
    """The copies of a studio, the newest first."""
    return tuple(sorted((folder / PLACE).glob("*.db"), key=_made_at, reverse=True))


def _made_at(path: Path) -> float:
    """Seconds since 1970: the end of the day its name tells, else when it was written."""
    day = _day_of(path)
    try:
        if day is not None:
            return datetime.combine(day, time.max).timestamp()
        return path.stat().st_mtime
    except (OSError, OverflowError, ValueError):
        return 0.0


def _day_of(path: Path) -> date | None:
    try:
        return date.fromisoformat(path.stem)
    except ValueError:
        return None


def look_at(path: Path, whole: bool) -> Copy:
    """What a file holds and whether it is sound: SQLite's quick check; with `whole` every part shown is read against its hash."""
    try:
        at = datetime.fromtimestamp(path.stat().st_mtime).astimezone()
        with closing(connect_unchanging(path)) as sql:
            return _looked_over(sql, path, at, whole)
    except (OSError, OverflowError, ValueError) as error:
        return Copy(path, None, False, str(error))
    except Damaged:
        return Copy(path, at, False, "it is damaged")
    except StoreTrouble as trouble:
        return Copy(path, at, False, trouble.why)


def _looked_over(sql: Sql, path: Path, at: datetime, whole: bool) -> Copy:
    number = schema_number(sql)
    if number > NEWEST:
        return Copy(path, at, False, "a newer Yarrow Lane wrote it")
    if number == 0 or not sql.execute("SELECT count(*) FROM head").fetchone()[0]:
        return Copy(path, at, False, "it is empty")
    commissions = sql.execute("SELECT count(*) FROM head WHERE document <> ?", (_STUDIO,)).fetchone()[0]
    happenings = sql.execute("SELECT count(*) FROM happening").fetchone()[0]
    why = "" if quickly_sound(sql) else "SQLite's own check finds damage in it"
    if not why and whole and number == NEWEST:
        why = _unread(sql)
    return Copy(path, at, not why, why, commissions, happenings)


def quickly_sound(sql: sqlite3.Connection) -> bool:
    """SQLite's quick check. Raises `StoreTrouble` when the file cannot be read at all."""
    return bool(sql.execute("PRAGMA quick_check(1)").fetchone() == ("ok",))


def _unread(sql: Sql) -> str:
    """Which document cannot be read; empty when all can."""
    parts = Parts(sql)
    versions = Versions(sql, parts)
    for document, number in versions.heads().items():
        try:
            for part in versions.parts(document, number).values():
                parts.text(part)
        except StoreTrouble as trouble:
            return f"{document}: {trouble.why}"
    return ""


def write_copy(sql: Sql, path: Path) -> Copy:
    """A whole copy by SQLite's online backup: written beside, looked over, then renamed. Raises `StoreTrouble`."""
    beside = path.with_name(path.name + ".part")
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        beside.unlink(missing_ok=True)
        with closing(sqlite3.connect(beside)) as copy:
            sql.backup(copy)
            copy.execute("PRAGMA journal_mode = DELETE")  # one file by itself, readable where nothing may be written
        found = look_at(beside, whole=False)
        if not found.sound:
            raise StoreTrouble("The copy of the studio was not kept", found.why, "look whether the disk is in order")
        sync(beside)
        beside.replace(path)
        sync(path.parent)
        return replace(found, path=path)
    except (sqlite3.Error, OSError) as error:
        raise disk_trouble(error, path.parent.parent) from error


def keepers(days: Iterable[date]) -> dict[date, date]:
    """For every day that has a copy the day whose copy stands for it from now on: itself where it is kept."""
    found = sorted(set(days), reverse=True)
    kept = set(found[:_DAYS])
    for span, most in ((_week, _WEEKS), (_month, _MONTHS)):
        last_of: dict[object, date] = {}
        for day in found:
            last_of.setdefault(span(day), day)
        kept |= set(list(last_of.values())[:most])
    stands = {}
    for day in found:
        later = [k for k in kept if k >= day]
        stands[day] = min(later)  # there always is one: the newest is kept
    return stands


def _week(day: date) -> object:
    return day.isocalendar()[:2]


def _month(day: date) -> object:
    return (day.year, day.month)


def thin(folder: Path) -> None:
    """Give up daily copies that are too many; never a sound one for one that is unsound or holds less. Raises `StoreTrouble`."""
    dated = {day: path for path in copies_in(folder) if (day := _day_of(path))}
    for day, keeper in keepers(dated).items():
        if keeper == day:
            continue
        going = look_at(dated[day], whole=False)
        if not going.sound or look_at(dated[keeper], whole=False).holds_all_of(going):
            try:
                dated[day].unlink(missing_ok=True)
            except OSError as error:
                raise disk_trouble(error, folder) from error


def newest_day(copies: Iterable[Path]) -> date | None:
    """The day of the newest of them that has one."""
    return max((day for path in copies if (day := _day_of(path))), default=None)


def oldest_day(folder: Path) -> date | None:
    """The day of the oldest copy."""
    return min((day for path in copies_in(folder) if (day := _day_of(path))), default=None)
