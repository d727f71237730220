"""What is to be mended, on Check's list and on the last list at Deliver: one list, wherever it is looked at."""

from collections.abc import Sequence
from dataclasses import replace

from yarrow_lane.check.record import MeantSo, ToMend, mend, not_mend, note_seen, refuse
from yarrow_lane.commission.commission import Commission
from yarrow_lane.deliver.handover import done_notes, with_notes, without_notes


def noted(c: Commission, text: str) -> Commission:
    """Something the painter saw. Raises `CheckTrouble` when nothing is written."""
    check = note_seen(c.check, text)
    return replace(c, check=check, deliver=with_notes(c.deliver, check.seen[-1:]))


def listed(c: Commission, line: ToMend) -> Commission:
    """A measured place is to be mended."""
    return replace(c, check=mend(c.check, line), deliver=with_notes(c.deliver, (line.words,)))


def unlisted(c: Commission, line: ToMend) -> Commission:
    """It is not, after all."""
    return replace(c, check=not_mend(c.check, line.words), deliver=without_notes(c.deliver, (line.words,)))


def meant(c: Commission, place: MeantSo) -> Commission:
    """It is meant so, and not to be mended."""
    check = refuse(c.check, place)
    gone = {t.words for t in c.check.to_mend} - {t.words for t in check.to_mend}
    return replace(c, check=check, deliver=without_notes(c.deliver, gone))


def struck(c: Commission, lines: Sequence[ToMend]) -> Commission:
    """What is no longer found is done."""
    words = {t.words for t in lines}
    left = tuple(t for t in c.check.to_mend if t.words not in words)
    return replace(c, check=replace(c.check, to_mend=left), deliver=done_notes(c.deliver, words))


def is_mended(c: Commission, line: ToMend) -> bool:
    """Whether it is done on the last list and no photograph has come since that could show otherwise."""
    return line.found_in == c.check.photo_id and any(x.done and x.text == line.words for x in c.deliver.last_list)


def to_mend_now(c: Commission) -> tuple[ToMend, ...]:
    """What of the measured places is to be mended at the easel, the newest on the list first; done on the last list it waits for the next photograph."""
    done = {line.text for line in c.deliver.last_list if line.done}
    return tuple(t for t in reversed(c.check.to_mend) if t.words not in done)


def mended(c: Commission, line: ToMend) -> Commission:
    """It is done on the last list; Check's own list keeps it until a photograph shows it."""
    return replace(c, deliver=done_notes(c.deliver, (line.words,)))
