"""Judging a setup: stages, findings, next step and what the drawings need, in one value."""

from pydantic import BaseModel, ConfigDict

from lyrandis.core import entries as e
from lyrandis.core import judgement as j
from lyrandis.core.archer import rules as archer_rules
from lyrandis.core.archer.stage import stage as archer_stage
from lyrandis.core.arrow import rules as arrow_rules
from lyrandis.core.arrow.stage import stage as arrow_stage
from lyrandis.core.bow import rules as bow_rules
from lyrandis.core.bow.stage import stage as bow_stage
from lyrandis.core.computed import compute
from lyrandis.core.drawings import Drawings, draw_all
from lyrandis.core.next_step import next_step
from lyrandis.core.setup import Setup

_STAGES = (
    (archer_rules, archer_stage),
    (bow_rules, bow_stage),
    (arrow_rules, arrow_stage),
)
RULEBOOK: tuple[j.Rule, ...] = tuple(rule for rules, _ in _STAGES for rule in rules.RULES)


class FittedPart(BaseModel):
    """A part on the rig and its name."""

    model_config = ConfigDict(frozen=True)

    part: e.PartKind
    id: str | None
    name: str | None


class Assessment(BaseModel):
    """All that Lyrandis says of a rig. Lengths in mm, forces in lbf, masses in grains."""

    model_config = ConfigDict(frozen=True, allow_inf_nan=False)

    rig: str | None
    name: str | None
    put_away: bool
    revision: int
    entry_count: int
    fitted: tuple[FittedPart, ...]
    stages: tuple[j.Stage, ...]
    findings: tuple[j.Finding, ...]
    next_step: j.NextStep
    drawings: Drawings


def assess(setup: Setup) -> Assessment:
    """Judge a setup. Never raises: what cannot be known is missing, with a reason."""
    c = compute(setup)
    per_stage = [rules.judge(c) for rules, _ in _STAGES]
    findings = sorted(
        (finding for group in per_stage for finding in group),
        key=lambda finding: j.SEVERITIES.index(finding.severity),
    )
    return Assessment(
        rig=setup.rig,
        name=setup.name,
        put_away=setup.put_away,
        revision=setup.revision,
        entry_count=setup.entry_count,
        fitted=_fitted(setup),
        stages=tuple(stage(c, group) for (_, stage), group in zip(_STAGES, per_stage, strict=True)),
        findings=tuple(findings),
        next_step=next_step(c, findings),
        drawings=draw_all(c),
    )


def _fitted(setup: Setup) -> tuple[FittedPart, ...]:
    return (
        FittedPart(part="archer", id=setup.fitted.archer, name=setup.archer.name),
        FittedPart(part="bow", id=setup.fitted.bow, name=setup.bow.name),
        FittedPart(part="string", id=setup.fitted.string, name=setup.string.name),
        FittedPart(part="arrow_set", id=setup.fitted.arrow_set, name=setup.arrows.name),
    )
