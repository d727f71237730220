"""What every way shows on the bench: what it takes, taking it, and that a part is on the canvas."""

from typing import TYPE_CHECKING

from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.offers import Offer, guessed_minutes, offer
from yarrow_lane.transfer.record import TRANSFER, mark_carried, not_carried, parts_left, set_ways, ways_of
from yarrow_lane.transfer.ways import WHAT, WHAT_WORDS, Stint, Way, Ways, What
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Meaning, NextAct, Note, Press, Section

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

_MOST_MINUTES = 6000


def parts_by(page: "TransferPage", way: Way) -> tuple[What, ...]:
    """What is still to be carried over by that way."""
    transfer = page.commission.transfer
    ways = ways_of(transfer)
    return tuple(what for what in parts_left(transfer) if ways.of(what) == way)


def is_carried(page: "TransferPage", way: Way) -> bool:
    """Whether it was taken and all it carries is on the canvas."""
    ways = ways_of(page.commission.transfer)
    return way in (ways.outline, ways.details) and not parts_by(page, way)


def about_words(whats: tuple[What, ...]) -> str:
    """ "the drawing", "the outline"."""
    return "the drawing" if len(whats) == len(WHAT) else WHAT_WORDS[whats[0]] if whats else ""


def offer_for(page: "TransferPage", way: Way, whats: tuple[What, ...]) -> Offer:
    """What it takes for those parts."""
    return offer(way, page.job, page.studio.stints, whats[0] if len(whats) == 1 else None)


def way_section(page: "TransferPage", way: Way) -> Section:
    """The way on the bench: its time and reach, and what is done with it."""
    ways = ways_of(page.commission.transfer)
    if way not in (ways.outline, ways.details):
        found = offer_for(page, way, WHAT)
        said = (
            Note(f"Not advised: {found.why_not}.", "wrong")
            if found.why_not
            else Note(f"{begun(found.reach)}. Leaves {found.leaves}.")
        )
        take = Press("Carry it over this way", lambda: taken(Ways(way, way)))
        return Section("This way", (said, Fact("Takes about", hours_text(found.minutes)), take))
    left = parts_by(page, way)
    if not left:
        back = Press("It is not on the canvas after all", lambda: _not_after_all(page, way))
        return Section("This way", (Note("✓ What this way carries is on the canvas.", "good"), back))
    minutes = page.took or offer_for(page, way, left).minutes
    lines: tuple[Line, ...] = (
        Fact("Takes you" if offer_for(page, way, left).own else "Takes about", hours_text(offer_for(page, way, left).minutes)),
        Amount("It took, minutes", round(minutes), 1, _MOST_MINUTES, page.set_took, 5),
        Press(f"{begun(about_words(left))} is on the canvas" if left != ("details",) else "Eyes, nose and mouth are on the canvas",
              lambda: carried(page, way)),
    )  # fmt: skip
    return Section(f"This way: {about_words(left)}", lines)


def carried_act(page: "TransferPage", way: Way) -> NextAct | None:
    """The yellow field once all is printed or shown: note that it is done; None when this way carries nothing more."""
    left = parts_by(page, way)
    if not left:
        return None
    minutes = page.took or offer_for(page, way, left).minutes
    verb = "are" if left == ("details",) else "is"
    return NextAct(
        f"{begun(about_words(left))} {verb} on the canvas", f"notes {hours_text(minutes)} for it", lambda: carried(page, way)
    )


def taken(ways: Ways) -> Meaning:
    """The painter's choice of ways."""
    return Edit(TRANSFER, f"Carry it over by {ways.words}", lambda t: set_ways(t, ways))


def carried(page: "TransferPage", way: Way) -> Meaning:
    """Its parts are on the canvas; the time it took is learnt from."""
    page.bench.store_pending()
    left = parts_by(page, way)
    if not left:
        return None
    what = left[0] if len(left) == 1 else None
    thought = sum(guessed_minutes(way, page.job, what))
    took = page.took or offer_for(page, way, left).minutes
    label = f"{begun(about_words(left))} carried over by {way}"
    page.take(Edit(TRANSFER, label, lambda t: mark_carried(t, left, way, took)))
    if page.took:
        page.learn(Stint(way, thought, took))
    page.set_took(0.0)
    return None


def _not_after_all(page: "TransferPage", way: Way) -> Meaning:
    ways = ways_of(page.commission.transfer)
    own = tuple(what for what in WHAT if ways.of(what) == way)
    return Edit(TRANSFER, "It is not on the canvas after all", lambda t: not_carried(t, own))
