"""What the tone room shows now, and what each line means."""

from dataclasses import dataclass, replace
from datetime import timedelta
from typing import Any, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.shares import percents
from yarrow_lane.measure.words import begun
from yarrow_lane.paint.drying import Climate
from yarrow_lane.paint.pigments.entries import entries
from yarrow_lane.paint.seen import srgb_of
from yarrow_lane.palette.words import hue_words
from yarrow_lane.tone.grounds import GROUNDS, ground_lab, ground_srgb
from yarrow_lane.tone.proposal import Judged
from yarrow_lane.tone.record import FEWEST, MOST, TONE, lay_ground
from yarrow_lane.tone.reserves import Reserve
from yarrow_lane.tone.study import Study, metres_of, squint_of, usual_smallest_mm2
from yarrow_lane.tone.warmth import Warmth
from yarrow_lane.tone.wash import (
    GESSO_COATS,
    LIFT_MIN,
    Band,
    Wash,
    gesso_hours,
    gesso_ml,
    laid_in_bands,
    lifts_in_order,
    wash_for,
)
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Fact,
    Headline,
    Line,
    Meaning,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Swatch,
    Switch,
    Tick,
    plain_options,
)
from yarrow_lane.ui.kit.overlays import Box, Ink, Outline, Overlay, Ring, Words
from yarrow_lane.ui.rooms.tone.looking import Kept

LOOKS = ("values", "squint", "reserves", "warm and cool", "the ground")
TURNS = ("upright", "mirrored", "upside down", "grey", "small")
_SAND = "Sanding primer makes dust: wear a mask or sand wet, and follow the product's safety data sheet."
_DRAWN_CM2 = 0.5  # smaller reserves are a ring alone: our choice


class Hands(Protocol):
    """What the page does for the bench."""

    def show_look(self, look: str) -> None: ...
    def turn(self, how: str) -> None: ...
    def look_at_ground(self, name: str) -> None: ...
    def choose_count(self, count: int) -> Meaning: ...
    def use_own_limits(self) -> Meaning: ...


@dataclass(frozen=True, eq=False)
class Seen:
    """What has been worked out so far."""

    study: Study | None = None
    kept: Kept | None = None
    warmth: Warmth | None = None
    grounds: tuple[Judged, ...] = ()
    ground: str = "white"
    turned: str = "upright"


@dataclass(frozen=True)
class ToneView:
    """The whole room."""

    bench: BenchSheet
    choices: ChoiceSheet


def tone_view(
    c: Commission, seen: Seen, look: str, climate: Climate, hands: Hands, act: NextAct
) -> ToneView:  # fmt: skip
    """Work the room out."""
    if not c.compose.framed:
        note = Section("Values", (Note("The values are seen in the composed picture. Choose size and crop at Compose first."),))
        return ToneView(BenchSheet((note,), act), ChoiceSheet())
    sections = {
        "values": _values, "squint": _values, "reserves": _reserves, "warm and cool": _warmth, "the ground": _ground,
    }[look](c, seen, climate, hands)  # fmt: skip
    switches = [Switch("Look at", tuple((name, name) for name in LOOKS), hands.show_look, look)]
    if look in ("values", "the ground"):
        counts = tuple((n, str(n)) for n in range(FEWEST, MOST + 1))
        switches.append(Switch("in", counts, hands.choose_count, c.tone.count))
    return ToneView(BenchSheet(sections, act), ChoiceSheet(tuple(switches)))


# --- values


