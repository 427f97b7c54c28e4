"""The policy of the next step, with stages made up for it: no real one is known to it."""

from dataclasses import replace

import pytest

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed, compute
from lyrandis.core.estimate import Estimate
from lyrandis.core.next_step import next_step
from lyrandis.core.phrase import gpp, phrase, spine
from lyrandis.core.setup import fold
from lyrandis.core.stage_spec import Ask, Doubt, StageSpec, Target
from lyrandis.core.stages import STAGES

ACTION = j.Action(label="Do it", stage="bow", control="bow")


def step(title: str) -> j.NextStep:
    return j.NextStep(
        title=phrase(title), why=phrase(""), tells=phrase(""), minutes=1, action=ACTION
    )


def finding(severity: j.Severity, title: str | None = None) -> j.Finding:
    return j.Finding(
        id="one", stage="bow", severity=severity, sentence=phrase("It is so."), sum=(),
        rule="any", action=ACTION, title=title,
    )  # fmt: skip


@pytest.fixture(name="c")
def nothing_told() -> Computed:
    return compute(fold([]))


def spec(*doubts: Doubt, missing: str | None = None, asks: tuple[Ask, ...] = ()) -> StageSpec:
    return replace(
        STAGES[0],
        missing=lambda _: step(missing) if missing else None,
        doubts=lambda _: list(doubts),
        asks=asks,
    )


LAST = spec(asks=(Ask(99, lambda _: step("keep")),))
GPP = Target("gpp", "Grains per pound", Estimate(10.0, 0.5), gpp, 0.025)
SPINE = Target("spine", "Matched spine", Estimate(50.0, 5.0), spine, 0.1)


def title(c: Computed, findings: list[j.Finding], *specs: StageSpec) -> str:
    return next_step(c, findings, [*specs, LAST]).title.text()


def test_danger_comes_before_what_is_missing_and_says_what_to_do(c: Computed) -> None:
    found = [finding("mend"), finding("stop", "Too light")]
    assert title(c, found, spec(missing="draw")) == "Do it"


def test_what_is_missing_comes_in_the_order_of_work_and_before_mending(c: Computed) -> None:
    assert title(c, [finding("mend")], spec(), spec(missing="a"), spec(missing="b")) == "a"
    assert title(c, [finding("mend")], spec()) == "Do it"
    assert title(c, [finding("watch"), finding("good")], spec()) == "keep"


def test_the_reading_that_takes_most_off_a_target_is_named_with_what_it_gains(c: Computed) -> None:
    small = Doubt(GPP, share=0.02, after=0.0, step=step("small"))
    large = Doubt(GPP, share=0.04, after=0.01, step=step("large"))
    found = next_step(c, [], [spec(small), spec(large), LAST])
    assert found.title.text() == "large"
    assert found.tells.text() == "Grains per pound would go from ± 1.0 gr/lb to about ± 0.4 gr/lb."


def test_the_target_furthest_from_sharp_goes_first(c: Computed) -> None:
    weight = Doubt(GPP, share=0.02, after=0.0, step=step("weigh"))
    window = Doubt(SPINE, share=0.2, after=0.0, step=step("measure"))
    assert title(c, [], spec(weight, window)) == "measure"
    assert title(c, [], spec(weight, replace(window, share=0.06))) == "weigh"


@pytest.mark.parametrize(
    ("share", "after", "said"),
    [
        (0.013, 0.0, "weigh"),  # twice the share is past the 2.5 % that is sharp enough
        (0.012, 0.0, "keep"),
        (0.061, 0.05, "weigh"),  # a fifth sharper is worth the trouble
        (0.059, 0.05, "keep"),
    ],
)
def test_a_doubt_is_worth_a_reading_from_its_thresholds_on(
    c: Computed, share: float, after: float, said: str
) -> None:
    assert title(c, [], spec(Doubt(GPP, share, after, step("weigh")))) == said


def test_asks_take_turns_over_stages_and_skip_what_is_told(c: Computed) -> None:
    first = spec(asks=(Ask(5, lambda _: step("five")), Ask(1, lambda _: None)))
    second = spec(asks=(Ask(3, lambda _: step("three")),))
    assert title(c, [], first, second) == "three"
    assert title(c, [], first) == "five"
