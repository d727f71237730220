"""The base of all our errors: one clear sentence for the painter."""


class Trouble(Exception):
    """Something the painter or the surroundings can mend.

    `what` happened, `why`, and the `remedy`; each a plain clause. The sentence
    shown is the three joined, so it names the file and the cause in one go.
    """

    def __init__(self, what: str, why: str = "", remedy: str = "") -> None:
        self.what = what
        self.why = why
        self.remedy = remedy
        super().__init__(self.sentence)

    @property
    def sentence(self) -> str:
        """What, why and what to do, as one sentence."""
        text = self.what
        if self.why:
            text += f", because {self.why}"
        if self.remedy:
            text += f"; {self.remedy}"
        return text + "."
