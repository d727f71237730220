"""The school as a sentence of switches; each choice says what moves."""

from dataclasses import replace
from functools import partial
from typing import TYPE_CHECKING, Any

from yarrow_lane.commission.recompose import Proposal, resequence
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.commission.studio import set_climate, with_jar, with_school, without_school
from yarrow_lane.layers.brushes import jar_text, read_jar
from yarrow_lane.layers.regions import choose_school
from yarrow_lane.layers.rules import moved_words
from yarrow_lane.layers.school import NamedSchool, School, values_used, why
from yarrow_lane.measure.words import begun
from yarrow_lane.paint.drying import film_minutes
from yarrow_lane.ui.bench_sheet import Amount, Fact, Field, Line, Meaning, Note, Pick, Press, Section, Switch, plain_options
from yarrow_lane.ui.words import drying_text

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

_ROWS: tuple[tuple[str, str, tuple[str, ...]], ...] = (
    ("Eyes", "eyes", ("first", "early", "last")),
    ("Values", "values", ("dark to light", "middle out", "light first")),
    ("Work", "round", ("all over", "area by area", "square by square")),
    ("Background", "background", ("first", "last", "alongside")),
)


def school_switches(page: "LayersPage") -> tuple[Switch, ...]:
    """The four choices that decide most."""
    school = page.commission.layers.school
    return tuple(
        Switch(label, plain_options(options), partial(_choose, page, name), getattr(school, name))
        for label, name, options in _ROWS
    )


def _choose(page: "LayersPage", name: str, value: Any) -> Meaning:
    chosen: dict[str, Any] = {name: value}
    return schooled(page, replace(page.commission.layers.school, **chosen))


def schooled(page: "LayersPage", wanted: School) -> Meaning:
    """Another school: what moves is said, what is painted keeps its place."""
    c, climate = page.commission, page.studio.climate
    if wanted == c.layers.school:
        return None
    after = replace(c, layers=choose_school(c.layers, wanted))
    used, reason = values_used(wanted, c.brief.medium)
    words = moved_words(passes_in(c, climate), passes_in(after, climate))
    refused = f" {begun(c.brief.medium)} goes {used}: {reason}." if reason else ""
    page.say_after(f"{begun(_changed(c.layers.school, wanted))}: {words}.{refused}")
    return Proposal(
        begun(_changed(c.layers.school, wanted)), "Layers",
        lambda now: resequence(now, replace(now, layers=choose_school(now.layers, wanted)), climate),
    )  # fmt: skip


def _changed(before: School, after: School) -> str:
    """What is chosen now, in words."""
    names = {
        "eyes": "eyes {}",
        "values": "values {}",
        "round": "{}",
        "background": "background {}",
        "outline": "outline {}",
        "finish": "{} finish",
    }
    said = [words.format(getattr(after, n)) for n, words in names.items() if getattr(before, n) != getattr(after, n)]
    return ", ".join(said) if len(said) <= 2 else "another school"


def school_section(page: "LayersPage", with_all: bool = False) -> Section:
    """Outline, finish, own schools, and why the present choices are made; `with_all` where the sentence above has no room for the others."""
    school, studio = page.commission.layers.school, page.studio
    lines: list[Line] = [
        Pick(label, getattr(school, name), plain_options(options), partial(_choose, page, name))
        for label, name, options in _ROWS
        if with_all
    ]
    lines += [
        Pick(
            "Outline",
            school.outline,
            plain_options(("before tone", "after tone")),
            lambda v: schooled(page, replace(school, outline=v)),
        ),
        Pick(
            "Finish", school.finish, plain_options(("close", "painterly")), lambda v: schooled(page, replace(school, finish=v))
        ),
    ]
    used, reason = values_used(school, page.commission.brief.medium)
    if reason:
        lines.append(Note(f"{begun(page.commission.brief.medium)} goes {used}: {reason}.", "wrong"))
    lines.append(Note(f"Eyes {school.eyes}: {why('eyes', school.eyes)}. {begun(school.round)}: {why('round', school.round)}."))
    if studio.schools:
        named: tuple[tuple[Any, str], ...] = tuple((s.name, s.name) for s in studio.schools)
        mine = next((s.name for s in studio.schools if s.school == school), "")
        options = (("", "none of them"), *named)
        lines.append(Pick("Your schools", mine, options, lambda name: _take(page, name)))
        if mine:
            lines.append(Press(f"Forget “{mine}”", lambda: _forget(page, mine)))
    lines.append(Field("Keep this order as", page.school_name, page.write_school_name, "a name of your own"))
    lines.append(Press("Keep it", lambda: _keep(page)))
    decision = f"eyes {school.eyes}, {school.values}, {school.round}" if with_all else f"{school.outline}, {school.finish}"
    return Section("School", tuple(lines), decision)


def _take(page: "LayersPage", name: str) -> Meaning:
    found = next((s for s in page.studio.schools if s.name == name), None)
    return schooled(page, found.school) if found is not None else None


def _keep(page: "LayersPage") -> Meaning:
    named = NamedSchool(page.school_name, page.commission.layers.school)
    page.desk.do_studio("Kept a school", lambda s: with_school(s, named))
    page.school_name = ""
    page.refresh()
    return None


def _forget(page: "LayersPage", name: str) -> Meaning:
    page.desk.do_studio("Forgot a school", lambda s: without_school(s, name))
    page.refresh()
    return None


def drying_section(page: "LayersPage") -> Section:
    """The air at the easel: what all drying is reckoned with, for every commission."""
    climate = page.studio.climate

    def do(label: str, **values: Any) -> Meaning:
        page.desk.do_studio(label, lambda s: set_climate(s, replace(climate, **values)))
        page.refresh()
        return None

    lines: list[Line] = [
        Fact("At the easel", f"{climate.celsius:.0f}\u202f°C, {climate.humidity:.0f}\u202f%"),
        Pick("Air", climate.air, plain_options(("still", "fan", "dryer")), lambda v: do(f"Dries by {v} air", air=v)),
        Amount("Retarder, parts in ten", climate.retarder, 0, 3, lambda v: do("Changed the retarder", retarder=v), 0.5, 1),
    ]
    if climate.air == "dryer":
        lines.append(
            Note(
                "From 30\u202fcm or more, always moving; keep it and its lead away from water, and do not leave it running.",
                "wrong",
            )
        )
    normal = film_minutes("normal", "acrylic", climate)
    decision = f"{climate.air} air, a normal acrylic film {drying_text(normal)}"
    return Section("Drying here", tuple(lines), decision)


def jar_section(page: "LayersPage") -> Section:
    """The painter's own brushes: the nearest one is named beside the advised width."""
    jar = page.studio.jar

    def write(text: str) -> Meaning:
        found = read_jar(text)
        page.desk.do_studio("Wrote the brushes down", lambda s: with_jar(s, found))
        page.refresh()
        return None

    field = Field("Kind and width in mm, parted by commas", jar_text(jar), write, "flat 20, filbert 8, liner 1", long=True)
    return Section("Your brushes", (field,), f"{len(jar)} in the jar" if jar else "none written down")
