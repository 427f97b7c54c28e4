"""What is recorded stays readable: golden rows, former shapes and limits, damaged rows."""

import json
import shutil
import sqlite3
import stat
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Literal

import pytest

from lyrandis.core import entries as e
from lyrandis.core import stored
from lyrandis.core.arrow.readings import ArrowBuild
from lyrandis.core.bench_readings import Named, Noted, PartFitted
from lyrandis.core.bow.readings import BowLength, BowMark
from lyrandis.core.errors import DomainError
from lyrandis.core.logbook import LogbookFile
from lyrandis.core.phrase import Phrase, phrase
from lyrandis.core.quantities import PLAUSIBLE
from lyrandis.core.reading import BaseReading, revision_of
from lyrandis.core.setup import fold
from lyrandis.core.stored import cast_up
from lyrandis.store.bench import Bench, NewPart
from lyrandis.store.database import open_database
from lyrandis.store.rows import entry_of
from tests.store.conftest import Clock, on
from tests.store.test_database import migrated_to

GOLDEN = [
    json.loads(line)
    for line in Path(__file__).with_name("golden_log.jsonl").read_text().splitlines()
]
SAID_ANEW = {
    "golden-0174": {"care": "steady"},  # it was "kind"
    "golden-0175": {"care": "beginning"},  # it was "careless"
}
"""Rows whose kind has changed its shape since, and what of them reads otherwise."""
_SUBJECT = "INSERT INTO subjects VALUES (?, ?, 'own', '2026-01-01T10:00:00.000000+00:00')"
_ROW = (
    "INSERT INTO entries (id, subject_id, kind, happened_at, recorded_at, source, fitted, reading)"
    " VALUES (?, ?, ?, ?, ?, ?, ?, ?)"
)


def put_golden(path: Path) -> None:
    """A file of the tables' second version, with a row or more of every kind."""
    migrated_to(path, "0002")
    raw = sqlite3.connect(path)
    subjects = {(row["subject"]["id"], row["subject"]["kind"]) for row in GOLDEN}
    raw.executemany(_SUBJECT, sorted(subjects))
    raw.executemany(
        _ROW,
        [
            (row["id"], row["subject"]["id"], row["reading"]["kind"], row["happened_at"],
             row["happened_at"], row["source"], "null", json.dumps(row["reading"]))
            for row in GOLDEN
        ],
    )  # fmt: skip
    raw.commit()
    raw.close()


def test_every_kind_as_it_was_recorded_reads_the_same_for_ever(
    database: Path, clock: Clock
) -> None:
    put_golden(database)
    engine = open_database(database)
    bench = Bench(engine, clock)
    read = {
        entry.id: entry
        for subject in {row["subject"]["id"] for row in GOLDEN}
        for entry in bench.entries_of(subject)
    }
    engine.dispose()
    for row in GOLDEN:
        reading = read[row["id"]].reading.model_dump(mode="json")
        said = {**row["reading"], **SAID_ANEW.get(row["id"], {})}
        assert {name: reading[name] for name in said} == said
    assert {row["reading"]["kind"] for row in GOLDEN} >= {
        kind.model_fields["kind"].default for kind in e.READINGS
    }, "a kind added since is added to the golden log"


def test_limits_that_ever_held_still_read() -> None:
    golden = json.loads((Path(__file__).parents[1] / "core/golden_limits.json").read_text())
    for key, (low, high) in golden.items():
        meant = PLAUSIBLE[key]
        inside = low + 1e-6 * (high - low) if meant.above else low
        assert meant.held_ever(inside), f"{key}: put the former limits into `ever`"
        assert meant.held_ever(high), f"{key}: put the former limits into `ever`"
    assert set(golden) == set(PLAUSIBLE), "a quantity added since is added to the golden limits"


def test_a_narrowed_limit_takes_nothing_out_of_the_record(
    bench: Bench,
    rig: str,
    monkeypatch: pytest.MonkeyPatch,
    clock: Clock,
) -> None:
    bench.record([on("bow", "yew-bow", BowLength(bow_length_mm=2100.0))])
    before = PLAUSIBLE["bow_length"]
    narrowed = replace(before, high=2000.0, ever=(before.low, before.high))
    monkeypatch.setitem(PLAUSIBLE, "bow_length", narrowed)
    [length] = [one for one in bench.entries_of("yew-bow") if isinstance(one.reading, BowLength)]
    assert length.reading.bow_length_mm == 2100.0
    with pytest.raises(ValueError, match="outside what a bow length can be"):
        BowLength(bow_length_mm=2100.0)
    saved = [one.model_dump(mode="json") for one in bench.entries_of("yew-bow")]
    assert LogbookFile.model_validate({"entries": saved}).entries, "a saved logbook comes back too"
    drafts = [{"subject": saved[0]["subject"], "reading": saved[-1]["reading"]}]
    with pytest.raises(ValueError, match="outside what a bow length can be"):
        LogbookFile.model_validate({"entries": drafts})


