"""Remembering what was worked out of facts that have not changed since.

A rig's facts hold the very readings they held before something else was recorded, so comparing
them is quick, where working through hundreds of readings again is not.
"""

from collections import deque
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")

KEPT = 12
"""Answers kept of each function: some rigs in turn, each with some sets of arrows."""


def memo_by_equality(work: Callable[P, R]) -> Callable[P, R]:
    """Let a pure function answer from memory where it was asked the same lately.

    For arguments that are compared sooner than hashed. The answer is shared: not to be written to.

    >>> asked = []
    >>> work = memo_by_equality(lambda of: asked.append(of) or sum(of))
    >>> work([1, 2]), work([1, 2]), work([1, 2, 3]), len(asked)
    (3, 3, 6, 2)
    """
    kept: deque[tuple[object, object, R]] = deque(maxlen=KEPT)

    @wraps(work)
    def answer(*args: P.args, **kwargs: P.kwargs) -> R:
        for known, named, found in tuple(kept):
            if known == args and named == kwargs:
                return found
        result = work(*args, **kwargs)
        kept.appendleft((args, kwargs, result))
        return result

    return answer
