"""A property worked out when it is first asked for, and kept, without a lock.

`functools.cached_property` of Python 3.11 holds one lock for a property of *all* values while it
is worked out: one rig waits for another's numbers, and two properties that ask for each other's
values in two threads wait for good. Values here never change, so what two threads work out at
once is the same; the first to be done is kept.
"""

from collections.abc import Callable
from typing import Any, Generic, TypeVar, overload

T = TypeVar("T")


class lazy(Generic[T]):  # noqa: N801  it is used as a decorator, as `property` is
    """A property of a value that never changes, kept in the value once it is worked out.

    >>> class Bow:
    ...     asked = 0
    ...     @lazy
    ...     def stack(self) -> int:
    ...         Bow.asked += 1
    ...         return 28
    >>> bow = Bow()
    >>> bow.stack, bow.stack, Bow.asked
    (28, 28, 1)
    """

    def __init__(self, work: Callable[[Any], T]) -> None:
        self._work = work
        self._name = work.__name__
        self.__doc__ = work.__doc__

    def __set_name__(self, owner: type, name: str) -> None:
        self._name = name

    @overload
    def __get__(self, value: None, owner: type) -> "lazy[T]": ...

    @overload
    def __get__(self, value: object, owner: type) -> T: ...

    def __get__(self, value: object | None, owner: type) -> "lazy[T] | T":
        if value is None:
            return self
        # a dict's setdefault is one step: all threads get the value that came first
        kept: T = value.__dict__.setdefault(self._name, self._work(value))
        return kept
