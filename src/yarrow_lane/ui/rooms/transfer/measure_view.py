"""What is shown and said of a measured drawing."""

from collections.abc import Callable
from dataclasses import dataclass

from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.proof.measured import Flat, Off, Verdict
from yarrow_lane.transfer.proof.photo import DrawingPhoto
from yarrow_lane.transfer.proof.split import Whole, whole_words
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, Note, Press, Section
from yarrow_lane.ui.kit.overlays import Ink, Outline, Overlay, Ring, Words

MEASURING = "Straightening and measuring…"
_TEN = 10  # arrows are so many times as long as the error
_MOST_TO_REDRAW = 5
_PROOF = "Proof of the drawing"


@dataclass(frozen=True)
class Told:
    """What is known of a photograph: straightened or not yet, judged, how much is allowed (mm), the one measured before it, whether
    the composition changed since, and what went wrong.
    """

    flat: Flat | None
    verdict: Verdict | None
    tolerance: float
    before: DrawingPhoto | None
    stale: bool
    trouble: str

    @property
    def whole(self) -> Whole | None:
        """What is wrong with all of it; None while fewer than two places are known."""
        return self.verdict.whole if self.verdict is not None else None

    @property
    def grips(self) -> tuple[tuple[str, Point], ...]:
        """Every place that can be pulled, and where it stands: those known, worst first, then those that want a hand."""
        if self.verdict is None:
            return ()
        return (*((p.name, p.drawn) for p in self.verdict.places), *self.verdict.asked)


def before_photo(places: int, simulate: Callable[[], Meaning]) -> Section:
    """What will be done; `simulate` takes a photograph with the camera stand-in."""
    return Section(
        _PROOF,
        (
            Note("Every place marked at Intake is found again in the drawing and its error told in mm."),
            Note("Set the four corners; the sides are then fitted and the lens's bulge is taken out."),
            Fact("Places marked", str(places)),
            Press("Try it with the camera stand-in", simulate),
        ),
    )


def told_sections(told: Told) -> tuple[Section, ...]:
    """The whole first, then every place, what to redraw, how sure it is."""
    if told.flat is None or told.verdict is None:
        return (Section(_PROOF, (Note(told.trouble or MEASURING, "wrong" if told.trouble else "plain"),)),)
    if told.whole is None:
        unknown = told.flat.found is None
        why = "The lines on the canvas are not recognised as these lines." if unknown else "Fewer than two places are sure."
        note = Note(
            f"{why} Is it this painting, upright, its corners right? Or pull the places to where they are drawn.", "wrong"
        )
        return (Section(_PROOF, (note,)),)
    verdict = told.verdict
    rows = tuple(_place_fact(number, place, told.tolerance) for number, place in enumerate(verdict.places, 1))
    wrong = [place for place in verdict.places if place.mm > told.tolerance][:_MOST_TO_REDRAW]
    redraw = tuple(Note(f"{begun(place.name)}: {place.words}.", "wrong") for place in wrong)
    sections = [Section("The whole first", _whole_lines(told.whole)), Section("Each place, mm from where it belongs", rows)]
    if redraw:
        sections.append(Section("To redraw", redraw))
    return (*sections, Section("How it stands", _standing_lines(told, verdict)))


def _place_fact(number: int, place: Off, tolerance: float) -> Fact:
    name = f"{number}  {place.name}{', by hand' if place.by_hand else ''}"
    return Fact(name, f"{place.mm:.1f}\u202fmm", "wrong" if place.mm > tolerance else "good")


def _whole_lines(whole: Whole) -> tuple[Line, ...]:
    said = whole_words(whole)
    if not said:
        return (Note("Nothing: it sits where it belongs."),)
    seen = "Worth moving or knowing." if whole.seen else "Leave it: nobody sees it."
    taken_out = Note(f"Taken out of what follows. {seen}", "wrong" if whole.seen else "good")
    return (*(Fact(begun(what), value) for what, value in said), taken_out)


def _standing_lines(told: Told, verdict: Verdict) -> tuple[Line, ...]:
    held, all_of_them = verdict.holding(told.tolerance), len(verdict.places)
    lines: list[Line] = [
        Fact("Places that hold", f"{held} of {all_of_them}", "good" if held == all_of_them else "plain"),
        Fact("Allowed", f"{told.tolerance:.1f}\u202fmm"),
    ]
    if told.before is not None:
        was = sum(mm <= told.tolerance for _, mm in told.before.off)
        lines.append(Fact(f"On {day_text(told.before.at.date())}", f"{was} of {len(told.before.off)} held"))
    if verdict.asked:
        names = ", ".join(name for name, _ in verdict.asked)
        lines.append(Note(f"Not found, and not measured: {names}. Pull the dotted ring to where it is drawn."))
    lines.append(Note("Found places are a proposal: pull one where it is wrong."))
    if told.flat is not None and told.flat.weak:
        lines.append(Note(f"Not well seen: the {' and '.join(told.flat.weak)} edge. Look at its corners.", "wrong"))
    if told.stale:
        lines.append(Note("The drawing was photographed for an earlier composition.", "wrong"))
    return tuple(lines)


def told_overlays(told: Told) -> tuple[tuple[Overlay, ...], tuple[Overlay, ...]]:
    """On the drawing: arrows to where each place belongs, ten times as long. On the reference: what is allowed round it."""
    if told.verdict is None:
        return (), ()
    on_drawing: list[Overlay] = []
    on_meant: list[Overlay] = []
    for number, place in enumerate(told.verdict.places, 1):
        ink: Ink = "off" if place.mm > told.tolerance else "holds"
        end = place.drawn[0] - _TEN * place.rest[0], place.drawn[1] - _TEN * place.rest[1]
        words = str(number)
        weight = 2.4 if ink == "off" else 1.6
        on_drawing += [
            Outline((place.drawn, end), ink, weight, closed=False),
            Ring(place.drawn, radius_px=4, ink=ink, weight=weight),
            Words(place.drawn, words, "right", (8.0, 0.0)),
        ]
        on_meant += [Ring(place.belongs, told.tolerance, ink), Words(place.belongs, words, "right", (6.0, 0.0))]
    for name, guess in told.verdict.asked:
        on_drawing += [
            Ring(guess, radius_px=9, ink="here", weight=1.6, line="dots"),
            Words(guess, f"{name}?", "right", (10.0, 0.0)),
        ]
    return tuple(on_drawing), tuple(on_meant)
