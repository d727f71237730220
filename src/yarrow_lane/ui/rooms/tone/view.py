"""What the tone room shows now."""

from dataclasses import dataclass

from yarrow_lane.commission.commission import Commission
from yarrow_lane.tone.three_values import GROUNDS, Tone
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
    Switch,
    plain_options,
)


@dataclass(frozen=True)
class ToneView:
    """The whole room; `study` is what the study is made with."""

    study: Tone
    bench: BenchSheet
    choices: ChoiceSheet


def tone_view(c: Commission, shares: tuple[float, float, float] | None, look: str) -> ToneView:
    """Work the room out; `shares` of dark, middle and light once the study is made."""
    tone = c.tone
    found: tuple[Line, ...] = ()
    if shares is not None:
        found = tuple(Fact(word, f"{share:.0%}") for word, share in zip(("Dark", "Middle", "Light"), shares, strict=True))
    sections = [
        Section(
            "Three values",
            (
                Amount("dark", "Dark below", tone.dark_below, 1, 98, 1, 0, "L*"),
                Amount("light", "Light above", tone.light_above, 2, 99, 1, 0, "L*"),
                Amount("squint", "Squint", tone.squint_mm, 0, 40, 0.5, 1, "mm"),
                *found,
                Note("Right values forgive wrong colours. On a middle ground both lighter and darker can be judged."),
            ),
        ),
        Section(
            "The ground",
            (
                Pick("ground", "Laid with", tone.ground, plain_options(tuple(GROUNDS))),
                Amount("coats", "Coats of gesso beneath", tone.ground_coats, 0, 12),
                Note("Sanding primer makes dust: wear a mask or sand wet, and follow the product's safety data sheet."),
            ),
        ),
    ]
    act = NextAct("Note the ground", "white, a thin earth wash, grey or dark", enabled=False)
    if not c.compose.framed:
        act = NextAct("Go to Compose", "the study is made from the crop")
    elif tone.ground:
        act = NextAct("Go on to Palette", f"ground: {tone.ground}")
    options = (("both", "side by side"), ("study", "the study alone"))
    return ToneView(tone, BenchSheet(tuple(sections), act), ChoiceSheet((Switch("look", "Look at", options, look),)))
