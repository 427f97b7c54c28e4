"""A lazy property waits for nobody: not for another value's, and not for one that asks back."""

from threading import Event, Thread

from lyrandis.core.lazy import lazy


class Slow:
    """A value whose number waits until it is let go."""

    def __init__(self) -> None:
        self.begun, self.go = Event(), Event()

    @lazy
    def number(self) -> int:
        self.begun.set()
        assert self.go.wait(5)
        return 7


def in_thread(work):
    found = []
    thread = Thread(target=lambda: found.append(work()), daemon=True)
    thread.start()
    return thread, found


def test_one_value_does_not_wait_for_anothers():
    slow, quick = Slow(), Slow()
    quick.go.set()
    thread, found = in_thread(lambda: slow.number)
    assert slow.begun.wait(5)
    other, at_once = in_thread(lambda: quick.number)
    other.join(5)
    assert at_once == [7]
    slow.go.set()
    thread.join(5)
    assert found == [7]


def test_two_threads_that_ask_for_each_others_values_come_to_an_end():
    class Pair:
        other: "Pair"

        def __init__(self) -> None:
            self.inside, self.go = Event(), Event()

        @lazy
        def own(self) -> int:
            self.inside.set()
            assert self.go.wait(5)
            return 1

        @lazy
        def both(self) -> int:
            return self.own + self.other.own

    left, right = Pair(), Pair()
    left.other, right.other = right, left
    threads = [in_thread(lambda: left.both), in_thread(lambda: right.both)]
    assert left.inside.wait(5)
    assert right.inside.wait(5)
    left.go.set()
    right.go.set()
    for thread, _ in threads:
        thread.join(5)
    assert [found for _, found in threads] == [[2], [2]]


def test_two_threads_at_once_get_the_same_value():
    class Made:
        def __init__(self) -> None:
            self.asked = 0
            self.go = Event()

        @lazy
        def list_of_it(self) -> list[int]:
            self.asked += 1
            assert self.go.wait(5)
            return [self.asked]

    made = Made()
    threads = [in_thread(lambda: made.list_of_it) for _ in range(2)]
    made.go.set()
    for thread, _ in threads:
        thread.join(5)
    assert threads[0][1][0] is threads[1][1][0] is made.list_of_it
