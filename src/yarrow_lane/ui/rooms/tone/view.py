"""What the tone room shows now, and what each line means."""

from dataclasses import dataclass, replace
from typing import Any, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.munsell_value import lightness_of, value_of
from yarrow_lane.measure.shares import percents
from yarrow_lane.tone.three_values import GROUNDS, TONE, set_limits
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Fact,
    Line,
    NextAct,
    Note,
    Pick,
    Section,
    Span,
    Switch,
    plain_options,
)


class Hands(Protocol):
    """What the page does for the bench."""

    def show_look(self, look: str) -> None: ...


@dataclass(frozen=True)
class ToneView:
    """The whole room."""

    bench: BenchSheet
    choices: ChoiceSheet


def _limits(dark: float, light: float) -> Edit[Any]:
    below, above = lightness_of(dark), lightness_of(light)
    return Edit(TONE, "Moved the limits of the values", lambda t: set_limits(t, below, above), join="limits")


def _squint(mm: float) -> Edit[Any]:
    return Edit(TONE, "Changed the squint", lambda t: replace(t, squint_mm=mm), join="squint")


def _ground(name: str) -> Edit[Any]:
    return Edit(TONE, f"Ground: {name}", lambda t: replace(t, ground=name))


def _coats(number: float) -> Edit[Any]:
    return Edit(TONE, f"{number:.0f} coats of gesso", lambda t: replace(t, ground_coats=round(number)), join="coats")


def tone_view(c: Commission, shares: tuple[float, float, float] | None, look: str, hands: Hands, act: NextAct) -> ToneView:
    """Work the room out; `shares` of dark, middle and light once the study is made."""
    tone = c.tone
    found: tuple[Line, ...] = ()
    if shares is not None:
        found = tuple(Fact(word, f"{n}\u202f%") for word, n in zip(("Dark", "Middle", "Light"), percents(shares), strict=True))
    sections = (
        Section(
            "Three values",
            (
                Span(
                    "Middle values",
                    (value_of(tone.dark_below), value_of(tone.light_above)),
                    0.1,
                    9.9,
                    _limits,
                    "",
                    0.1,
                    1,
                ),
                Amount("Squint", tone.squint_mm, 0, 40, _squint, 0.5, 1, "mm"),
                *found,
                Note("Values in steps from 0, black, to 10, white (Munsell, ASTM D1535)."),
                Note("Right values forgive wrong colours. On a middle ground both lighter and darker can be judged."),
            ),
        ),
        Section(
            "The ground",
            (
                Pick("Laid with", tone.ground, plain_options(tuple(GROUNDS)), _ground),
                Amount("Coats of gesso beneath", tone.ground_coats, 0, 12, _coats),
                Note("Sanding primer makes dust: wear a mask or sand wet, and follow the product's safety data sheet."),
            ),
        ),
    )
    options = (("both", "both"), ("study", "the study alone"))
    return ToneView(BenchSheet(sections, act), ChoiceSheet((Switch("Look at", options, hands.show_look, look),)))