def _values(c: Commission, seen: Seen, climate: Climate, hands: Hands) -> tuple[Section, ...]:
    tone, lines = c.tone, []
    if seen.study is not None:
        for n, percent in reversed(list(enumerate(percents(seen.study.shares)))):
            lines.append(Fact(_value_name(n, len(seen.study.shown)), f"{value_of(seen.study.shown[n]):.1f},  {percent}\u202f%"))
    own = "the picture's own groups" if not tone.limits else "moved by you"
    limits: tuple[Line, ...] = (
        Fact("Limits", own),
        *((Press("Take the picture's own again", hands.use_own_limits),) if tone.limits else ()),
    )
    usual = usual_smallest_mm2(c.compose.width_mm * c.compose.height_mm)

    def squint(metres: float) -> Edit[Any]:
        return Edit(TONE, "Changed the squint", lambda t: replace(t, squint_mm=squint_of(metres)), join="squint")

    def smallest(mm2: float) -> Edit[Any]:
        return Edit(TONE, "Changed the smallest shape", lambda t: replace(t, smallest_mm2=mm2), join="smallest")

    looking: tuple[Line, ...] = (
        Pick("Turned", seen.turned, plain_options(TURNS), hands.turn),
        Amount("Squint from", round(metres_of(tone.squint_mm), 1), 0, 20, squint, 0.5, 1, "\u202fm"),
        Amount("Smallest shape", tone.smallest_mm2 or round(usual), 1, 5000, smallest, 10, 0, "\u202fmm²"),
        Note("Eyes, nose and mouth keep shapes an eighth of that size. Values run from 0, black, to 10, white (ASTM D1535)."),
    )
    return (
        Section("The values, with their share", (*lines, *limits)),
        Section("How it is seen", looking),
        Section("On paper", (Note("To draw these shapes: at Transfer, lines, tick “Borders of the values”."),)),
    )


def _value_name(n: int, count: int) -> str:
    if count == 2:
        return ("Dark", "Light")[n]
    if count == 3:
        return ("Dark", "Middle", "Light")[n]
    return "Darkest" if n == 0 else "Lightest" if n == count - 1 else f"Value {n + 1}"


# --- reserves


def reserve_marks(kept: Kept) -> tuple[Overlay, ...]:
    """Every reserve with its letter or number."""
    marks: list[Overlay] = []
    for side, group, words in (("light", kept.lights, "123456"), ("dark", kept.darks, "abcdef")):
        for label, reserve in zip(words, group, strict=False):
            ink: Ink = "here" if side == "light" else "light"
            if reserve.cm2 >= _DRAWN_CM2:
                marks.append(Outline(reserve.outline, ink, 1.4, "dashes"))
            marks.append(Ring(reserve.at, radius_px=4, ink=ink))
            marks.append(Words(reserve.at, label, shift=(7, 0)))
    return tuple(marks)


def _reserves(c: Commission, seen: Seen, climate: Climate, hands: Hands) -> tuple[Section, ...]:
    kept = seen.kept
    if kept is None:
        return (Section("Held in reserve", (Note("Looking for the lightest and the darkest…"),)),)
    places = _places_words(kept.lights)
    return (
        Section(
            "Lightest, for last",
            (
                *(_reserve_fact(n, r) for n, r in zip("123456", kept.lights, strict=False)),
                Note(f"Keep the lightest half step for {places}: all else stays below {_lowest(kept.lights):.1f}."),
            ),
        ),
        Section("Darkest, sparingly", tuple(_reserve_fact(n, r) for n, r in zip("abcdef", kept.darks, strict=False))),
        Section(
            "Called white, but grey",
            (
                *(Swatch(begun(r.near), srgb_of(r.lab), f"{r.value:.1f}, {hue_words(r.lab).split(',')[0]}") for r in kept.whites[:4]),
                Note(
                    "Whites of eyes, teeth and white fur are these greys; pure white is for the glint."
                    if kept.whites else "Nothing here is light and without colour."
                ),
            ),
        ),
    )  # fmt: skip


def _reserve_fact(label: str, reserve: Reserve) -> Fact:
    area = f"{reserve.cm2:.1f}" if reserve.cm2 >= 0.1 else f"{reserve.cm2:.2f}"
    return Fact(f"{label}  {reserve.near}", f"{reserve.value:.1f},  {area}\u202fcm²")


def _lowest(reserves: tuple[Reserve, ...]) -> float:
    return min((r.value for r in reserves), default=10.0)


def _places_words(lights: tuple[Reserve, ...]) -> str:
    """'the right eye and places 3, 4'."""
    eyes = list(
        dict.fromkeys(r.near if "’s " in r.near or "'s " in r.near else f"the {r.near}" for r in lights if "eye" in r.near)
    )
    others = [str(n) for n, r in enumerate(lights, 1) if "eye" not in r.near]
    said = [*eyes, *([f"place{'s' * (len(others) > 1)} {', '.join(others)}"] if others else [])]
    return " and ".join(said) or "the glints"


