"""What every page is handed: the desk, the pictures, the jobs and a way to speak."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.judge import Judge
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.jobs import Jobs
from yarrow_lane.ui.pictures import PictureShelf


@dataclass(frozen=True)
class Workroom:
    """Handed to pages by the window; `say(text, wrong)` shows a message, `open_door(id, door)` goes there."""

    desk: Desk
    jobs: Jobs
    pictures: PictureShelf
    judge: Judge
    say: Callable[[str, bool], None]
    open_door: Callable[[str, str], None]

    @property
    def now(self) -> datetime:
        return self.desk.clock()

    def attempt(self, step: Callable[[], object]) -> bool:
        """Do a step; trouble is said in words and nothing has changed. Returns whether it went well."""
        try:
            step()
        except Trouble as trouble:
            self.say(trouble.sentence, True)
            return False
        return True
