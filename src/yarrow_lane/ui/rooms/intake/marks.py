"""Each measure's place on the photograph, as overlays."""

import math

from yarrow_lane.intake.detail import about, iris_detail
from yarrow_lane.intake.evidence import Evidence, near_eye
from yarrow_lane.intake.landmarks import head_length_px
from yarrow_lane.intake.noise import eye_rect
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.measure.lengths import THIN_SPACE
from yarrow_lane.ui.kit.overlays import Arrow, Box, Cross, Outline, Overlay, Ring, Words


def marks_on(photo: Photo, evidence: Evidence | None, mark: str, guess: Eye | None) -> tuple[Overlay, ...]:
    """Where iris, lids, glints, light and head were measured; `mark` is what is marked now, `guess` a guess of the other eye."""
    found: list[Overlay] = []
    if guess is not None:
        words = f"{sitters_own(guess.side)} eye? P takes it"
        aside = "left" if guess.side == "left" else "right"
        found += [
            Ring((guess.x, guess.y), guess.radius_px, line="dashes"),
            Words((guess.x, guess.y), words, aside, clear_of=guess.radius_px),  # type: ignore[arg-type]
        ]
    for eye in photo.eyes:
        at, ink = (eye.x, eye.y), "light" if eye.side == mark else "faint"
        words = f"{sitters_own(eye.side)} {eye.across_px:.0f}{THIN_SPACE}px"
        # The words stand away from the other eye.
        side = "left" if eye.side == "left" else "right"
        found += [Ring(at, eye.radius_px, ink), Words(at, words, side, clear_of=eye.radius_px)]  # type: ignore[arg-type]
    length = head_length_px(photo.landmarks)
    if length is not None:
        places = {m.name: (m.x, m.y) for m in photo.landmarks}
        crown, chin = places["crown"], places["chin"]
        # Beside the upper part of the head: lower down the eyes have their own words.
        upper = crown[0] * 0.8 + chin[0] * 0.2, crown[1] * 0.8 + chin[1] * 0.2
        found += [Outline((crown, chin), line="dots", closed=False), Words(upper, f"head {length:.0f}{THIN_SPACE}px", "left")]
    near = near_eye(photo.eyes)
    if near is not None and evidence is not None:
        rect = eye_rect(near)
        detail = about(iris_detail(near.across_px, evidence))
        label = Words((rect.x, rect.bottom), f"detail {detail}{THIN_SPACE}px", shift=(-4, 12))
        found += [Box(rect, weight=1.2, line="dashes"), label]
    if evidence is not None:
        for glint in evidence.glints:
            found.append(Ring((glint.x, glint.y), radius_px=5, ink="light", weight=1.6))
    for point in photo.landmarks:
        found += [Cross((point.x, point.y)), Words((point.x, point.y), sitters_own(point.name), shift=(5, -9))]
    if near is not None and evidence is not None and evidence.light.degrees is not None:
        found.append(_light(photo, evidence, near.radius_px))
    return tuple(found)


def _light(photo: Photo, evidence: Evidence, radius: float) -> Arrow:
    """The arrow ends outside both eyes, so that it points at the face and hides neither."""
    assert evidence.light.degrees is not None
    xs, ys = [e.x for e in photo.eyes], [e.y for e in photo.eyes]
    middle = sum(xs) / len(xs), sum(ys) / len(ys)
    reach = math.hypot(max(xs) - min(xs), max(ys) - min(ys)) / 2 + 3 * radius
    degrees, sure = evidence.light.degrees, evidence.light.confidence == "sure"
    return Arrow(middle, degrees, reach, sure, f"light {degrees:.0f}°")
