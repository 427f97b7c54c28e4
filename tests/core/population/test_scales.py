"""What the bench makes of scales on other people's bows: right, and honest about how right."""

import numpy as np
import pytest

from tests.core.population.scales import Weighed, weighed


def population(count: int, *, at_full_draw: bool, bows: int = 150) -> list[Weighed]:
    found = [weighed(1000 + seed, count, at_full_draw=at_full_draw) for seed in range(bows)]
    return [bow for bow in found if bow is not None]


@pytest.mark.parametrize(
    ("count", "at_full_draw", "within_lbf", "held"),
    [(1, False, 6.0, 0.9), (3, False, 4.0, 0.88), (6, False, 3.5, 0.88), (4, True, 1.2, 0.92),
     (6, True, 1.2, 0.92)],
)  # fmt: skip
def test_the_weight_is_near_and_inside_its_own_plus_minus(
    count: int, at_full_draw: bool, within_lbf: float, held: float
) -> None:
    bows = population(count, at_full_draw=at_full_draw)
    assert len(bows) > 120
    assert np.percentile([abs(bow.off_lbf) for bow in bows], 95) < within_lbf
    assert np.mean([bow.holds for bow in bows]) >= held


def test_the_reading_at_full_draw_is_never_left_out() -> None:
    for bow in population(5, at_full_draw=True):
        assert bow.found.left_out is not bow.found.points[-1]
