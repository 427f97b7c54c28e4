"""Logs to measure with: the demo's rigs, grown."""

from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np

from lyrandis.core import entries as e
from lyrandis.core.archer.readings import DrawMarked
from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.core.bench_readings import Noted
from lyrandis.core.bow.readings import BowWeighed
from lyrandis.core.crawls.readings import CrawlMark
from lyrandis.core.effective import in_order
from lyrandis.core.jot import parse
from lyrandis.core.reading import Subject, SubjectKind
from lyrandis.core.record import as_entries
from lyrandis.core.string.readings import BraceHeight
from lyrandis.demo.scenario import drafts

RIG = "marram-longbow"


NOW = datetime(2026, 3, 1, tzinfo=UTC)


_LONGBOW = {"oda", "marram", "marram-string-16", "ash-set-b", RIG}


def many_drafts(count: int = 500) -> list[e.EntryDraft]:
    """The demo's longbow with its history grown to `count` entries."""
    found = [d for d in drafts() if d.subject.id in _LONGBOW]
    number = 0
    while len(found) < count:
        number += 1
        readings: list[tuple[SubjectKind, str, Any]] = [
            ("archer", "oda", DrawMarked(draw_length_mm=695.0 + number % 7)),
            ("bow", "marram", BowWeighed(draw_weight_lbf=40 + number % 5, draw_length_mm=690.0)),
            (
                "arrow_set",
                "ash-set-b",
                ArrowMassed(arrow_mass_gr=468.0, arrow_number=1 + (number - 1) % 200),
            ),
            ("rig", RIG, BraceHeight(brace_height_mm=190.0 + number % 3)),
        ]
        for kind, subject, reading in readings:
            found.append(
                e.EntryDraft(
                    subject=Subject(kind=kind, id=subject),
                    reading=reading,
                    happened_at=NOW - timedelta(days=20, minutes=-number),
                )
            )
    return found[:count]


def many_marks(count: int, notes: int = 0) -> list[e.Entry]:
    """The demo's recurve with seasons of crawls, and notes between them."""
    rng = np.random.default_rng(1)
    at, rig = datetime(2026, 4, 1, tzinfo=UTC), Subject(kind="rig", id="tideway-recurve")
    found = list(drafts())
    for number in range(max(count, notes)):
        readings: list[Any] = []
        if number < count:
            far = float(rng.choice([10, 15, 18, 20, 25, 27, 30, 35, 40]))
            deep = max(0.0, 60 - 1.4 * far + float(rng.normal(0, 2)))
            readings.append(CrawlMark(distance_m=far, crawl_mm=deep))
        if number < notes:
            readings.append(Noted(text=f"note {number}"))
        found += [
            e.EntryDraft(subject=rig, reading=one, happened_at=at + timedelta(minutes=number))
            for one in readings
        ]
    return in_order(as_entries(found, now=datetime(2026, 12, 1, tzinfo=UTC)))


def bow_said(said: str) -> e.EntryDraft:
    jotted = parse(said)
    return e.EntryDraft(
        subject=Subject(kind="bow", id="bow"), reading=jotted.reading, happened_at=NOW
    )
