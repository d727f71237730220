"""Where Transfer stands: the squares chosen, and how many of them are drawn."""

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.standing import Act, Standing, Task, stale_words
from yarrow_lane.measure.lengths import Unit, hours_text, length_text
from yarrow_lane.transfer.record import Transfer, minutes_left, squares_of
from yarrow_lane.transfer.squares import USUAL_COUNT, Squares


def stand(transfer: Transfer, compose: Compose, unit: Unit) -> Standing:
    """Where the room stands; the drawing is planned with the usual count while none is chosen."""
    if not compose.sized:
        return Standing("", "no squares chosen", Act("Go to Compose", "the squares follow from size and crop"))
    squares = squares_of(compose, transfer)
    if squares is None:
        guess = Squares(compose.width_mm, compose.height_mm, USUAL_COUNT)
        minutes = minutes_left(guess, transfer)
        words = f"{len(guess.all)} squares, about {hours_text(minutes)}"
        act = Act(f"Take {guess.columns} × {guess.rows} squares", words, minutes)
        return Standing("", "no squares chosen", act, (Task("draw the squares", minutes),))
    total, drawn = len(squares.all), len(transfer.drawn)
    stale = stale_words(transfer.made_from, reference_key(compose))
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
