"""The belief against reference cases worked out apart from it, to 0.002."""

from collections.abc import Callable
from functools import partial

import pytest

from lyrandis.core.flight.belief import Axis, new_axis
from lyrandis.core.flight.choose import PLAIN_TESTS, FlightTest, bits, pushed_test, seen
from lyrandis.core.flight.curves import SPINE_EXAMPLE, UprightCurves
from lyrandis.core.flight.likely import NOISE, Push
from lyrandis.core.flight.words import CLASSES, Care

PLAIN = {test.key: test for test in PLAIN_TESTS}
SHORT = pushed_test("draw_short", Push(0.5))
EXTRA = pushed_test("draw_extra", Push(-0.3))
WEAKER = pushed_test("other_shafts", Push(-2.0, exact=True))
RAISED = FlightTest(
    "bare_raised", "bare", 12.0, distance_m=18.0, pushed="nock", upright_push=Push(-1.5, exact=True)
)

Step = Callable[[Axis], Axis]


def step(test: FlightTest, reading: float, care: Care = "ordinary") -> Step:
    return partial(seen, test=test, reading=reading, noise=NOISE[care])


def moved(by: float, sd: float) -> Step:
    return partial(Axis.moved, by=by, gains=False, sd=sd)


TAIL, BARE = PLAIN["tail"], PLAIN["bare"]
CASES: dict[str, tuple[float, list[tuple[Step | None, tuple[float, ...]]]]] = {
    # steps; tuned, weak, stiff, false weak; mean and sd of the index; off
    "A": (5, [
        (None, (0.021, 0.012, 0.642, 0.325, 4.97, 2.22, 0.040)),
        (step(TAIL, 1), (0.009, 0.050, 0.121, 0.819, 5.75, 3.01, 0.066)),
        (step(BARE, -0.30), (0.003, 0.058, 0.011, 0.928, 5.75, 2.77, 0.028)),
        (step(PLAIN["mark"], 1), (0.001, 0.011, 0.008, 0.980, 6.22, 1.98, 0.019)),
    ]),
    "B": (5, [
        (step(TAIL, 1), (0.009, 0.050, 0.121, 0.819, 5.75, 3.01, 0.066)),
        (step(PLAIN["mark"], 0), (0.020, 0.106, 0.245, 0.628, 4.82, 3.61, 0.096)),
        (step(SHORT, 0), (0.001, 0.030, 0.017, 0.952, 5.90, 2.56, 0.046)),
    ]),
    "B2": (5, [
        (step(TAIL, 1), (0.009, 0.050, 0.121, 0.819, 5.75, 3.01, 0.066)),
        (step(SHORT, 3), (0.093, 0.156, 0.254, 0.498, 4.14, 3.92, 0.252)),
    ]),
    "C": (0, [
        (step(TAIL, 3), (0.650, 0.202, 0.141, 0.007, -0.11, 1.34, 0.019)),
        (step(BARE, 0.05), (0.809, 0.077, 0.112, 0.001, 0.12, 0.91, 0.007)),
    ]),
    "D": (-2, [
        (step(TAIL, 2), (0.202, 0.789, 0.006, 0.003, -2.17, 1.56, 0.020)),
        (step(PLAIN["bare_six"], -0.30), (0.049, 0.946, 0.001, 0.004, -2.57, 1.30, 0.007)),
    ]),
    "E": (2, [
        (step(TAIL, 5), (0.069, 0.004, 0.922, 0.005, 2.58, 1.29, 0.021)),
        (step(PLAIN["tail_far"], 3), (0.085, 0.005, 0.905, 0.004, 2.46, 1.29, 0.006)),
    ]),
    "F": (0, [
        (step(TAIL, 6), (0.121, 0.089, 0.783, 0.006, 2.29, 2.21, 0.112)),
        (step(BARE, -0.45), (0.102, 0.710, 0.116, 0.072, -1.40, 3.00, 0.405)),
        (step(TAIL, 0), (0.016, 0.737, 0.018, 0.229, -0.73, 4.33, 0.512)),
    ]),
    "G": (5, [
        (step(TAIL, 1, "beginning"), ()),
        (step(BARE, -0.30, "beginning"), (0.012, 0.054, 0.046, 0.888, 5.74, 2.87, 0.040)),
    ]),
    "H": (2, [
        (step(TAIL, 5), ()),
        (step(BARE, 0.25), (0.059, 0.000, 0.940, 0.000, 2.35, 1.11, 0.008)),
        (moved(-2.0, 0.15 * 2), (0.703, 0.076, 0.221, 0.000, 0.35, 1.15, 0.008)),
    ]),
}  # fmt: skip
UPRIGHT: dict[str, list[tuple[Step | None, tuple[float, ...]]]] = {
    # right, too high, too low, bouncing
    "low": [
        (None, (0.375, 0.312, 0.194, 0.119, 0.00, 2.11, 0.040)),
        (step(BARE, 0.15), (0.394, 0.043, 0.544, 0.019, 1.19, 1.30, 0.029)),
        (step(TAIL, 2), (0.551, 0.150, 0.241, 0.059, 0.37, 1.46, 0.044)),
        (step(RAISED, -0.02), (0.590, 0.075, 0.281, 0.054, 0.59, 1.17, 0.012)),
    ],
    "bouncing": [
        (step(BARE, -0.20), (0.211, 0.596, 0.013, 0.179, -1.00, 2.19, 0.022)),
        (step(RAISED, 0.12), (0.174, 0.081, 0.078, 0.666, 1.77, 1.78, 0.045)),
    ],
}


