"""The demo scenario: whole, invented, and judged as the story goes."""

import pytest

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import SUBJECTS, drafts
from tests.entries import NOW


@pytest.fixture(scope="module", name="rigs")
def judged_rigs() -> dict[str, Assessment]:
    entries = as_entries(drafts(), now=NOW)
    rigs = [subject for kind, subject, _ in SUBJECTS if kind == "rig"]
    return {rig: assess(fold(entries, rig=rig)) for rig in rigs}


def choice(assessment: Assessment, key: str) -> str | None:
    return next(v.choice for v in assessment.stages[0].values if v.key == key)


def test_every_entry_speaks_of_a_subject_of_the_scenario() -> None:
    known = {(kind, subject) for kind, subject, _ in SUBJECTS}
    assert {(d.subject.kind, d.subject.id) for d in drafts()} == known
    assert all(d.happened_at is not None and d.happened_at < NOW for d in drafts())


def test_the_woodland_shooter_is_left_handed_with_ash_arrows(rigs: dict[str, Assessment]) -> None:
    marram = rigs["marram-longbow"]
    assert choice(marram, "hand") == "left"
    assert choice(marram, "purpose") == "woods"
    assert [stage.mark for stage in marram.stages] == [*["settled"] * 5, "estimated", "unset"]
    assert {f.severity for f in marram.findings} == {"mend", "watch", "good"}
    found = {f.id: f for f in marram.findings}
    assert "too stiff" in found["spine-match"].sentence.text()
    assert "slaps" in found["spine-clearance"].sentence.text()
    assert "arrow-cracked" not in found


def test_the_woodland_shooter_is_midway_through_a_false_weak_puzzle(
    rigs: dict[str, Assessment],
) -> None:
    marram = rigs["marram-longbow"]
    flight = marram.stages[5]
    assert flight.live.text == "too stiff", "though its tail reads weak"
    assert marram.next_step.title.text().startswith("Shoot three shafts of")
    found = {f.id: f.sentence.text() for f in marram.findings}
    assert "too stiff" in found["flight-cause"]


def test_the_string_walker_has_a_bow_that_is_not_weighed_yet(rigs: dict[str, Assessment]) -> None:
    tideway = rigs["tideway-recurve"]
    assert tideway.stages[1].mark == "estimated"
    assert tideway.next_step.action.control == "quiver", "what is looked at before shooting"
    open_still = {one.what.text(): one.action for one in tideway.may_shoot.unchecked}
    weighing = open_still["the bow's weight"]
    assert weighing is not None
    assert weighing.control == "scale"
    assert tideway.stages[4].mark == "in_doubt"
    assert tideway.stages[4].reason is not None
    assert tideway.stages[4].reason.text() == "brace 1/4 in higher since"


def test_the_thumb_shooters_arrow_is_too_light(rigs: dict[str, Assessment]) -> None:
    sandpiper = rigs["sandpiper-thumb-bow"]
    assert choice(sandpiper, "hold") == "thumb"
    assert [f.id for f in sandpiper.findings if f.severity == "stop"] == ["arrow-floor"]
    assert sandpiper.next_step.action.control == "arrow"
