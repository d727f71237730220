"""What the demo's commissions share: a clock that can be set, and steps a painter takes in a row."""

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from yarrow_lane.compose.canvas import frame, largest_crop_width, set_size
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.clock import Happening, running
from yarrow_lane.easel.session import finish_pass
from yarrow_lane.intake.brief import Medium, SitterKind, new_brief, with_title
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.intake.photos import Eye, Photo, Use, add_photo, mark_eye, mark_landmark, set_rights, set_use
from yarrow_lane.intake.rights import Consent, Permission, Rights
from yarrow_lane.layers.passes import sequence
from yarrow_lane.layers.regions import Kind, School, add_region, choose_school
from yarrow_lane.measure.plane import Point, Polygon, Rect
from yarrow_lane.palette.wells import add_well, change_well, patch_colour


class SetClock:
    """The demo's clock: told what time it is."""

    def __init__(self, now: datetime) -> None:
        self.now = now

    def __call__(self) -> datetime:
        return self.now


class Scene:
    """One commission being told, step by step, through the desk's own edits."""

    def __init__(self, desk: Desk, clock: SetClock) -> None:
        self.desk, self.clock = desk, clock
        self.id = ""

    def at(self, days: float, hour: float = 10.0) -> "Scene":
        """Set the clock to so many days from the opening of the demo, at that hour."""
        day = self._today + timedelta(days=days)
        midnight = day.replace(hour=0, minute=0, second=0, microsecond=0)
        self.clock.now = midnight + timedelta(minutes=round(hour * 60))
        return self

    _today: datetime

    def begin(
        self, today: datetime, days_ago: float, title: str, sitter: str, kind: SitterKind, client: str, medium: Medium,
        due_in: int, wish: str,
    ) -> "Scene":  # fmt: skip
        self._today = today
        self.at(-days_ago)
        promised = (today + timedelta(days=due_in)).date()
        self.id = self.desk.start_commission(new_brief(sitter, kind, client, medium, self.clock.now.date(), promised, wish))
        if title != sitter:
            self.desk.do_part(self.id, "Named the commission", "brief", lambda b: with_title(b, title), "Intake")
        return self

    def sitter(self, **facts: Any) -> None:
        """Write down more about the only sitter."""
        self.desk.do_part(
            self.id, "Changed the sitter", "brief", lambda b: replace(b, sitters=(replace(b.sitters[0], **facts),)), "Intake"
        )

    # --- intake

    def photo(
        self,
        data: bytes,
        name: str,
        use: Use,
        eyes: tuple[Eye, ...] = (),
        permission: Permission = "client",
        by: str = "",
        consent: Consent = "not asked",
        landmarks: tuple[Landmark, ...] = (),
    ) -> Photo:
        photo = self.desk.photo_from_file(data, name)
        self.desk.do_part(self.id, f"Took in {name}", "intake", lambda i: add_photo(i, photo))
        for eye in eyes:
            self.desk.do_part(self.id, f"Marked the {eye.side} eye", "intake", then(mark_eye, photo.id, eye))
        for mark in landmarks:
            self.desk.do_part(self.id, f"Marked the {mark.name}", "intake", then(mark_landmark, photo.id, mark))
        if use != "undecided":
            self.desk.do_part(self.id, f"Use: {use}", "intake", lambda i: set_use(i, photo.id, use))
        rights = Rights(permission, by, consent=consent)
        self.desk.do_part(self.id, "Wrote down the rights", "intake", lambda i: set_rights(i, photo.id, rights))
        return photo

    # --- compose and transfer

    def frame(self, photo: Photo, width_mm: float, height_mm: float, name: str, share: float, centre: Point) -> None:
        """Size and crop: `share` of the widest crop, about `centre` in shares of the photograph."""
        size = (photo.width_px, photo.height_px)
        self.desk.do_part(self.id, "Chose the size", "compose", lambda c: set_size(c, width_mm, height_mm, name))
        self.desk.do_part(
            self.id, "Laid the crop", "compose",
            lambda c: frame(
                c, photo.id, size, share * largest_crop_width(c, size), (centre[0] * size[0], centre[1] * size[1])
            ),
        )  # fmt: skip

    def squares(self, count: int, drawn: float) -> None:
        """Take squares and draw a share of them, row by row."""
        self.desk.do(
            self.id,
            f"{count} squares across the short side",
            "Transfer",
            lambda c: replace(c, transfer=replace(c.transfer, count=count)),
        )
        squares = self.desk.commission(self.id).squares
        assert squares is not None
        done = squares.all[: round(drawn * len(squares.all))]
        self.desk.do_part(self.id, f"Drew {len(done)} squares", "transfer", lambda t: replace(t, drawn=tuple(sorted(done))))

    def ground(self, ground: str, coats: int = 2) -> None:
        self.desk.do_part(self.id, f"Ground: {ground}", "tone", lambda t: replace(t, ground=ground, ground_coats=coats))

    # --- palette and layers

    def wells(self, sitter: str, found: tuple[tuple[str, Point, str], ...], patch_mm: float = 6.0) -> None:
        """Take colours: (name, place in photograph px, mix)."""
        picture = open_picture(sitter_file(sitter).jpeg, sitter).picture
        compose = self.desk.commission(self.id).compose
        for name, point, mix in found:
            side = patch_mm * compose.px_per_mm
            srgb, lab = patch_colour(picture, Rect(point[0] - side / 2, point[1] - side / 2, side, side))
            at = compose.to_canvas(point)
            self.desk.do_part(self.id, "Took a colour", "palette", then(add_well, at, patch_mm, srgb, lab, name))
            if mix:
                well = replace(self.desk.commission(self.id).palette.wells[-1], mix=mix)
                self.desk.do_part(self.id, f"Wrote the mix of {name}", "palette", then(change_well, well))

    def regions(self, outlines: tuple[tuple[str, Kind, Polygon], ...], school: School) -> None:
        """Draw regions: (name, kind, outline in photograph px); the background takes the whole canvas."""
        c = self.desk.commission(self.id)
        r = c.canvas
        whole = ((0.0, 0.0), (r.width, 0.0), (r.width, r.height), (0.0, r.height))
        self.desk.do_part(self.id, "Drew a background region", "layers", lambda x: add_region(x, "background", whole, r))
        for name, kind, outline in outlines:
            placed = tuple(c.compose.to_canvas(p) for p in outline)
            self.desk.do_part(
                self.id, f"Drew a {kind} region", "layers", then(add_region, kind, placed, r, name)
            )  # fmt: skip
        self.desk.do_part(self.id, "Chose the order of work", "layers", lambda x: choose_school(x, school))

    def paint(
        self, count: int, first_day: float, hours_a_day: float = 4.0, paces: tuple[float, ...] = (1.0, 1.15, 0.9)
    ) -> None:
        """Paint the next passes from `first_day` on, so many hours a day, each at a pace of its own."""
        c = self.desk.commission(self.id)
        passes = [p for p in sequence(c.layers, c.brief.medium, self.desk.studio.climate) if c.easel.done(p.id) is None]
        day, used = first_day, 0.0
        for n, p in enumerate(passes[:count]):
            minutes = p.minutes * paces[n % len(paces)]
            if used + minutes / 60 > hours_a_day and used:
                day, used = day + 1, 0.0
            self.at(day, 10 + used)
            start = self.clock.now
            self.desk.happen(self.id, Happening("clock started", start, p.id, p.title))
            self.clock.now = start + timedelta(minutes=minutes)
            self.desk.happen(self.id, Happening("clock stopped", self.clock.now, p.id, p.title))
            end = self.clock.now
            self.desk.do_part(self.id, f"Finished {p.title}", "easel", then(finish_pass, p, end))
            used += minutes / 60 + p.dry_minutes / 60
        assert running(self.desk.commission(self.id).log) is None


def then(step: Callable[..., Any], *rest: object) -> Callable[[Any], Any]:
    """A room's step with all but its first argument given: what the desk applies to the part."""
    return lambda part: step(part, *rest)
