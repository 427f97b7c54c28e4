"""Numbers are worked out by anybody, beside anybody: no thread waits for another's rig."""

from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from dataclasses import fields, is_dataclass
from datetime import UTC, datetime
from importlib import import_module
from itertools import pairwise
from threading import Event

import pytest

from lyrandis.core.assessment import judge
from lyrandis.core.computed import Computed, compute
from lyrandis.core.flight.evidence import CurvesAsked, Reckoned, reckon
from lyrandis.core.lazy import lazy
from lyrandis.core.record import as_entries
from lyrandis.core.setup import Setup, fold
from lyrandis.core.stages import STAGES
from lyrandis.demo.scenario import SUBJECTS, drafts

RIGS = tuple(name for kind, name, _ in SUBJECTS if kind == "rig")


@pytest.fixture(scope="module")
def setups() -> dict[str, Setup]:
    entries = as_entries(drafts(), now=datetime(2026, 6, 1, tzinfo=UTC))
    return {rig: fold(entries, rig=rig) for rig in RIGS}


def said(c: Computed) -> str:
    """All that is said and drawn of a rig."""
    drawn = [spec.page(c).model_dump_json() for spec in STAGES if spec.applies(c.setup)]
    return judge(c).model_dump_json() + "".join(drawn)


def test_a_rig_is_worked_out_while_anothers_curves_are_waited_for(
    setups: dict[str, Setup],
) -> None:
    waiting, go = Event(), Event()

    def slow(asked: CurvesAsked) -> Reckoned:
        waiting.set()
        assert go.wait(20)
        return reckon(asked)

    with_flight = next(rig for rig in RIGS if setups[rig].flight.seen)
    other = next(rig for rig in RIGS if rig != with_flight)
    with ThreadPoolExecutor(2) as pool:
        first = pool.submit(lambda: said(compute(setups[with_flight], slow)))
        assert waiting.wait(20)
        second = pool.submit(lambda: said(compute(setups[other])))
        assert second.result(20), "it does not wait for the other rig"
        assert not first.done()
        go.set()
        assert first.result(20) == said(compute(setups[with_flight]))


@pytest.mark.parametrize(("one", "other"), [*pairwise(RIGS), (RIGS[0], RIGS[0])])
def test_every_pair_of_rigs_side_by_side_says_what_each_says_alone(
    setups: dict[str, Setup], one: str, other: str
) -> None:
    alone = {rig: said(compute(setups[rig])) for rig in {one, other}}
    with ThreadPoolExecutor(2) as pool:
        for _ in range(3):
            beside = list(pool.map(lambda rig: said(compute(setups[rig])), (one, other)))
            assert beside == [alone[one], alone[other]]


def test_one_value_asked_by_two_threads_comes_to_one_answer(setups: dict[str, Setup]) -> None:
    """Every lazy number of every stage, from both ends at once."""
    with ThreadPoolExecutor(2) as pool:
        for rig in RIGS:
            c = compute(setups[rig])
            asked = [(value, name) for value in numbers_of(c) for name in lazies_of(value)]
            both = [asked, asked[::-1]]
            forth, back = pool.map(lambda names: [getattr(*one) for one in names], both)
            assert all(a is b for a, b in zip(forth, reversed(back), strict=True))


def numbers_of(c: Computed) -> list[object]:
    found = [getattr(c, one.name) for one in fields(c) if one.name != "setup"]
    return [one for one in found if is_dataclass(one)]


def lazies_of(value: object) -> list[str]:
    return [name for name in dir(type(value)) if isinstance(getattr(type(value), name), lazy)]


IN_ORDER = {
    "flight": ("flight_log", "flight_belief", "flight_verdict", "flight_match", "flight_tests"),
    "crawls": ("basis_of", "crawl_table", "crawl_checks"),
}


def test_nothing_is_worked_out_twice_in_one_assessment(
    setups: dict[str, Setup], monkeypatch: pytest.MonkeyPatch
) -> None:
    """Counted: each lazy number of each value once, and each step of the crawls and the flight."""
    made: Counter[tuple[int, str]] = Counter()
    values: list[object] = []
    plain = lazy.__get__

    def counted(self: lazy[object], value: object, owner: type) -> object:
        if value is not None and self._name not in value.__dict__:
            values.append(value)  # kept, so that its number is not given to another
            made[id(value), self._name] += 1
        return plain(self, value, owner)

    steps: Counter[str] = Counter()

    def counting(name: str, work):  # type: ignore[no-untyped-def]
        def once(*args: object, **more: object) -> object:
            steps[name] += 1
            return work(*args, **more)

        return once

    for stage, names in IN_ORDER.items():
        module = import_module(f"lyrandis.core.{stage}.numbers")
        for name in names:
            monkeypatch.setattr(module, name, counting(name, getattr(module, name)))
    monkeypatch.setattr(lazy, "__get__", counted)
    for rig in RIGS:
        made.clear()
        steps.clear()
        judge(compute(setups[rig]))
        assert set(made.values()) <= {1}, made.most_common(3)
        assert {steps[name] for name in IN_ORDER["flight"]} == {1}
        assert {steps[name] for name in IN_ORDER["crawls"]} == {1 + len(setups[rig].other_arrows)}
