"""Which things a part on record names."""

import re

_NAME = re.compile(r'"([0-9a-f]{64})"')


def names_in(text: str) -> set[str]:
    """Every word in a part that can be the hash of a thing; a few more than there are do no harm."""
    return set(_NAME.findall(text))
