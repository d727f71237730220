"""Where Transfer stands: the ways chosen, and what of the drawing is on the canvas."""

from collections.abc import Sequence

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.standing import Act, Standing, Task, stale_words
from yarrow_lane.measure.lengths import Unit, hours_text, length_text
from yarrow_lane.transfer.job import Job
from yarrow_lane.transfer.offers import advised, minutes_for, minutes_of, offer
from yarrow_lane.transfer.record import Transfer, minutes_left, parts_left, squares_of, ways_of
from yarrow_lane.transfer.squares import USUAL_COUNT, Squares
from yarrow_lane.transfer.ways import WHAT_WORDS, Stint, Ways, deed_words


def stand(transfer: Transfer, compose: Compose, job: Job, stints: Sequence[Stint], unit: Unit) -> Standing:
    """Where the room stands; while no way is chosen the drawing is planned with the advised one."""
    if not compose.sized:
        return Standing("", "no way of carrying it over chosen", Act("Go to Compose", "the drawing follows from size and crop"))
    ways = ways_of(transfer)
    if not ways.chosen:
        return _proposed(advised(job, stints), job, stints)
    stale = stale_words(transfer.made_from, reference_key(compose))
    if ways.one == "squares":
        return _squares(transfer, compose, stale, unit)
    left = parts_left(transfer)
    if not left:
        return Standing(f"carried over by {ways.words}", stale=stale)
    minutes = minutes_of(job, ways, stints) if len(left) == 2 else minutes_for(job, ways, left[0], stints)
    way = ways.of(left[0])
    assert way is not None
    about = "the drawing" if ways.one else WHAT_WORDS[left[0]]
    now = minutes if ways.one else minutes_for(job, ways, left[0], stints)
    detail = f"about {hours_text(now)}" + (
        f" · then {WHAT_WORDS[left[1]]} by {ways.details}" if len(left) == 2 and not ways.one else ""
    )
    wants = f"{' and '.join(WHAT_WORDS[what] for what in left)} to carry over"
    return Standing(
        ways.words, wants, Act(deed_words(way, about), detail, now), (Task("carry the drawing over", minutes),), stale=stale
    )


def _proposed(best: Ways, job: Job, stints: Sequence[Stint]) -> Standing:
    minutes = minutes_of(job, best, stints)
    wants, task = "no way of carrying it over chosen", (Task("carry the drawing over", minutes),)
    reach = f"{offer(best.one, job, stints).reach}, " if best.one is not None else ""
    return Standing("", wants, Act(f"Carry it over by {best.words}", f"{reach}about {hours_text(minutes)}", minutes), task)


def _squares(transfer: Transfer, compose: Compose, stale: str, unit: Unit) -> Standing:
    squares = squares_of(compose, transfer)
    if squares is None:
        guess = Squares(compose.width_mm, compose.height_mm, USUAL_COUNT)
        minutes = minutes_left(guess, transfer)
        words = f"{len(guess.all)} squares, about {hours_text(minutes)}"
        act = Act(f"Take {guess.columns} × {guess.rows} squares", words, minutes)
        return Standing("squares", "no squares chosen", act, (Task("draw the squares", minutes),), stale=stale)
    total, drawn = len(squares.all), len(transfer.drawn)
    lattice = f"{squares.columns} × {squares.rows} squares, {length_text(squares.side_mm, unit)}"
    if drawn == total:
        return Standing(lattice, stale=stale)
    minutes = minutes_left(squares, transfer)
    task = (Task("draw the squares", minutes),)
    if drawn == 0:
        act = Act("Draw the first square", f"rule the lines first · {total} squares, about {hours_text(minutes)}", minutes)
        return Standing(lattice, f"{total} squares to draw", act, task, stale=stale)
    act = Act("Draw the next square", f"{drawn} of {total} done · about {hours_text(minutes)} left", minutes)
    return Standing(f"{drawn} of {total} squares drawn", f"{total - drawn} squares to draw", act, task, stale=stale)
