"""The bench of what was put away: everything not on the shelf, delivered work by year, each with a way back."""

from collections.abc import Callable, Sequence

from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.desk.standings import Unreadable
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import BenchSheet, Fact, Line, Meaning, NextAct, Note, Press, Section

Back = Callable[[str], Meaning]


def away_bench(
    found: Sequence[CommissionStanding], unreadable: Sequence[Unreadable], bring_back: Back, to_today: Callable[[], Meaning]
) -> BenchSheet:  # fmt: skip
    """What is put away, the newest first, not delivered before delivered."""
    act = NextAct("Back to today", "", to_today)
    if not found and not unreadable:
        note = Note(
            "Nothing is put away. What you put away leaves the shelf and the plan; it stays on record and comes back from here."
        )
        return BenchSheet((Section("Put away", (note,)),), act)
    sections: list[Section] = []
    waiting = [s for s in found if s.delivered is None]
    if waiting or unreadable:
        lines = [line for s in waiting for line in _lines(s, bring_back)]
        lines += [Note(f"{u.title}: {u.trouble.sentence}", "wrong") for u in unreadable]
        sections.append(Section("Put away", tuple(lines)))
    years = sorted({s.delivered.year for s in found if s.delivered is not None}, reverse=True)
    for year in years:
        those = [s for s in found if s.delivered is not None and s.delivered.year == year]
        those.sort(key=lambda s: s.delivered, reverse=True)  # type: ignore[arg-type, return-value]
        lines = [line for s in those for line in _lines(s, bring_back)]
        count = counted(len(those), "portrait")
        sections.append(Section(f"Delivered in {year}", tuple(lines), "" if year == years[0] else count))
    return BenchSheet(tuple(sections), act)


def _lines(s: CommissionStanding, bring_back: Back) -> tuple[Line, Line]:
    words = f"for {s.client}" if s.client else "no client written"
    return Fact(s.title, words), Press(f"Bring {s.title} back to the shelf", lambda: bring_back(s.id))
