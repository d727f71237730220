"""The evidence of one photograph in words: each measure with its number and its meaning."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.detail import carried_px_per_mm, detail_words, largest_canvas
from yarrow_lane.intake.brief import Sitter, front_word
from yarrow_lane.intake.detail import (
    FULL,
    IRIS_WORKABLE_PX,
    about,
    detail_of,
    iris_detail,
    iris_words,
)
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.exposure import REJECT_SHARE, WARN_SHARE
from yarrow_lane.intake.landmarks import head_length_px
from yarrow_lane.intake.light import side_words
from yarrow_lane.intake.photos import Photo
from yarrow_lane.intake.swelling import NOTICEABLE, SwellingTrouble, camera_distance_mm, swelling, swelling_words
from yarrow_lane.measure.lengths import Unit, length_text, size_text
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Fact, Line, Mood, Note
from yarrow_lane.ui.words import detail_mood


def sitter_of(c: Commission, p: Photo) -> Sitter | None:
    """Whom the photograph shows: the marked one, or the only one there is."""
    return c.brief.sitter(p.sitter_id) or (c.brief.sitters[0] if len(c.brief.sitters) == 1 else None)


def evidence_lines(c: Commission, p: Photo, e: Evidence | None, unit: Unit) -> tuple[Line, ...]:
    """All measures; those that need a mark say which."""
    if e is None:
        return (Note("Being measured…"),)
    lines: list[Line] = [*_detail(p, e), *_canvas(c, p, e, unit)]
    lines.append(_share("Highlights cut", e.high_share))
    lines.append(_share("Shadows cut", e.low_share))
    lines.append(Fact("Colour cast", e.cast.words, "plain" if e.cast.words == "none seen" else "wrong"))
    lines.append(
        Fact("Readable glints", f"{len(e.glints)} of {len(p.eyes)} eyes" if p.eyes else _without_eyes(p, "mark the eyes first"))
    )
    if e.light.degrees is not None:
        lines.append(Fact("Light from", f"{side_words(e.light.degrees)}, {e.light.degrees:.0f}°"))
        lines.append(Note(f"{begun(e.light.confidence)}: {e.light.why}. Degrees run clockwise from twelve."))
    else:
        lines.append(Fact("Light from", "unknown"))
        lines.append(Note(f"{begun(e.light.why)}."))
    lines += _swelling(c, p)
    return tuple(lines)


def _without_eyes(p: Photo, wanted: str) -> str:
    return "no eye is seen" if p.no_eyes else wanted


def _detail(p: Photo, e: Evidence) -> list[Line]:
    """What resolves, at the eyes and of the whole, with its reason."""
    seen = detail_of(p.width_px, p.height_px, e)
    lines: list[Line] = []
    if p.iris_px is None:
        lines.append(Fact("Detail at the eyes", _without_eyes(p, "mark an eye first")))
    else:
        detail = iris_detail(p.iris_px, e)
        mood: Mood = "good" if detail >= IRIS_WORKABLE_PX else "wrong"
        lines.append(Fact("Detail at the eyes", f"about {about(detail)}\u202fpx, {iris_words(detail)}", mood))
    lines.append(
        Fact(
            "Of each pixel’s side",
            f"about {about(100 * e.share)}\u202f%" if e.whole is not None else "not measured",
            "plain" if e.share >= FULL else "wrong",
        )
    )
    lines.append(Note(f"{begun(seen.words)}.", "wrong" if seen.fault else "plain"))
    return lines


def _canvas(c: Commission, p: Photo, e: Evidence, unit: Unit) -> list[Line]:
    lines: list[Line] = []
    if c.compose.sized:
        usable = carried_px_per_mm(c.compose, p, e)
        lines.append(Fact("At the planned size", f"{usable:.1f}\u202fusable px per mm", detail_mood(usable)))
        lines.append(Note(f"{begun(detail_words(usable))}."))
    lines.append(Fact("Largest canvas it carries", size_text(*largest_canvas(c.compose, p, e), unit)))
    return lines


def _share(label: str, share: float) -> Fact:
    mood: Mood = "wrong" if share > REJECT_SHARE else "plain"
    word = "much" if share > REJECT_SHARE else "some" if share > WARN_SHARE else "hardly any"
    return Fact(label, f"{share:.1%}, {word}", mood)


def _swelling(c: Commission, p: Photo) -> list[Line]:
    sitter = sitter_of(c, p)
    if p.focal_35_mm is None:
        return [Fact("Close-up swelling", "no focal length in the file")]
    head_px = head_length_px(p.landmarks)
    if sitter is None or not sitter.head_mm or not sitter.muzzle_mm or head_px is None:
        wants = "mark crown and chin" if head_px is None else "write the head's measures in the brief"
        return [Fact("Close-up swelling", wants)]
    distance = camera_distance_mm(p.focal_35_mm, (p.width_px, p.height_px), head_px, sitter.head_mm)
    try:
        times = swelling(distance, sitter.muzzle_mm)
    except SwellingTrouble as trouble:
        return [Note(trouble.sentence, "wrong")]
    words = Fact(
        "Close-up swelling", swelling_words(times, front_word(sitter.kind)), "wrong" if times >= NOTICEABLE else "good"
    )
    return [words, Note(f"The camera stood about {length_text(distance, 'cm', 0)} from the eyes.")]
