"""The brief on the bench: who, for whom, in what, by when, and where it is to hang."""

from collections.abc import Callable
from dataclasses import replace
from datetime import date
from typing import Any, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal, resequence
from yarrow_lane.commission.studio import Studio
from yarrow_lane.intake.brief import (
    BRIEF,
    MEDIA,
    SITTER_KINDS,
    USUAL_HEAD_MM,
    Brief,
    Medium,
    Sitter,
    add_sitter,
    change_sitter,
    front_word,
    with_title,
)
from yarrow_lane.intake.consent import consent_wants, sitters_shown
from yarrow_lane.intake.rights import PERMISSION_WORDS
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import (
    Day,
    Fact,
    Field,
    Length,
    Line,
    Meaning,
    Note,
    Pick,
    Press,
    Section,
    Tick,
    plain_options,
)


class Hands(Protocol):
    """What the page does for the brief."""

    def keep_location(self, keep: bool) -> None: ...


def brief_edit(label: str, step: Callable[[Brief], Brief]) -> Edit[Brief]:
    """A change of the brief."""
    return Edit(BRIEF, label, step)


def _sets(name: str, label: str) -> Callable[[Any], Meaning]:
    """A field of the brief takes the value."""

    def edit(value: Any) -> Meaning:
        changed: dict[str, Any] = {name: value}
        return brief_edit(f"Changed {label}", lambda b: replace(b, **changed))

    return edit


def brief_sections(c: Commission, studio: Studio, today: date, keep_location: bool, hands: Hands) -> tuple[Section, ...]:
    """All fields of the brief, the sitters, and the ledger of rights."""
    b, unit = c.brief, studio.unit

    def other_medium(medium: Medium) -> Proposal:
        return Proposal(
            f"Medium: {medium}", "Intake",
            lambda now: resequence(now, replace(now, brief=replace(now.brief, medium=medium)), studio.climate),
        )  # fmt: skip

    gift: list[Line] = [Tick("It is a surprise", b.surprise, _sets("surprise", "the surprise"))]
    if b.surprise:
        gift.append(
            Field("Whom not to contact", b.not_to_contact, _sets("not_to_contact", "whom not to contact"), "the birthday child")
        )
        gift.append(Note(b.contact_warning + ".", "wrong"))
    number = len(b.sitters) + 1
    one_more = brief_edit("One more sitter", lambda x: add_sitter(x, f"Sitter {number}", "other"))
    sitters = tuple(line for s in b.sitters for line in _sitter_lines(s, studio))
    return (
        Section(
            "Brief",
            (
                Field("Name of the commission", b.title, lambda v: brief_edit("Named the commission", lambda x: with_title(x, v))),
                Field("Client", b.client, _sets("client", "the client")),
                Field("Client's mail address", b.client_mail, _sets("client_mail", "the mail address"), "for letters; stays on this machine"),
                Field("Client's postal address", b.client_address, _sets("client_address", "the postal address"), "for papers and the parcel", True),
                Pick("Medium", b.medium, plain_options(MEDIA), other_medium),
                Day("Promised for", b.promised, today, _sets("promised", "the promise")),
                Field("Asked for", b.wish, _sets("wish", "what is asked for"), "close likeness, leave the collar on…", long=True),
                *gift,
            ),
        ),
        Section("Who is in it", (*sitters, Press("One more in the picture", lambda: one_more))),
        Section(
            "Where it will hang",
            (
                Field("Colour of the wall", b.wall_colour, _sets("wall_colour", "the wall's colour"), "red paper"),
                Length("Free width of the wall", b.wall_width_mm, unit, _sets("wall_width_mm", "the wall's width"), 2100.0, True),
                Field("Its light", b.wall_light, _sets("wall_light", "the wall's light"), "north window, lamp in the evening"),
            ),
            _wall_words(b, studio),
        ),
        Section(
            "Wishes",
            (
                Field("Background", b.background_wish, _sets("background_wish", "the background"), "soft, the garden only hinted at"),
                Field("Must be in it", b.must_haves, _sets("must_haves", "what must be in it"), "the collar, the red ball"),
                Field("Style", b.style, _sets("style", "the style"), "close likeness, or painterly"),
                Field("Budget", b.budget, _sets("budget", "the budget")),
            ),
            ", ".join(w for w in (b.background_wish, b.must_haves, b.style, b.budget) if w) or "none written",
        ),
        Section("Rights of what is kept", _ledger(c)),
        Section(
            "Privacy",
            (
                Tick("Keep the place in new photographs", keep_location, hands.keep_location),
                Note("Usually the place where a photograph was made is taken out of the stored file."),
            ),
        ),
    )  # fmt: skip


def _wall_words(b: Brief, studio: Studio) -> str:
    width = size_text(b.wall_width_mm, b.wall_width_mm, studio.unit).split(" × ")[-1] if b.wall_width_mm else ""
    return ", ".join(w for w in (b.wall_colour, width, b.wall_light) if w) or "not known"


def _sitter_lines(s: Sitter, studio: Studio) -> tuple[Line, ...]:
    def changed(sitter: Sitter) -> Meaning:
        return brief_edit(f"Changed {s.name}", lambda b: change_sitter(b, sitter))

    def kind(value: Any) -> Meaning:
        return changed(replace(s, kind=value))

    lines: list[Line] = [
        Field("Sitter", s.name, lambda v: changed(replace(s, name=v.strip() or s.name)), about=s.id),
        Pick("Is a", s.kind, plain_options(SITTER_KINDS), kind),
        Tick("Living", s.living, lambda v: changed(replace(s, living=v))),
    ]
    if not s.living:
        lines.append(Note("In memory: letters do not ask for new pictures."))
    if s.kind == "person":
        lines.append(Tick("A child: a guardian consents", s.child, lambda v: changed(replace(s, child=v))))
    unit = studio.unit
    lines.append(Length("Head, crown to chin", s.head_mm, unit, lambda mm: changed(replace(s, head_mm=mm)), 0.0, True, s.id))
    usual = USUAL_HEAD_MM.get(s.kind)
    if not s.head_mm and usual is not None:
        words = f"Take {length_text(usual, unit)}, a guess for {'an' if s.kind[:1] in 'aeiou' else 'a'} {s.kind}"
        lines.append(Press(words, lambda: changed(replace(s, head_mm=usual))))
    front = begun(front_word(s.kind))
    lines.append(
        Length(
            f"{front} in front of the eyes", s.muzzle_mm, unit, lambda mm: changed(replace(s, muzzle_mm=mm)), 0.0, True, s.id
        )
    )
    return tuple(lines)


def _ledger(c: Commission) -> tuple[Line, ...]:
    b, lines = c.brief, list[Line]()
    for p in c.intake.kept:
        words = PERMISSION_WORDS[p.rights.permission]
        if any(s.kind == "person" for s in sitters_shown(p, b)):
            words += f", consent {p.rights.consent}"
        lines.append(Fact(p.name, words, "good" if p.rights.known and not consent_wants(p, b) else "wrong"))
    reason = c.doors.reason("Intake")
    if reason:
        lines.append(Note(f"Waived all the same: {reason}. The delivery repeats it.", "wrong"))
    note = Note("Portraits of people need their consent, of children their guardian's; ask where unsure.")
    return (*lines, note) if lines else (Note("Nothing is kept yet."), note)
