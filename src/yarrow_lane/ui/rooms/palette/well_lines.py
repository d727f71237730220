"""What the bench says of the chosen well, and of the string it stands in."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.place_words import place_words
from yarrow_lane.measure.words import counted
from yarrow_lane.palette.advice import seen_word
from yarrow_lane.palette.amounts import to_order
from yarrow_lane.palette.harmony import families
from yarrow_lane.palette.open_time import open_minutes
from yarrow_lane.palette.other_media import LEFT_OUT
from yarrow_lane.palette.recipe import RecipeTrouble, read_recipe, recipe_words
from yarrow_lane.palette.wells import PALETTE, Well, empty_well
from yarrow_lane.palette.words import beside_words, hue_words
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Line, Meaning, Note, Pick, Press, Section, Tick

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.wells_mode import WellsMode

_METALS = "{metals}: never sand or spray, wash hands, no food; read each tube's label and safety data sheet."


def well_sections(mode: "WellsMode", well: Well | None) -> tuple[Section, ...]:
    """The whole bench of the string."""
    page = mode.page
    if well is None:
        return (_taking(mode),)
    sections = [_match(mode, well), *([_amount(mode, well)] if page.mixes else []), _elsewhere(mode, well)]
    if well.id > 0:
        sections.append(_changing(mode, well))
    sections += [_string(mode), _care(mode)]
    if LEFT_OUT[page.medium]:
        sections.insert(1, Section(page.medium.capitalize(), (Note(LEFT_OUT[page.medium]),)))
    return tuple(sections)


def _match(mode: "WellsMode", well: Well) -> Section:
    page, advice = mode.page, mode.advice
    lines: list[Line] = []
    if advice is not None and advice.mix is not None:
        mix = advice.mix
        lines += [
            Fact("Reckoned difference, dry", f"{mix.off:.1f}, {seen_word(mix.off)}"),
            Fact("Paint may be off by", f"± {mix.doubt:.1f}: {mix.word}"),
        ]
        if page.mixer is not None and mix.word == "guide":
            lines.append(Note("A guide: these tubes are remembered, not measured. Three tints at calibrate make it better."))
    lines.append(Fact("Value", f"{value_of(well.lab[0]):.1f} of 10"))
    row = page.wells
    place = row.index(well)
    if place:
        lines.append(Fact(f"Beside {page.name_of(row[place - 1])}", beside_words(well.lab, row[place - 1].lab)))
    if advice is not None and advice.mix is not None:
        lines.append(Fact("Under other lamps it moves", f"{advice.mix.shifts:.1f}"))
    return Section(page.name_of(well), (*lines, Fact("Hue, a guess", hue_words(well.lab))))


def _amount(mode: "WellsMode", well: Well) -> Section:
    page = mode.page
    cm2 = page.areas.get(well.id, 0.0)
    climate = page.studio.climate
    plain, slow = (open_minutes(climate, retarder) for retarder in (False, True))
    lines: list[Line] = [Fact(f"For {cm2:.0f}\u202fcm², {counted(well.coats, 'coat')}", f"{page.ml_of(well):.1f}\u202fml")]
    if well.id > 0:
        lines.append(
            Amount("Coats", well.coats, 1, 9, lambda v: mode.change(f"{v:.0f} coats", replace(well, coats=round(v)), "coats"))
        )
    if page.medium == "acrylic":
        lines.append(Fact("Stays open on the palette", _minutes(plain)))
        lines.append(Fact("with retarder, 1 in 10", _minutes(slow)))
    if well.id > 0 and well.recipe and not page.box_is_suggested:
        lines.append(Press("Compare a dry dab of it…", lambda: page.compare_dab(well)))
    if well.mixed_on is not None:
        lines.append(Note(f"✓ Mixed {day_text(well.mixed_on)}.", "good"))
        lines.append(Press("Top it up: mix it again", lambda: mode.change("Topping up", replace(well, mixed_on=None))))
    return Section("Mix", tuple(lines))


def _minutes(minutes: float) -> str:
    return f"{minutes:.0f}\u202fmin" if minutes < 90 else f"{minutes / 60:.1f}\u202fh"


def _elsewhere(mode: "WellsMode", well: Well) -> Section:
    places, page = mode.elsewhere, mode.page
    lines: list[Line] = []
    if places is not None:
        size = page.commission.compose.width_mm, page.commission.compose.height_mm
        where = list(dict.fromkeys(place_words(at, *size) for at in places.places[:4]))
        lines.append(
            Note(
                f"{100 * places.share:.0f}\u202f% of the picture lies within {mode.reach:g} of it: {', '.join(where) or 'nowhere large'}."
            )
        )

    def reach(value: float) -> Meaning:
        mode.reach = value
        page.refresh()
        return None

    def shown(on: bool) -> Meaning:
        mode.elsewhere_on = on
        page.refresh()
        return None

    lines += [
        Tick("Show it on the picture (E)", mode.elsewhere_on, shown),
        Amount("Within a difference of", mode.reach, 1, 20, reach),
    ]
    return Section("Where else it belongs", tuple(lines), f"{100 * places.share:.0f}\u202f% of the picture" if places else "…")


def _changing(mode: "WellsMode", well: Well) -> Section:
    page = mode.page
    called, names = page.name_of(well), page.box.names_of(page.medium)

    def named(text: str) -> Meaning:
        new = replace(well, name=text.strip())
        return mode.change(f"Named the well {new.name}" if new.name else f"Took the name off {called}", new)

    def mixed(text: str) -> Meaning:
        if not text.strip():
            return mode.change(f"Took the mix off {called}", replace(well, mix="", recipe=(), mixed_on=None))
        try:
            recipe = read_recipe(text, names)
        except RecipeTrouble:
            return mode.change(f"Wrote the mix of {called}", replace(well, mix=text.strip(), recipe=(), mixed_on=None))
        return mode.take_recipe(well, recipe)

    written = recipe_words(well.recipe, page.box.names) if well.recipe else well.mix
    lines: list[Line] = [
        Field("Name", well.name, named, called, about=well.id),
        Field("Mix, in parts", written, mixed, "white 6 : ochre 2 : sienna 1", True, well.id),
    ]
    if well.mix and not well.recipe:
        try:
            read_recipe(well.mix, names)
        except RecipeTrouble as trouble:
            lines.append(Note(f"Kept as words, not reckoned: {trouble}", "plain" if well.answered else "wrong"))
        else:
            lines.append(Press("Reckon it by the tubes", lambda: mixed(well.mix)))
    sitters = page.commission.brief.sitters
    if len(sitters) > 1:
        options = ((0, "all sitters"), *((s.id, s.name) for s in sitters))
        lines.append(
            Pick(
                "Belongs to",
                well.sitter_id,
                options,
                lambda v: mode.change(f"{called} is another sitter's", replace(well, sitter_id=v)),
            )
        )
    if well.at_mm is None:
        lines.append(Note("Its place is no longer on the canvas; colour and mix are kept."))
    lines.append(Press("Empty this well", lambda: Edit(PALETTE, f"Emptied {called}", lambda p: empty_well(p, well.id))))
    return Section(
        "Change this well", tuple(lines), recipe_words(well.recipe, page.box.names) if well.recipe else well.mix or "no mix yet"
    )


def _taking(mode: "WellsMode") -> Section:
    return Section(
        "Taking a colour",
        (
            _patch(mode),
            Note(
                "Click on the picture: the mean of the patch becomes a well. White fur reflects what is round it; trust the patch."
            ),
        ),
    )


def _patch(mode: "WellsMode") -> Line:
    def patch(mm: float) -> Meaning:
        mode.patch_mm = mm
        mode.page.refresh()
        return None

    return Amount("Patch on the canvas", mode.patch_mm, 0.5, 60, patch, 0.5, 1, "mm")


def _string(mode: "WellsMode") -> Section:
    page, palette = mode.page, mode.page.commission.palette
    lines: list[Line] = [_patch(mode)]
    if not palette.of(page.sitter_id):
        lines.append(
            Amount(
                "Wells in the string",
                palette.values,
                5,
                9,
                lambda v: Edit(PALETTE, f"A string of {v:.0f}", lambda p: replace(p, values=round(v)), "values"),
            )
        )
    elif page.mixes:
        lines.append(Press(f"A fresh string of {palette.values} beside these", page.string_anew))
    shared = _shared(mode)
    if shared:
        lines.append(Fact("Tubes all sitters share", shared))
    lines += [
        Amount(
            "On at most so many tubes",
            palette.most,
            2,
            8,
            lambda v: Edit(PALETTE, f"At most {v:.0f} tubes", lambda p: replace(p, most=round(v)), "most"),
        ),
        Tick(
            "Fit the photograph's darks to paint",
            palette.fit_darks,
            lambda on: Edit(
                PALETTE, "Darks fitted to paint" if on else "Darks as in the photograph", lambda p: replace(p, fit_darks=on)
            ),
        ),
        Note(
            "Dull paint cannot be as dark as a screen: fitting lifts the darks by 2 to 3 so that all of them can be mixed apart."
        ),
        Note("The target is the photograph's colour, not the sitter's: its white balance is not known."),
    ]
    if mode.hues:
        lines.append(
            Note(f"The picture's hues: {_hues(mode.hues)}. The wells': {_hues(families([w.lab for w in page.wells]))}.")
        )
        lines.append(Note("Few families hold a picture together: use a mixed colour again elsewhere, pure or thinned."))
    return Section("The string", tuple(lines), f"at most {palette.most} tubes")


def _hues(found: tuple[tuple[str, float], ...]) -> str:
    return ", ".join(f"{name} {100 * share:.0f}\u202f%" for name, share in found[:4])


def _shared(mode: "WellsMode") -> str:
    """Names of the tubes in every sitter's mixes; empty with one sitter."""
    page = mode.page
    wells = page.commission.palette.wells
    groups = [
        {s.tube for w in wells if w.sitter_id == i for s in w.recipe} for i in {w.sitter_id for w in wells if w.sitter_id}
    ]
    names = page.box.names
    return ", ".join(names.get(t, "") for t in sorted(set.intersection(*groups))) if len(groups) > 1 else ""


