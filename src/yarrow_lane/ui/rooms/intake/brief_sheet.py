"""The brief on the bench: who, for whom, in what, by when, and where it is to hang."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.intake.brief import MEDIA, SITTER_KINDS, Sitter
from yarrow_lane.intake.consent import consent_wants, sitters_shown
from yarrow_lane.intake.rights import PERMISSION_WORDS
from yarrow_lane.measure.lengths import number_text
from yarrow_lane.ui.bench_sheet import Amount, Day, Fact, Field, Line, Note, Pick, Press, Section, Tick, plain_options


def brief_sections(c: Commission, studio: Studio, keep_location: bool) -> tuple[Section, ...]:
    """All fields of the brief, the sitters, and the ledger of rights."""
    b, unit = c.brief, studio.unit
    width = number_text(b.wall_width_mm, unit) if b.wall_width_mm else ""
    gift: list[Line] = [Tick("surprise", "It is a surprise", b.surprise)]
    if b.surprise:
        gift.append(Field("not_to_contact", "Whom not to contact", b.not_to_contact, "the birthday child"))
        gift.append(Note(b.contact_warning + ".", "wrong"))
    sitters = tuple(line for s in b.sitters for line in _sitter_lines(s))
    return (
        Section(
            "Brief",
            (
                Field("title", "Name of the commission", b.title),
                Field("client", "Client", b.client),
                Field("client_mail", "Client's mail address", b.client_mail, "for letters; stays on this machine"),
                Pick("medium", "Medium", b.medium, plain_options(MEDIA)),
                Day("promised", "Promised for", b.promised),
                Field("wish", "Asked for", b.wish, "close likeness, leave the collar on…", long=True),
                *gift,
            ),
        ),
        Section("Who is in it", (*sitters, Press("add sitter", "One more in the picture"))),
        Section(
            "Where it will hang",
            (
                Field("wall_colour", "Colour of the wall", b.wall_colour, "red paper"),
                Field("wall_width", f"Free width of the wall, {unit}", width, "210"),
                Field("wall_light", "Its light", b.wall_light, "north window, lamp in the evening"),
            ),
        ),
        Section(
            "Wishes",
            (
                Field("background_wish", "Background", b.background_wish, "soft, the garden only hinted at"),
                Field("must_haves", "Must be in it", b.must_haves, "the collar, the red ball"),
                Field("style", "Style", b.style, "close likeness, or painterly"),
                Field("budget", "Budget", b.budget),
            ),
        ),
        Section("Rights of what is kept", _ledger(c)),
        Section(
            "Privacy",
            (
                Tick("keep location", "Keep the place in new photographs", keep_location),
                Note("Usually the place where a photograph was made is taken out of the stored file."),
            ),
        ),
    )


def _sitter_lines(s: Sitter) -> tuple[Line, ...]:
    lines: list[Line] = [
        Field(f"sitter name {s.id}", "Sitter", s.name),
        Pick(f"sitter kind {s.id}", "Is a", s.kind, plain_options(SITTER_KINDS)),
        Tick(f"sitter living {s.id}", "Living", s.living),
    ]
    if not s.living:
        lines.append(Note("In memory: letters do not ask for new pictures."))
    if s.kind == "person":
        lines.append(Tick(f"sitter child {s.id}", "A child: a guardian consents", s.child))
    lines.append(Amount(f"sitter head {s.id}", "Head, crown to chin", s.head_mm, 0, 900, 5, 0, "mm"))
    lines.append(Amount(f"sitter muzzle {s.id}", "Nose in front of the eyes", s.muzzle_mm, 0, 600, 5, 0, "mm"))
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
        lines.append(Note(f"Passed all the same: {reason}. The delivery repeats it.", "wrong"))
    note = Note("Portraits of people need their consent, of children their guardian's; ask where unsure.")
    return (*lines, note) if lines else (Note("Nothing is kept yet."), note)