class Stave(BaseReading):
    """A made-up kind in its third shape."""

    of = frozenset({"bow"})
    kind: Literal["stave"] = "stave"
    upcasts = (
        lambda old: {**old, "length_mm": old["length_in"] * 25.4},
        lambda old: {"kind": "stave", "stave_length_mm": old["length_mm"]},
    )
    stave_length_mm: float

    def say(self) -> Phrase:
        return phrase("A stave")


@pytest.mark.parametrize(
    ("written", "revision"),
    [
        ({"kind": "stave", "length_in": 60.0}, 1),
        ({"kind": "stave", "length_in": 60.0, "length_mm": 1524.0}, 2),
        ({"kind": "stave", "stave_length_mm": 1524.0}, 3),
    ],
)
def test_a_former_shape_is_cast_up_step_by_step(
    written: dict[str, Any], revision: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setitem(stored._KINDS, "stave", Stave)
    assert revision_of(Stave) == 3
    assert cast_up(written, revision) == {"kind": "stave", "stave_length_mm": 1524.0}
    with pytest.raises(ValueError, match="shape 4"):
        cast_up(written, 4)


def test_what_a_later_lyrandis_wrote_is_kept_aside(
    bench: Bench,
    rig: str,
    database: Path,
) -> None:
    [entry] = bench.record([on("bow", "yew-bow", BowLength(bow_length_mm=1700.0))])
    damage(database, "revision = 2", entry.id)
    log = Bench(bench._read, lambda: datetime.now(UTC)).log_of_rig(rig)
    assert entry.id in {row.id for row in log.aside}


def damage(path: Path, change: str, entry_id: str) -> None:
    """Change a row as no program would: the trigger is lifted for it."""
    raw = sqlite3.connect(path)
    trigger = raw.execute("SELECT sql FROM sqlite_master WHERE name='entries_no_update'").fetchone()
    raw.execute("DROP TRIGGER entries_no_update")
    raw.execute(f"UPDATE entries SET {change} WHERE id = ?", (entry_id,))
    raw.execute(trigger[0])
    raw.commit()
    raw.close()


@pytest.mark.parametrize(
    "change",
    [
        "reading = '{\"kind\": \"bow_length\", \"bow_length_mm\" 1700.0}'",
        "reading = ''",
        "reading = '[]'",
        "reading = '{\"kind\": \"bow_length\", \"bow_length_mm\": 17000.0}'",
        "reading = replace(reading, 'bow_length_mm', 'bow_lengxh_mm')",
        "reading = cast(x'7b226b696e64ff' as text)",
        "reading = '" + "[" * 5000 + "'",
        "happened_at = '2026-03-01T12:0x:00+00:00'",
        "source = 'dreamt'",
        "note = cast(x'ff61' as text)",
        "fitted = '{'",
    ],
)  # fmt: skip
def test_a_damaged_row_is_kept_aside_and_takes_nothing_down(
    bench: Bench,
    rig: str,
    database: Path,
    change: str,
) -> None:
    good, bad = bench.record(
        [
            on("bow", "yew-bow", BowMark(draw_weight_lbf=45.0)),
            on("bow", "yew-bow", BowLength(bow_length_mm=1700.0), id="the-bad-one"),
        ]
    )
    damage(database, change, bad.id)
    fresh = Bench(bench._read, lambda: datetime.now(UTC))
    log = fresh.log_of_rig(rig)
    assert {row.id for row in log.aside} == {bad.id}
    assert good.id in {entry.id for entry in log.entries}
    again = on("bow", "yew-bow", BowLength(bow_length_mm=1700.0), id="the-bad-one")
    with pytest.raises(DomainError, match="damaged: it cannot be read") as refused:
        fresh.record([again])
    assert refused.value.code == "id_taken"
    assert fresh.record([on("bow", "yew-bow", BowLength(bow_length_mm=1701.0))])
    assert {one.name for one in fresh.subjects("rig")}


def test_a_damaged_name_leaves_the_subject_its_id(
    bench: Bench,
    rig: str,
    database: Path,
) -> None:
    named = next(one for one in bench.entries_of("yew-bow") if isinstance(one.reading, Named))
    damage(database, "reading = '{'", named.id)
    names = {one.id: one.name for one in bench.subjects()}
    assert names["yew-bow"] == "yew-bow"
    assert names[rig] == "Ann's rig"


def test_what_is_told_in_parts_is_put_together_under_a_narrowed_limit_too(
    bench: Bench,
    rig: str,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    parts = [ArrowBuild(point_gr=125.0), ArrowBuild(shaft_length_mm=1100.0)]
    bench.record([on("arrow_set", "set-a", part) for part in parts])
    before = PLAUSIBLE["shaft_length"]
    narrowed = replace(before, high=1000.0, ever=(before.low, before.high))
    monkeypatch.setitem(PLAUSIBLE, "shaft_length", narrowed)
    setup = fold(Bench(bench._read, lambda: datetime.now(UTC)).entries_of_rig(rig), rig=rig)
    assert setup.arrows.part("shaft_length_mm")[0] == 1100.0


# the file itself


def test_a_folder_taken_away_while_running_is_said_and_nothing_counts_as_recorded(
    bench: Bench,
    rig: str,
    database: Path,
    tmp_path_factory: pytest.TempPathFactory,
) -> None:
    note = on("rig", rig, Noted(text="still here"))
    bench.record([note])
    away = tmp_path_factory.mktemp("away") / "folder"
    shutil.move(database.parent, away)
    with pytest.raises(DomainError, match="taken away or replaced") as refused:
        bench.record([note])
    assert refused.value.code == "file_gone"
    assert not database.exists(), "no empty file stands in its place"
    shutil.move(away, database.parent)
    assert bench.record([note]), "put back, it goes on"
    assert len([one for one in bench.entries_of(rig) if isinstance(one.reading, Noted)]) == 2


def test_a_file_replaced_while_running_is_said(
    bench: Bench,
    rig: str,
    database: Path,
) -> None:
    shutil.copy(database, database.with_suffix(".copy"))
    database.with_suffix(".copy").replace(database)
    with pytest.raises(DomainError, match="taken away or replaced"):
        bench.record([on("rig", rig, Noted(text="lost?"))])


@pytest.mark.parametrize("name", ["a ?b", "50%20off", "100%", "#1 & mine", "naïve ½"])
def test_a_folder_of_any_name_serves(tmp_path: Path, name: str, clock: Clock) -> None:
    path = tmp_path / name / "bench.sqlite3"
    for _ in range(2):
        engine = open_database(path)
        Bench(engine, clock).make([NewPart("bow", "Yew", alike=True)])
        engine.dispose()
    assert path.is_file()
    assert sorted(one.name for one in tmp_path.iterdir()) == [name]


def test_files_are_for_their_owner_alone(database: Path, clock: Clock) -> None:
    database.touch(0o644)
    engine = open_database(database)
    Bench(engine, clock).make([NewPart("bow", "Yew")])
    modes = {stat.S_IMODE(path.stat().st_mode) for path in database.parent.glob("bench.*")}
    engine.dispose()
    assert modes == {0o600}


def test_a_busy_bench_does_not_blame_another_program(
    bench: Bench,
    rig: str,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr("lyrandis.store.bench.WAIT_S", 0.01)
    with bench._writing(), pytest.raises(DomainError, match="busy recording") as refused:
        bench.record([on("rig", rig, Noted(text="wait"))])
    assert refused.value.code == "busy"
    assert bench.record([on("rig", rig, Noted(text="now"))])


# what one transaction reads, it reads once


def statements(bench: Bench, work: Any) -> int:
    from sqlalchemy import event

    count = 0

    def seen(*_args: Any) -> None:
        nonlocal count
        count += 1

    event.listen(bench._read, "before_cursor_execute", seen)
    try:
        work()
    finally:
        event.remove(bench._read, "before_cursor_execute", seen)
    return count


def test_questions_of_a_batch_do_not_grow_with_its_square(bench: Bench, rig: str) -> None:
    def notes(count: int) -> list[e.EntryDraft]:
        return [on("rig", rig, Noted(text=f"n {number}")) for number in range(count)]

    few = statements(bench, lambda: bench.record(notes(10), seen=0))
    many = statements(bench, lambda: bench.record(notes(110), seen=0))
    assert many - few <= 100, "a note more is one statement more"
    taken = [e.Taking(entry_id=one.id) for one in bench.record(notes(60))]
    few = statements(bench, lambda: bench.retract(*taken[:10]))
    many = statements(bench, lambda: bench.retract(*taken[10:]))
    assert many - few <= 40 * 5


def test_taking_back_and_forth_in_one_batch_keeps_count(bench: Bench, rig: str) -> None:
    [note] = bench.record([on("rig", rig, Noted(text="here"))])
    taking = note.id
    for turn in range(6):
        [taken] = bench.retract(e.Taking(entry_id=taking))
        with pytest.raises(DomainError, match="already taken back"):
            bench.retract(e.Taking(entry_id=taking))
        if turn % 2:
            with pytest.raises(DomainError, match="already taken back"):
                bench.retract(e.Taking(entry_id=taking))
        taking = taken.id
    twice = [e.Taking(entry_id=note.id), e.Taking(entry_id=note.id)]
    with pytest.raises(DomainError, match="already taken back"):
        bench.retract(*twice)


def test_fittings_of_one_batch_count_for_what_follows_in_it(bench: Bench, rig: str) -> None:
    bench.make([NewPart("bow", "Ash")])
    fit = on("rig", rig, PartFitted(part="bow", part_id="ash"))
    note = on("rig", rig, Noted(text="which bow?"))
    first, fitted, second = bench.record([note, fit, note])
    assert (first.fitted.bow, second.fitted.bow) == ("yew-bow", "ash")  # type: ignore[union-attr]
    bench.retract(e.Taking(entry_id=fitted.id))
    [third] = bench.record([note])
    assert third.fitted is not None
    assert third.fitted.bow == "yew-bow"


def test_an_entry_row_without_its_reading_is_no_entry() -> None:
    class Row:
        reading = "null"
        revision = 1

    with pytest.raises((ValueError, AttributeError)):
        entry_of(Row, "bow")
