"""A rig's log in memory: what was read is not read again, and what is new is never missed."""

import sqlite3
from pathlib import Path

import pytest
from sqlalchemy import event

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.bow.readings import BowLength
from lyrandis.core.effective import in_order
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import Subject
from lyrandis.store import log as log_module
from lyrandis.store.bench import Bench, NewPart
from lyrandis.store.database import open_database
from lyrandis.store.log import RigLog
from tests.entries import draft
from tests.store.conftest import Clock


def made(bench: Bench) -> str:
    """A rig with an archer and a bow."""
    return bench.make_rig("Old yew", {"archer": NewPart("archer", "Ann"),
                                      "bow": NewPart("bow", "Yew")})  # fmt: skip


def lengths_in(log: RigLog) -> list[int]:
    """Bow lengths in order, in inches."""
    readings = [entry.reading for entry in log.entries]
    return [round(one.bow_length_mm / 25.4) for one in readings if isinstance(one, BowLength)]


def statements(bench: Bench) -> list[str]:
    found: list[str] = []
    engine = bench._read
    event.listen(engine, "before_cursor_execute", lambda *given: found.append(given[2]))
    return found


def test_the_same_log_is_returned_while_nothing_is_added(bench: Bench) -> None:
    rig = made(bench)
    first = bench.log_of_rig(rig)
    assert bench.log_of_rig(rig) is first
    bench.record([draft("note windy", on="rig", subject=rig)])
    assert bench.log_of_rig(rig) is not first


def test_only_what_is_new_is_read(bench: Bench) -> None:
    rig = made(bench)
    bench.record([draft("bow 62", subject="yew") for _ in range(30)])
    bench.log_of_rig(rig)
    asked = statements(bench)
    bench.record([draft("bow 64", subject="yew")])
    asked.clear()
    log = bench.log_of_rig(rig)
    selects = [one for one in asked if "entries.reading" in one]
    assert len(selects) == 1
    assert "seq >" in selects[0]
    assert 64 in lengths_in(log)
    asked.clear()
    bench.log_of_rig(rig)
    assert [one for one in asked if "entries.reading" in one] == []


def test_a_log_read_in_pieces_is_the_log_read_at_once(database: Path, clock: Clock) -> None:
    engine = open_database(database)
    bench = Bench(engine, clock)
    rig = made(bench)
    for number in range(25):
        days = (number * 7) % 11 - 20
        bench.record([draft("bow 62", subject="yew", days=days),
                      draft("draw 28", subject="ann", days=-days - 40)])  # fmt: skip
        bench.log_of_rig(rig)
    anew = Bench(engine, clock).log_of_rig(rig)
    pieces = bench.log_of_rig(rig)
    assert pieces.entries == anew.entries == tuple(in_order(anew.entries))
    assert pieces.revision == anew.revision == max(entry.seq for entry in anew.entries)
    engine.dispose()


def test_another_writer_of_the_same_file_is_seen(database: Path, clock: Clock) -> None:
    engine, other = open_database(database), open_database(database)
    mine, theirs = Bench(engine, clock), Bench(other, clock)
    rig = made(mine)
    mine.log_of_rig(rig)
    theirs.record([draft("bow 62", subject="yew")])
    assert mine.log_of_rig(rig).entries == theirs.log_of_rig(rig).entries
    engine.dispose()
    other.dispose()


def test_a_part_fitted_later_brings_all_of_its_past(bench: Bench) -> None:
    rig = made(bench)
    bench.make([NewPart("bow", "Ash")])
    bench.record([draft("bow 66", subject="ash")])
    before = bench.log_of_rig(rig)
    assert "ash" not in {entry.subject.id for entry in before.entries}
    fitted = PartFitted(part="bow", part_id="ash")
    bench.record([draft(fitted, on="rig", subject=rig)])
    after = bench.log_of_rig(rig)
    assert lengths_in(after) == [66]
    assert "yew" in {entry.subject.id for entry in after.entries}


def test_an_unknown_rig_is_refused_each_time(bench: Bench) -> None:
    for _ in range(2):
        with pytest.raises(DomainError) as raised:
            bench.log_of_rig("no-such-rig")
        assert raised.value.code == "no_such_subject"


def test_logs_are_bounded(bench: Bench, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(log_module, "_MOST_KEPT", 20)
    rigs = [bench.make_rig(f"Rig {n}", {}) for n in range(6)]
    for rig in rigs:
        bench.record([draft("note x", on="rig", subject=rig) for _ in range(8)])
        bench.log_of_rig(rig)
    assert len(bench._logs._logs) < len(rigs)
    assert all(len(bench.log_of_rig(rig).entries) == 9 for rig in rigs)


def test_an_entry_written_up_for_an_earlier_day_stands_in_its_place(bench: Bench) -> None:
    rig = made(bench)
    bench.record([draft("bow 62", subject="yew", days=-5), draft("bow 66", subject="yew", days=-1)])
    bench.log_of_rig(rig)
    bench.record([draft("bow 64", subject="yew", days=-3)])
    assert lengths_in(bench.log_of_rig(rig)) == [62, 64, 66]


def test_one_unreadable_row_is_kept_aside_and_the_rest_is_read(
    bench: Bench, database: Path
) -> None:
    rig = bench.make_rig("Rig", {"bow": NewPart("bow", "Bow")})
    told = e.EntryDraft(
        subject=Subject(kind="bow", id="bow"), reading=BowLength(bow_length_mm=1600.0)
    )
    [spoiled] = bench.record([told])
    raw = sqlite3.connect(database)
    for (name,) in raw.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'").fetchall():
        raw.execute(f"DROP TRIGGER {name}")
    changed = '{"kind": "bow_length", "bow_length_mm": 3, "colour": "green"}'
    raw.execute("UPDATE entries SET reading = ? WHERE id = ?", (changed, spoiled.id))
    raw.commit()
    raw.close()
    fresh = Bench(open_database(database), lambda: spoiled.recorded_at)
    log = fresh.log_of_rig(rig)
    assert [row.id for row in log.aside] == [spoiled.id]
    assert spoiled.id not in {entry.id for entry in log.entries}
    assert [bow.name for bow in fresh.subjects("bow")] == ["Bow"]
    [later] = fresh.record([told])
    assert later in fresh.log_of_rig(rig).entries


def test_two_long_rigs_asked_in_turn_are_read_once(
    bench: Bench, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(log_module, "_MOST_KEPT", 3)
    rigs = [bench.make_rig(f"Rig {n}", {"bow": NewPart("bow", f"Bow {n}")}) for n in (1, 2)]
    first = [bench.log_of_rig(rig) for rig in rigs]
    assert [bench.log_of_rig(rig) for rig in rigs] == first
    assert all(bench.log_of_rig(rig) is log for rig, log in zip(rigs, first, strict=True))
