"""What the readings of a rig's own shot would be at every spine: its curves."""

from dataclasses import replace
from functools import lru_cache

import numpy as np

from lyrandis.core.arrow.after import flown
from lyrandis.core.arrow.bend import PUSHES, Shot, bend
from lyrandis.core.arrow.spine import stiffness
from lyrandis.core.flight.curves import BARE_DISTANCES_M, INDEX, Curves
from lyrandis.core.numeric import Array

CURVES_DT = 30e-6
TAIL_M = 2.3


@lru_cache(maxsize=16)
def curves_of(shot: Shot, bare: Shot, matched_lbf: float, diameter_m: float) -> Curves:
    """Return a rig's curves about its match, the mean of nine releases; heavy, so kept by shot.

    The shaft's stiffness goes from 0.6 to 3.3 of the match, its mass held; `bare` is the same shot
    with the arrow unfletched. Each is bent twice, with the tail's contact and without, and flown.
    Counted from the clean reading at the match: only what differs from it is looked at.
    Source: the computed shot and flight (docs/MECHANICS.md).

    >>> from lyrandis.core.example import rig
    >>> shooting = rig().arrow.shooting
    >>> found = curves_of(shooting.shot, unfletched(shooting.shot), 54.0, 0.0087)
    >>> found.tail_clean[5], found.tail_clean[8] > 1.0
    (0.0, True)
    """
    spines = matched_lbf * np.exp(INDEX / 10)
    ei = np.array([[stiffness(float(spine)) for spine in (*spines, *spines)]])
    lets_pass = tuple(i < len(spines) for i in range(ei.shape[1]))
    tails, hits, impulse = [], [], None
    for item in (shot, bare):
        bent = bend((item,), ei, releases=PUSHES, clean=lets_pass, dt=CURVES_DT)
        columns = np.repeat(ei[0], len(PUSHES))
        near, *far = flown(item, bent, columns, diameter_m, (TAIL_M, *BARE_DISTANCES_M))
        tails.append(np.degrees(_mean(near.lean)))
        hits.append([_mean(place.tip) for place in far])
        impulse = _mean(bent.rear_impulse[0]) if impulse is None else impulse
    apart = [b - f for f, b in zip(*hits, strict=True)]
    clean, struck = slice(0, len(spines)), slice(len(spines), None)
    assert impulse is not None
    return Curves(
        index=tuple(INDEX.tolist()),
        tail_clean=_counted(tails[0][clean], tails[0][clean]),
        tail_struck=_counted(tails[0][struck], tails[0][clean]),
        bare_m=BARE_DISTANCES_M,
        bare_clean=tuple(_counted(item[clean], item[clean]) for item in apart),
        bare_struck=tuple(_counted(item[struck], item[clean]) for item in apart),
        impulse=tuple(impulse[struck].tolist()),
        tail_bare_clean=_counted(tails[1][clean], tails[1][clean]),
        tail_bare_struck=_counted(tails[1][struck], tails[1][clean]),
    )


def unfletched(shot: Shot) -> Shot:
    """Return a shot with its arrow bare.

    Source: definition.

    >>> from lyrandis.core.example import rig
    >>> unfletched(rig().arrow.shooting.shot).beam.fletching
    0.0
    """
    return replace(shot, beam=replace(shot.beam, fletching=0.0))


def _mean(columns: Array) -> Array:
    """Return the mean over the releases of each stiffness."""
    result: Array = columns.reshape(-1, len(PUSHES)).mean(axis=1)
    return result


def _counted(values: Array, clean: Array) -> tuple[float, ...]:
    """Count from the clean value at the match."""
    at = int(np.flatnonzero(INDEX == 0)[0])
    return tuple((values - clean[at]).tolist())
