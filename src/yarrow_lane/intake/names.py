"""A sitter's name proposed from the name of a photograph's file."""

import re
from pathlib import PurePath

from yarrow_lane.measure.words import begun

# What cameras, telephones and people write into file names: from memory, and our choice of what is no sitter's name.
_NO_NAME = frozenset(
    [
        "img",
        "image",
        "images",
        "dsc",
        "dscn",
        "dscf",
        "pict",
        "pic",
        "pics",
        "picture",
        "photo",
        "photos",
        "foto",
        "scan",
        "screenshot",
        "screen",
        "shot",
        "capture",
        "video",
        "vid",
        "mvi",
        "pano",
        "hdr",
        "portrait",
        "face",
        "head",
        "eye",
        "eyes",
        "ear",
        "ears",
        "nose",
        "profile",
        "left",
        "right",
        "front",
        "back",
        "side",
        "full",
        "closeup",
        "close",
        "up",
        "of",
        "the",
        "a",
        "my",
        "our",
        "at",
        "in",
        "on",
        "and",
        "copy",
        "final",
        "edit",
        "edited",
        "new",
        "old",
        "best",
        "small",
        "large",
        "big",
        "hq",
        "web",
        "original",
        "resized",
        "crop",
        "cropped",
        "thumb",
        "file",
        "untitled",
        "unnamed",
        "received",
        "message",
        "mail",
        "attachment",
        "px",
    ]
)
_MOST_WORDS = 2  # our choice: "Mr Whiskers", not a sentence


def proposed_name(file_name: str) -> str:
    """'fennel_head-2.jpg' gives 'Fennel'; empty where nothing in it can be a name."""
    words = re.findall(r"[^\W\d_]+(?:['’][^\W\d_]+)?", PurePath(file_name).stem)
    words = [part for word in words for part in re.sub(r"(?<=[a-zß-ÿ])(?=[A-ZÀ-Þ])", " ", word).split()]
    wanted: list[str] = []
    for word in words:
        if word.lower() not in _NO_NAME and len(word) > 1:
            wanted.append(word)
        elif wanted:
            break
    return " ".join(begun(word) for word in wanted[:_MOST_WORDS])