def _care(mode: "WellsMode") -> Section:
    page = mode.page
    box = page.box
    used = {s.tube for w in page.wells for s in w.recipe}
    tubes = [t for t in box.tubes if t.id in used]
    metals = list(dict.fromkeys(t.entry.hazard for t in tubes if t.entry.hazard))
    lines: list[Line] = []
    if metals:
        lines.append(Note(_METALS.format(metals=" and ".join(metals).capitalize()), "wrong"))
    fading = [t.called for t in tubes if (t.lightfast or t.entry.lightfast) in ("poor", "fair")]
    if fading:
        lines.append(
            Note(
                f"{' and '.join(fading).capitalize()} may fade: {'a' if len(fading) == 1 else ''} poor choice for a portrait that is to last.",
                "wrong",
            )
        )
    short = to_order(box, page.spent) if not page.box_is_suggested else ()
    for s in short:
        lines.append(
            Note(f"{box.names[s.tube]}: {s.needed_ml:.0f}\u202fml needed, {s.left_ml:.0f} left; buy {s.tubes}.", "wrong")
        )
    lines.append(
        Note(
            "Acrylic dries darker: judge the dry look. Read each tube's label."
            if page.medium == "acrylic"
            else "Read each tube's label and safety data sheet."
        )
    )
    return Section("Care", tuple(lines))
