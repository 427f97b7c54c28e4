"""Student's t: how wide an interval is where the spread itself is only estimated."""

import math

NORMAL_95 = 1.959964
_T_95 = (12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228,
         2.201, 2.179, 2.160, 2.145, 2.131, 2.120, 2.110, 2.101, 2.093, 2.086)  # fmt: skip


def student_95(freedom: int) -> float:
    """Return the 97.5 % point of Student's t: half of a 95 % interval, from 1 degree of freedom on.

    Source: table to 20 degrees; beyond, Abramowitz and Stegun, Handbook of Mathematical Functions,
    26.7.5, to 0.0001.

    >>> [round(student_95(freedom), 3) for freedom in (6, 8, 12, 30, 60)]
    [2.447, 2.306, 2.179, 2.042, 2.0]
    """
    if freedom < 1:
        raise ValueError(f"{freedom} degrees of freedom")
    if freedom <= len(_T_95):
        return _T_95[freedom - 1]
    # t = z + (z^3 + z)/4n + (5z^5 + 16z^3 + 3z)/96n^2 + (3z^7 + 19z^5 + 17z^3 - 15z)/384n^3
    z, n = NORMAL_95, freedom
    return (
        z
        + (z**3 + z) / (4 * n)
        + (5 * z**5 + 16 * z**3 + 3 * z) / (96 * n**2)
        + (3 * z**7 + 19 * z**5 + 17 * z**3 - 15 * z) / (384 * n**3)
    )


def student_chance(t: float, freedom: int) -> float:
    """Return the chance that Student's t lies below a value.

    With theta = atan(t/sqrt(n)): sums of cosines of theta, exact for whole degrees.
    Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 26.7.3 and 26.7.4.

    >>> [round(student_chance(t, n), 3) for t, n in ((2.306, 8), (0.0, 5), (-2.571, 5))]
    [0.975, 0.5, 0.025]
    """
    if freedom < 1:
        raise ValueError(f"{freedom} degrees of freedom")
    theta = math.atan(t / math.sqrt(freedom))
    cosine, sine = math.cos(theta), math.sin(theta)
    odd = freedom % 2 == 1
    term, total = (cosine if odd else 1.0), 0.0
    for step in range(2 if odd else 1, freedom, 2):
        total += term
        term *= cosine * cosine * step / (step + 1)
    inside = 2 / math.pi * (theta + sine * total) if odd else sine * total
    return 0.5 + inside / 2