# --- warm and cool


def _warmth(c: Commission, seen: Seen, climate: Climate, hands: Hands) -> tuple[Section, ...]:
    found = seen.warmth
    if found is None:
        return (Section("Warm and cool", (Note("Looking at the temperature…"),)),)
    return (
        Section(
            "Warm and cool",
            (
                Fact("Here", found.scheme),
                Fact("Lights", _temperature(found.lights)),
                Fact("Shadows", _temperature(found.shadows)),
                Note("Orange is warmer and blue cooler than the sitter's middle; the photograph's white balance is not known."),
                Note("Right temperature matters more than the exact hue: keep lights and shadows on their sides."),
            ),
        ),
        Section("White fur and greys", tuple(
            Swatch(begun(r.near), srgb_of(r.lab), hue_words(r.lab)) for r in (seen.kept.whites if seen.kept else ())[:4]
        ) or (Note("Look at the reserves for the greys of white fur."),)),
    )  # fmt: skip


def _temperature(by: float) -> str:
    return "as the middle" if abs(by) < 1 else f"{abs(by):.0f} {'warmer' if by > 0 else 'cooler'}"


# --- the ground


def wash_of(c: Commission, climate: Climate, ground: str) -> Wash | None:
    """What the ground is laid with; None for the bare canvas."""
    if GROUNDS.get(ground, GROUNDS["white"]).how == "bare":
        return None
    return wash_for(ground, c.compose.width_mm * c.compose.height_mm / 100, c.brief.medium, climate, c.tone.retarder)


def _ground(c: Commission, seen: Seen, climate: Climate, hands: Hands) -> tuple[Section, ...]:
    name = seen.ground
    judged = next((g for g in seen.grounds if g.name == name), None)
    lines: list[Line] = [Headline(begun(name)), Swatch("Its value", ground_srgb(name), f"{value_of(ground_lab(name)[0]):.1f}")]
    if judged is not None:
        proposed = judged is seen.grounds[0] and not c.tone.ground
        lines.append(Note(f"Proposed: {judged.why}" if proposed else begun(judged.why)))
    if c.tone.ground:
        laid = f", laid {day_text(c.tone.laid_at.date())}, {c.tone.laid_at:%H:%M}" if c.tone.laid_at is not None else ""
        lines.append(Note(f"✓ On the canvas: {c.tone.ground}{laid}.", "good"))
        if c.tone.ground != name:
            lines.append(Press(f"It is {name} instead", lambda: _laid(name)))
        lines.append(Press("It is not laid after all", lambda: _laid("")))

    def wiped(on: bool) -> Edit[Any]:
        return Edit(TONE, "Lights are wiped out" if on else "Lights are painted", lambda t: replace(t, wipe_out=on))

    lines.append(Tick("Lights are wiped out of it", c.tone.wipe_out, wiped))
    wash = wash_of(c, climate, name)
    sections = [Section("The ground", tuple(lines))]
    if wash is not None:
        sections.append(_wash(c, wash, name))
        sections.append(_open(c, wash, climate, seen.kept))
    sections.append(_gesso(c))
    return tuple(sections)


def _laid(name: str) -> Meaning:
    return Edit(TONE, f"Ground: {name}" if name else "The ground is not laid", lambda t: lay_ground(t, name, None))


def _wash(c: Commission, wash: Wash, name: str) -> Section:
    colours = " and ".join(_paint_names(name))
    parts = tuple(Fact(begun(colours) if word == "paint" else begun(word), f"{ml:.1f}\u202fml") for word, ml in wash.parts)

    def retarder(on: bool) -> Edit[Any]:
        return Edit(TONE, "Retarder in the wash" if on else "No retarder in the wash", lambda t: replace(t, retarder=on))

    tick = (Tick("Retarder, 1 in 10", c.tone.retarder, retarder),) if c.brief.medium != "watercolour" else ()
    return Section(f"Mix {wash.ml:.1f}\u202fml, half stays in the brush", (*parts, *tick))


