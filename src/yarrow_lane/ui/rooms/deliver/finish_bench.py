"""How it is made ready, on the bench: varnish, title and signature, hanging and frame, the client's answer, pictures and the archive."""

from dataclasses import replace
from datetime import date
from typing import Any, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.gallery import LEAST_PX, MOST_PX
from yarrow_lane.deliver.handover import DELIVER, HANGINGS, SHEENS, Answer, answered, needs_varnish, with_finish
from yarrow_lane.deliver.parcel import bare_kg, framed
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.ui.bench_sheet import Amount, Day, Fact, Field, Line, Meaning, Note, Pick, Press, Section, Tick, plain_options

_PRINTS = (("", "not asked"), ("agreed", "agreed"), ("not agreed", "not agreed"))


class Hands(Protocol):
    """What the page does for these."""

    web_px: int
    web_name: bool

    def want_web(self, px: int, name: bool) -> None: ...
    def save_web(self) -> None: ...
    def save_print(self) -> None: ...
    def save_archive(self) -> None: ...


def finish(label: str, **facts: Any) -> Edit[Any]:
    """An edit of how it is made ready."""
    return Edit(DELIVER, label, lambda d: with_finish(d, **facts))


def finish_sections(c: Commission, studio: Studio, today: date, hands: Hands) -> tuple[Section, ...]:
    """Each folded to its decision."""
    every = (_varnish(c), _signature(c), _hanging(c, studio, today), _answer(c, today), _pictures(c, hands), _archive(hands))
    return tuple(s for s in every if s is not None)


def _varnish(c: Commission) -> Section | None:
    if not needs_varnish(c.brief.medium):
        return None
    f = c.deliver.finish
    lines: list[Line] = [
        Pick("Sheen", f.sheen, plain_options(SHEENS), lambda v: finish("Chose the sheen", sheen=v)),
        Tick("Sprayed", f.spray, lambda v: finish("Chose how it is varnished", spray=v)),
    ]
    if f.spray:
        lines.append(
            Note(
                "Spray outdoors or with extraction, with a suitable respirator, no flame near; follow the safety data sheet.",
                "wrong",
            )
        )
    else:
        lines.append(Note("Brush it in a room without dust, flat, one way, thin; then face up under a cover."))
    return Section("Varnish", tuple(lines), f"{f.sheen}, {'sprayed' if f.spray else 'brushed'}")


def _signature(c: Commission) -> Section:
    f = c.deliver.finish
    lines: tuple[Line, ...] = (
        Field("Title of the painting", f.title, lambda v: finish("Wrote its title", title=v.strip()), c.brief.title),
        Note("Where to sign is proposed under “face”: quiet, finished, low. Click another place there."),
    )
    return Section("Title and signature", lines, f.title or c.brief.title)


def _hanging(c: Commission, studio: Studio, today: date) -> Section:
    f, sides = c.deliver.finish, c.compose.sides
    lines: list[Line] = [
        Pick("Hangs by", f.hanging, plain_options(HANGINGS), lambda v: finish("Chose how it hangs", hanging=v))
    ]
    if c.compose.sized and f.hanging != "none":
        weight = bare_kg(c.compose.width_mm, c.compose.height_mm, sides.depth_mm)
        lines.append(Fact("Rings below the upper edge", length_text(c.compose.height_mm / 3, studio.unit)))
        lines.append(
            Note(
                f"It weighs about {weight:.1f}\u202fkg without frame: rings and wire that carry three times as much (our choice)."
            )
        )
    if framed(sides):
        lines.append(Fact("Gap all round", length_text(sides.gap_mm, studio.unit)))
        lines.append(Field("The frame", f.frame, lambda v: finish("Wrote which frame", frame=v.strip()), "oak, floating"))
        lines.append(Day("It comes on", f.comes, today, lambda v: finish("Wrote when the frame comes", comes=v)))
    else:
        lines.append(Note("No frame: chosen at Compose, sides and frame."))
    return Section("Hanging and frame", tuple(lines), f"{f.hanging}, {'in a frame' if framed(sides) else 'no frame'}")


def _answer(c: Commission, today: date) -> Section:
    a: Answer = c.deliver.answer

    def write(words: str) -> Meaning:
        return Edit(DELIVER, "Wrote down what they said", lambda d: answered(d, words, a.on or today))

    def prints(value: Any) -> Meaning:
        return Edit(DELIVER, "Wrote down about prints", lambda d: replace(d, answer=replace(d.answer, prints=value)))

    lines: tuple[Line, ...] = (
        Field("What they said", a.words, write, "in their own words", True),
        Pick("Prints of it", a.prints, _PRINTS, prints),
    )
    return Section("The client's answer", lines, a.words[:32] if a.words else "none yet")


def _pictures(c: Commission, hands: Hands) -> Section:
    people = any(s.kind == "person" for s in c.brief.sitters)
    lines: list[Line] = [
        Amount("Longer side", hands.web_px, LEAST_PX, MOST_PX, lambda v: hands.want_web(int(v), hands.web_name), 100, 0, "px"),
        Tick("With your name on it", hands.web_name, lambda v: hands.want_web(hands.web_px, v)),
        Press("Save a picture for the web…", hands.save_web),
        Press("Save a picture for prints…", hands.save_print, c.deliver.answer.prints == "agreed"),
    ]
    if people:
        lines.append(Note("A person is in it: show it only with their consent, a guardian's for a child."))
    if c.deliver.answer.prints != "agreed":
        lines.append(Note("Prints only once they were agreed to."))
    return Section("Pictures of it", tuple(lines), "for the web, for prints")


def _archive(hands: Hands) -> Section:
    lines = (
        Note("One file that other programs can read: everything on record, the photographs, the papers."),
        Press("Save the commission (archive)…", hands.save_archive),
    )
    return Section("Put on file", lines, "an open archive")