def check(axis: Axis, steps: list[tuple[Step | None, tuple[float, ...]]]) -> None:
    for take, wanted in steps:
        axis = take(axis) if take else axis
        if wanted:
            chances = axis.chances()
            found = [*(chances[name] for name in CLASSES), axis.off]
            assert found == pytest.approx([*wanted[:4], wanted[6]], abs=0.002)
            assert [axis.mean, axis.sd] == pytest.approx(wanted[4:6], abs=0.01)


@pytest.mark.parametrize("case", CASES)
def test_a_case_of_spine_comes_out(case: str) -> None:
    centre, steps = CASES[case]
    check(new_axis("spine", SPINE_EXAMPLE, centre), steps)


@pytest.mark.parametrize("case", UPRIGHT)
def test_a_case_of_the_nock_comes_out(case: str) -> None:
    check(new_axis("upright", UprightCurves()), UPRIGHT[case])


@pytest.mark.parametrize(
    ("test", "before", "after"),
    [
        (PLAIN["tail"], 0.779, 0.448),
        (PLAIN["tail_far"], 0.146, 0.073),
        (PLAIN["mark"], 0.311, 0.208),
        (PLAIN["slap"], 0.138, 0.086),
        (SHORT, 0.736, 0.459),
        (EXTRA, None, 0.396),
        (WEAKER, 0.222, 0.145),
    ],
    ids=lambda one: one.key if isinstance(one, FlightTest) else "",
)
def test_what_a_test_tells_comes_out(test: FlightTest, before: float | None, after: float) -> None:
    axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    if before is not None:
        assert bits(axis, test, NOISE["ordinary"]) == pytest.approx(before, abs=0.002)
    seen_weak = seen(axis, PLAIN["tail"], 1, NOISE["ordinary"])
    assert bits(seen_weak, test, NOISE["ordinary"]) == pytest.approx(after, abs=0.002)


@pytest.mark.parametrize(
    ("key", "before", "after"), [("bare", 0.804, 0.438), ("bare_six", 0.820, None)]
)
def test_what_bare_shafts_tell_comes_out_within_the_bins(
    key: str, before: float, after: float | None
) -> None:
    axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    assert bits(axis, PLAIN[key], NOISE["ordinary"]) == pytest.approx(before, abs=0.01)
    if after is not None:
        seen_weak = seen(axis, PLAIN["tail"], 1, NOISE["ordinary"])
        assert bits(seen_weak, PLAIN[key], NOISE["ordinary"]) == pytest.approx(after, abs=0.01)
