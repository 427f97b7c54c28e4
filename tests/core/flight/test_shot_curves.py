"""The curves of a rig's own shot: signs, sizes, the cliff where the tail begins to strike."""

from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest

from lyrandis.core.arrow.bend import Shot
from lyrandis.core.computed import compute
from lyrandis.core.flight.belief import new_axis
from lyrandis.core.flight.choose import PLAIN_TESTS, seen, surest
from lyrandis.core.flight.curves import INDEX, Curves
from lyrandis.core.flight.likely import NOISE
from lyrandis.core.flight.shot_curves import curves_of, unfletched
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import drafts

NOW = datetime(2026, 3, 1, tzinfo=UTC)
RIGS = ("marram-longbow", "tideway-recurve", "sandpiper-thumb-bow")
AT = int(np.flatnonzero(INDEX == 0)[0])
NEAR = slice(AT - 3, AT + 4)
"""Where an ordinary rig is looked for: three tenths either way."""


@pytest.fixture(scope="module")
def shots() -> dict[str, tuple[Shot, float]]:
    entries = as_entries(drafts(), now=NOW)
    found = {}
    for rig in RIGS:
        c = compute(fold(entries, rig=rig))
        assert c.arrow.shooting is not None
        assert c.match is not None
        assert c.match.matched is not None
        found[rig] = c.arrow.shooting.shot, c.match.matched
    return found


def of(shots: dict[str, tuple[Shot, float]], rig: str) -> Curves:
    shot, matched = shots[rig]
    return curves_of(shot, unfletched(shot), matched, 0.0087)


@pytest.mark.parametrize("rig", RIGS)
def test_stiffer_reads_stiffer_near_the_match(
    shots: dict[str, tuple[Shot, float]], rig: str
) -> None:
    found = of(shots, rig)
    assert found.tail_clean[AT] == found.bare_clean[1][AT] == 0.0
    assert (np.diff(found.tail_clean[NEAR]) > 0).all()
    assert (np.diff(found.bare_clean[1][NEAR]) > 0).all()
    # measured before on four kinds of rig: 0.35 to 1.6 degrees and 7 to 16 cm an index
    assert 0.2 < found.tail_zero < 2.0
    assert 0.04 < found.bare_zero(18.0) < 0.25
    assert 0.15 < found.bare_zero(10.0) / found.bare_zero(18.0) < 0.5


@pytest.mark.parametrize("rig", RIGS)
def test_the_tail_strikes_only_far_off_the_match(
    shots: dict[str, tuple[Shot, float]], rig: str
) -> None:
    found = of(shots, rig)
    gap = np.abs(np.subtract(found.tail_struck, found.tail_clean))
    assert max(found.impulse) > 5 * max(found.impulse[AT], 1e-3), "it strikes somewhere"
    assert gap[AT + 6 :].max() > gap[AT]


def test_a_far_too_stiff_shaft_reads_weak_where_the_tail_strikes(
    shots: dict[str, tuple[Shot, float]],
) -> None:
    """Marram's own shafts are five tenths too stiff and slap: its first tail misleads."""
    found = of(shots, "marram-longbow")
    assert found.tail_clean[-5] > 2.5
    assert min(found.tail_struck[AT + 5 :]) < max(found.tail_struck[AT : AT + 5])
    axis = new_axis("spine", found, 5.0)
    noise = NOISE["ordinary"]
    weak = seen(axis, PLAIN_TESTS[0], 1, noise)
    assert weak.chances()["false_weak"] > axis.chances()["false_weak"]
    assert weak.chances()["weak"] < 0.25, "the mechanics know better than the first tail"
    assert surest(seen(weak, PLAIN_TESTS[5], 1, noise))[0] in ("false_weak", "stiff")


def test_a_finer_step_changes_little(
    shots: dict[str, tuple[Shot, float]], monkeypatch: pytest.MonkeyPatch
) -> None:
    shot, matched = shots["tideway-recurve"]
    coarse = of(shots, "tideway-recurve")
    monkeypatch.setattr("lyrandis.core.flight.shot_curves.CURVES_DT", 20e-6)
    again = replace(shot, damping=shot.damping * (1 + 1e-9))
    fine = curves_of(again, unfletched(again), matched, 0.0087)
    assert fine.tail_clean[NEAR] == pytest.approx(coarse.tail_clean[NEAR], abs=0.4)
    assert fine.bare_clean[1][NEAR] == pytest.approx(coarse.bare_clean[1][NEAR], abs=0.04)
