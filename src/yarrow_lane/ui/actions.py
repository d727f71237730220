"""The one table of keys: what the window does with them, and what the sheet of keys says."""

from dataclasses import dataclass

EVERYWHERE = ""


@dataclass(frozen=True)
class KeyWords:
    """Keys and what they do, `where` a door's name, "Studio" or everywhere."""

    where: str
    keys: str
    words: str


@dataclass(frozen=True)
class Action:
    """Something the window itself does: its id, its keys as Qt writes them, and its words."""

    id: str
    keys: tuple[str, ...]
    words: str


ACTIONS: tuple[Action, ...] = (
    Action("act", ("Return", "Enter"), "do the next act, the yellow field"),
    Action("undo", ("Ctrl+Z",), "take the last change back, even after a restart"),
    Action("redo", ("Ctrl+Shift+Z", "Ctrl+Y"), "do it again"),
    Action("paste", ("Ctrl+V",), "take in a copied picture or copied files"),
    Action("keys", ("?",), "show or hide these keys"),
    Action("guide", ("F1",), "the guide; Esc leaves it"),
    Action("back", ("Esc",), "step back; from a door to the studio"),
    Action("quit", ("Ctrl+Q",), "quit; everything is kept already"),
)

_LOOKED_AT = ("Intake", "Transfer", "Tone", "Palette", "Layers", "Easel", "Check")  # at Compose + and − are the crop's

ROOM_KEYS: tuple[KeyWords, ...] = (
    KeyWords(EVERYWHERE, "1 to 9", "open a door, Intake to Deliver"),
    KeyWords(EVERYWHERE, "Tab", "go to the next choice on the bench"),
    KeyWords("Studio", "← →", "walk along the shelf"),
    KeyWords("Studio", "C", "the calendar, and back to the shelf"),
    KeyWords("Studio", "← → · Shift · P", "calendar: walk the sittings; with Shift to another day; fix or free one"),
    KeyWords("Studio", "B", "the books"),
    KeyWords("Books", "↑ ↓", "walk the commissions or clients; on the quote: more or less of a part"),
    KeyWords("Books", "← →", "on the quote: another part, at the ends the price"),
    KeyWords("Books", "M Y P K T", "money in time, the year, paint, clients, your terms"),
    KeyWords("Books", "Page up Page down", "turn the pages of a paper; Esc leaves it"),
    KeyWords("Studio", "N", "start a new commission"),
    KeyWords("Studio", "/", "find a commission by name, where there are a dozen or more"),
    KeyWords("Intake", "← → ↑ ↓", "walk through the photographs"),
    KeyWords("Intake", "Space", "look at one large, and back to all"),
    KeyWords("Intake", "[ ]", "a smaller or larger iris circle; arrows nudge it by a pixel"),
    KeyWords("Intake", "P", "take the dashed ring, a guess of the other eye"),
    KeyWords("Intake", "R", "set the iris ring to the rim, a guess"),
    KeyWords("Intake", "E L A", "eyes side by side, light of the leads, ask for more"),
    KeyWords("Compose", "← → ↑ ↓", "move the crop or the chosen sitter; with Shift in larger steps; turn the corner"),
    KeyWords("Compose", "+ −", "a larger or smaller crop or sitter; nearer to the wall or farther"),
    KeyWords("Compose", "< >", "turn the chosen sitter"),
    KeyWords("Compose", "N", "the next sitter"),
    KeyWords("Compose", "M", "mirror the chosen sitter"),
    KeyWords("Compose", "O L", "all at one scale; the chosen sitter at life size"),
    KeyWords("Compose", "Page up Page down", "bring a sitter forward or back"),
    KeyWords("Compose", "Space", "a cut-out on other grounds"),
    KeyWords("Compose", "X", "strokes add, strokes take away"),
    KeyWords("Compose", "[ ]", "a finer or wider stroke"),
    KeyWords("Compose", "P", "show the points of the line"),
    KeyWords("Compose", "Backspace", "take the last corner or stroke back"),
    KeyWords("Transfer", "← → ↑ ↓", "walk the squares"),
    KeyWords("Transfer", "Space", "mark the square drawn and go on to the next"),
    KeyWords("Transfer", "Q", "quarter the square, or not"),
    KeyWords("Transfer", "F", "turn all pictures upside down"),
    KeyWords("Transfer", "D · X · J · S", "lines: draw one, drop one, join or redraw, smooth"),
    KeyWords("Transfer", "← →", "by eye: the checks back and forth"),
    KeyWords("Transfer", "B", "measure: fade into what should be there"),
    KeyWords("Transfer", "+ − · C · B · R", "lines full screen: thickness, colour, crosses blink, turned over; Esc ends"),
    KeyWords("Palette", "← →", "walk the wells, dark to light"),
    KeyWords("Palette", "G", "show greys"),
    KeyWords("Layers", "D", "regions: draw the next one by corners"),
    KeyWords("Layers", "Backspace", "take the last corner back"),
    KeyWords("Layers", "← →", "walk the regions, patches or passes; Play: a pass back or on"),
    KeyWords("Layers", "W", "score: what usually goes wrong with the chosen pass"),
    KeyWords("Layers", "↑ ↓", "paint the chosen patch earlier or later"),
    KeyWords("Layers", "Home End · B", "Play: the ground, the last pass; blink with what stands beside it"),
    KeyWords("Easel", "Space", "start and stop the clock"),
    KeyWords("Easel", "Enter", "start the clock; while it runs, finish the pass"),
    KeyWords("Easel", "F", "stand at it: the whole window for one patch at a time"),
    KeyWords("Easel", "→ ← · 8", "stand: on, back (also Page Down, Page Up of a pedal); done to 80 %"),
    KeyWords("Easel", "U G S T · D W · ?", "stand: upside down, grey, squint, strip; dry or still wet by touch; what helps"),
    KeyWords("Easel", "Z", "show the whole crop, and back to the region"),
    KeyWords("Check", "← →", "corners: walk them, enlarged"),
    KeyWords("Check", "↑ ↓", "the next place to mend"),
    KeyWords("Check", "B", "blink between reference and painting"),
    KeyWords("Check", "L", "put the place on the last list, or take it off"),
    KeyWords("Check", "M", "it is meant so, or no longer"),
    KeyWords("Check", "E", "show where edges are softer than in the reference"),
    KeyWords("Check", "F", "looking: mirror, turn upside down, set upright"),
    KeyWords("Check", "G S Q T", "looking: greys, split, squint, small"),
    KeyWords("Check", "← → Space", "film: walk, run"),
    *(KeyWords(where, "+ − 0", "look closer, from farther off, at the whole") for where in _LOOKED_AT),
)


def keys_for(where: str) -> tuple[tuple[str, str], ...]:
    """Keys and words of one view, its own first."""
    own = tuple((k.keys, k.words) for k in ROOM_KEYS if k.where == where)
    shared = tuple((k.keys, k.words) for k in ROOM_KEYS if k.where == EVERYWHERE)
    return own + shared + tuple((" or ".join(a.keys).replace("Return or ", ""), a.words) for a in ACTIONS)