def _paint_names(ground: str) -> tuple[str, ...]:
    return tuple(entries()[key].name for key, _ in GROUNDS[ground].parts)


def _bands_of(c: Commission, wash: Wash, kept: Kept | None) -> tuple[Band, ...]:
    lifts = len(kept.lights) if kept is not None else 0
    return laid_in_bands(wash, c.compose.height_mm, LIFT_MIN * lifts if c.tone.wipe_out else 0.0)


def laying_marks(c: Commission, seen: Seen, climate: Climate) -> tuple[Overlay, ...]:
    """The clock of the wash on the plan of the canvas: each band with its minutes, and the lights in the order to lift them."""
    wash = wash_of(c, climate, seen.ground)
    if wash is None or not c.tone.wipe_out:
        return ()
    bands, width = _bands_of(c, wash, seen.kept), c.compose.width_mm
    marks: list[Overlay] = []
    for band in bands:
        marks.append(Box(Rect(0, band.top_mm, width, band.bottom_mm - band.top_mm), "light", 1.2, "dashes"))
        words = f"lay {_clock(band.begins)} to {_clock(band.ends)}, wipe until {_clock(band.wiped_by)}"
        marks.append(Words((2.0, band.top_mm), words, shift=(2, 12)))
    lights = seen.kept.lights if seen.kept is not None else ()
    for number, n in enumerate(lifts_in_order([r.at for r in lights], bands), 1):
        marks.append(Ring(lights[n].at, radius_px=5, ink="here"))
        marks.append(Words(lights[n].at, str(number), shift=(8, 0)))
    return tuple(marks)


def _clock(minutes: float) -> str:
    whole, rest = divmod(round(60 * minutes), 60)
    return f"{whole}:{rest:02d}"


def _open(c: Commission, wash: Wash, climate: Climate, kept: Kept | None) -> Section:
    bands = _bands_of(c, wash, kept)
    lines: list[Line] = [
        Fact("Laying takes", f"{wash.laying_min:.0f}\u202fmin"),
        Fact("Wipe or move until", f"{wash.wipe_min:.1f}\u202fmin", "plain" if len(bands) == 1 else "wrong"),
        Fact("Dry at", f"{wash.dry_min:.0f}\u202fmin"),
    ]
    if c.tone.laid_at is not None:
        until, dry = (c.tone.laid_at + timedelta(minutes=m) for m in (wash.wipe_min, wash.dry_min))
        lines.append(Fact("Laid: wipe until, dry at", f"{until:%H:%M},  {dry:%H:%M}"))
    if len(bands) > 1:
        high = (bands[0].bottom_mm - bands[0].top_mm) / 10
        lines.append(
            Note(
                f"It sets before all is laid{' and lifted' if c.tone.wipe_out else ''}: lay it in {len(bands)} bands from the top, "
                f"each {high:.0f}\u202fcm high, and finish one before the next.", "wrong",
            )
        )  # fmt: skip
    else:
        lines.append(Note("Top to bottom, each stroke into the last; a very light hand at the end, then leave it."))
    if c.tone.wipe_out and kept is not None and kept.lights:
        first = kept.lights[lifts_in_order([r.at for r in kept.lights], bands)[0]]
        lines.append(
            Note(
                f"Lift first: {first.near}; the numbers on the plan are the order. Common practice says within 5 to 10 minutes."
            )
        )
    return Section(f"Open today, {climate.celsius:.0f}\u202f°C and {climate.humidity:.0f}\u202f%", tuple(lines))


def _gesso(c: Commission) -> Section:
    coats, cm2 = c.tone.ground_coats, c.compose.width_mm * c.compose.height_mm / 100

    def changed(number: float) -> Edit[Any]:
        return Edit(TONE, f"{number:.0f} coats of gesso", lambda t: replace(t, ground_coats=round(number)), join="coats")

    needs = Fact("Gesso for them", f"{gesso_ml(cm2, coats):.0f}\u202fml,  {gesso_hours(coats):.0f}\u202fh") if coats else Note(
        f"Fine work wants {GESSO_COATS} more coats, sanded between."
    )  # fmt: skip
    return Section("Beneath", (Amount("Coats of gesso", coats, 0, 12, changed), needs, Note(_SAND)))
