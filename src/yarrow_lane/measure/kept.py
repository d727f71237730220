"""Answers kept by the identity of what was asked about: values here are immutable, so the same object has the same answer."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from functools import wraps
from typing import Any, TypeVar, cast

Function = TypeVar("Function", bound=Callable[..., Any])
_BY_VALUE = (str, int, float, bool, type(None))


def kept(most: int, of: Callable[[Any], Hashable] | None = None) -> Callable[[Function], Function]:
    """Keep the newest `most` answers of a pure function; with `of` so many for each group that it tells of the first argument.

    Hashing a part with sixty thousand points costs more than any edit; its identity costs nothing. The arguments are held as long
    as the answer, so that an identity is never taken for another's.
    """

    def wrap(function: Function) -> Function:
        groups: dict[Hashable, OrderedDict[tuple[object, ...], tuple[tuple[object, ...], Any]]] = {}

        @wraps(function)
        def ask(*arguments: object) -> Any:
            answers = groups.setdefault(None if of is None else of(arguments[0]), OrderedDict())
            key = tuple(a if isinstance(a, _BY_VALUE) else id(a) for a in arguments)
            if key in answers:
                answers.move_to_end(key)
                return answers[key][1]
            answer = function(*arguments)
            answers[key] = (arguments, answer)
            while len(answers) > most:
                answers.popitem(last=False)
            return answer

        return cast(Function, ask)

    return wrap
