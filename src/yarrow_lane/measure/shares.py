"""Shares in whole per cent that add to 100."""

from collections.abc import Sequence


def percents(shares: Sequence[float]) -> tuple[int, ...]:
    """Whole per cent of shares 0..1 that add to 1: rounded down, the largest remainders up, so that they add to 100."""
    whole = [int(100 * share) for share in shares]
    order = sorted(range(len(shares)), key=lambda n: whole[n] - 100 * shares[n])
    for n in order[: 100 - sum(whole)]:
        whole[n] += 1
    return tuple(whole)
